import type { Problem } from '#contract/problem';

/** The server answered, and said what is wrong. */
export class Refused extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
    this.name = 'Refused';
  }
}

/** No answer came: the network or the server is away. */
export class Unreachable extends Error {
  constructor() {
    super('The server cannot be reached at the moment.');
    this.name = 'Unreachable';
  }
}
