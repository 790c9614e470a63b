import type { ComputedRef, InjectionKey } from 'vue';

/** How the student's recording plays along with a talk-through that is heard. */
export interface Along {
  /** Where it should be just now, in seconds of its own. */
  position(): number;
  playing: boolean;
  rate: number;
  muted: boolean;
}

/** What a recording of the student has to do with talk-throughs. */
export interface PerformancePart {
  /** How it plays along with one that is heard; undefined where it does not. */
  along(leaf: number): ComputedRef<Along | undefined>;
  /** Stops the talk-through that it plays along with. */
  leave(): void;
  /** Begins to record, so that somebody can speak over it; answers whether it does. Nobody but a teacher can. */
  speakOver?: (() => Promise<boolean>) | undefined;
  /** It has begun to play, or goes on from elsewhere. @param position reads its clock, in seconds */
  begun?: ((leaf: number, position: () => number) => void) | undefined;
  halted?: (() => void) | undefined;
}

export const PERFORMANCE: InjectionKey<PerformancePart> = Symbol('performance');
