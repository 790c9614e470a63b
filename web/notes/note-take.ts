import { NotePlace } from '#contract/notes';
import type { TakeKind } from '../recorder/take-kind.ts';

/** A note that is being spoken: where it is to stand. Its place is the course. */
export const NOTE_TAKE: TakeKind<NotePlace> = { type: 'note', about: NotePlace };
