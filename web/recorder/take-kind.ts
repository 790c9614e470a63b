import type { z } from 'zod';

/** What a take is for, so that it can be kept even if the page is gone before it ends. */
export interface TakePurpose {
  /** The sort of thing that is made of it. */
  type: string;
  /** Where it is offered again, e.g. the id of a work. */
  place: string;
  /** What whoever makes something of it has to know. */
  about: unknown;
  /** Silence before and after what is said stays, since things are done meanwhile. */
  whole?: boolean | undefined;
}

/** A sort of thing that takes become. Whoever records describes its own; the recorder knows none of them. */
export interface TakeKind<About> {
  type: string;
  about: z.ZodType<About>;
}

/** What a take is about, where it is of this kind and can be understood. */
export function aboutOf<About>(kind: TakeKind<About>, purpose: TakePurpose | undefined): About | undefined {
  if (purpose?.type !== kind.type) return undefined;
  const about = kind.about.safeParse(purpose.about);
  return about.success ? about.data : undefined;
}
