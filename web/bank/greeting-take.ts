import { Id } from '#contract/basics';
import { z } from 'zod';
import type { TakeKind } from '../recorder/take-kind.ts';

/** A greeting that is being spoken: to which student. Its place is the course. */
export const GREETING_TAKE: TakeKind<{ student: string }> = { type: 'greeting', about: z.object({ student: Id }) };
