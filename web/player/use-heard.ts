import type { Recording } from '#contract/recordings';
import { watch, type ComputedRef } from 'vue';
import { usePlayer } from './player.ts';

/** Nobody needs to hear the last breath of a recording to have heard it. */
const HEARD_SHARE = 0.9;

/** Tells the other side which recordings were begun, and which were heard to their end without skipping there. */
export function useHeard(
  recordings: ComputedRef<readonly Recording[]>,
  report: (recording: Recording, finished: boolean) => Promise<void>,
): void {
  const player = usePlayer();
  let last = 0;
  let listened = 0;
  const current = (): Recording | undefined => recordings.value.find(({ id }) => id === player.current.value);

  watch([player.current, player.playing], ([, playing]) => {
    const recording = current();
    if (recording && playing && !recording.heard) void report(recording, false);
  });
  watch(player.current, () => (listened = last = 0));
  watch(player.position, (position) => {
    const step = position - last;
    last = position;
    // A larger step is a jump, not listening.
    if (step > 0 && step < 1) listened += step;
    const recording = current();
    if (!recording || recording.heard?.finishedAt || listened < HEARD_SHARE * recording.sound.duration) return;
    void report(recording, true);
  });
}
