import type { Remark } from '#contract/remarks';
import { watch, type ComputedRef } from 'vue';
import { usePlayer } from '../player/player.ts';
import { useFeedbackActions } from '../feedback/use-feedback-actions.ts';

/** Nobody needs to hear the last breath of a remark to have heard it. */
const HEARD_SHARE = 0.9;

/** Tells the teacher's side which remarks were begun, and which were heard to their end without skipping there. */
export function useHeard(remarks: ComputedRef<readonly Remark[]>): void {
  const player = usePlayer();
  const actions = useFeedbackActions();
  let last = 0;
  let listened = 0;

  watch([player.current, player.playing], ([id, playing]) => {
    const remark = remarks.value.find((candidate) => candidate.id === id);
    if (remark && playing && !remark.heard) void actions.heard(remark, false);
  });
  watch(player.current, () => (listened = last = 0));
  watch(player.position, (position) => {
    const step = position - last;
    last = position;
    // A larger step is a jump, not listening.
    if (step > 0 && step < 1) listened += step;
    const remark = remarks.value.find(({ id }) => id === player.current.value);
    if (!remark?.sound || remark.heard?.finishedAt || listened < HEARD_SHARE * remark.sound.duration) return;
    void actions.heard(remark, true);
  });
}
