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
