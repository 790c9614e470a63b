import type { ReadPassage } from './passage.ts';

/** Something about a passage that teachers often say something to. */
export interface Detector {
  name: string;
  /** What is told of a passage that has it: "this passage …". */
  says: string;
  /** Words by which teachers tag or name a remark about it. */
  labels: readonly string[];
  /** How surely the passage has it, from 0 to 1. */
  find(passage: ReadPassage): number;
}

/** 1 where it is so, else 0. */
export const sure = (holds: boolean): number => (holds ? 1 : 0);

/** Whether nothing but blanks stands between a passage and the beginning of its line. @param before what stands before it */
export const beginsLine = (before: string): boolean => {
  const bare = before.trimEnd();
  return bare === '' || before.slice(bare.length).includes('\n');
};
