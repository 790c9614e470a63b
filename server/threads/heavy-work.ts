import { fairTurns } from './fair-turns.ts';

/**
 * What takes a thread for a while because somebody asked for it: reading documents, finding places in them again. One person has
 * one thread of it, so another is there for the others.
 */
export const heavyWork = fairTurns({ atOnce: 2, each: 1, patience: 60_000 });
