import { inTime, retimedTrack } from '#core/talk';
import { MOST_EVENTS, TalkEvent, Track } from '#contract/talk';
import type { SoundEdit } from '#contract/sound';

/**
 * The track of a take, out of what was noted while it was spoken. What cannot be understood is left out, and where it is far too
 * much, views are the first to go.
 * @param edit what of the original is heard
 */
export function trackOf(notes: readonly unknown[], edit: SoundEdit | null): Track {
  const events = notes.flatMap((note) => TalkEvent.safeParse(note).data ?? []);
  const few = events.length > MOST_EVENTS ? events.filter(({ type }) => type !== 'view') : events;
  const track = inTime(few.slice(0, MOST_EVENTS));
  return Track.safeParse(edit ? retimedTrack(track, null, edit.kept) : track).data ?? [];
}
