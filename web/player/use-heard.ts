import type { Span } from '#core/audio';
import type { Recording } from '#contract/recordings';
import { useDocumentVisibility, useEventListener } from '@vueuse/core';
import { onBeforeUnmount, watch, type ComputedRef } from 'vue';
import { usePlayer } from './player.ts';

/** Seconds: a larger step of the player's place is a jump, not listening. */
const STEP = 1;
/** Seconds of listening after which it is told, though it goes on. */
const OFTEN = 5;

/** Tells the other side which parts of which recordings were really played here, while somebody had them before them. */
export function useHeard(
  recordings: ComputedRef<readonly Recording[]>,
  report: (recording: Recording, played: Span[]) => Promise<void>,
): void {
  const player = usePlayer();
  const visibility = useDocumentVisibility();
  let heard: Recording | undefined;
  let played: Span[] = [];
  let last = 0;

  const current = (): Recording | undefined => recordings.value.find(({ id }) => id === player.current.value);

  function tell(): void {
    if (heard && played.length > 0) void report(heard, played);
    played = [];
  }

  watch([player.current, player.playing], ([, playing]) => {
    if (!playing || current()?.id !== heard?.id) tell();
    heard = current();
    if (heard && playing && !heard.heard) void report(heard, []);
  });
  watch(
    () => player.current.value,
    () => (last = 0),
  );
  watch(player.position, (position) => {
    const from = last;
    last = position;
    if (!current() || visibility.value === 'hidden' || position <= from || position - from >= STEP) return;
    const stretch = played.at(-1);
    if (stretch?.end === from) stretch.end = position;
    else played.push({ start: from, end: position });
    if (played.reduce((sum, { start, end }) => sum + end - start, 0) >= OFTEN) tell();
  });
  useEventListener(window, 'pagehide', tell);
  onBeforeUnmount(tell);
}
