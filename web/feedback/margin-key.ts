import { PLAIN_HEX } from '#contract/ink';
import { DEFAULT_KEY, keyEntry, type KeyEntry, type KeyLine, type MarginKey } from '#core/margin';
import { createSharedComposable, useStyleTag } from '@vueuse/core';
import { computed, watchEffect, type ComputedRef } from 'vue';
import { useFeedback } from './feedback-store.ts';

/** Borders know no wave: there it is long dashes. */
const BORDERS: Record<KeyLine, string> = {
  solid: 'solid',
  dotted: 'dotted',
  wavy: 'dashed',
  double: 'double',
  dashed: 'dashed',
};

/** One class for each kind gives its colour and its line to everything inside. */
export const keyStyles = (key: MarginKey): string =>
  key
    .map(
      ({ kind, color, line }) =>
        `.kind-${kind} { --kind: rgb(var(--v-theme-${color})); --kind-line: ${line}; --kind-border: ${BORDERS[line]}; }`,
    )
    .join('\n');

/** What is drawn in no kind's colour; ink is as dark as the letters beside it. */
const PLAIN_STYLES = [
  '.kind-ink { --kind: var(--drawn-ink, var(--ink)); }',
  ...(['grey', 'pale'] as const).map((colour) => `.kind-${colour} { --kind: ${PLAIN_HEX[colour]}; }`),
].join('\n');

/** The margin key of the course whose work is open. */
export const useMarginKey = createSharedComposable(() => {
  const store = useFeedback();
  const key = computed((): MarginKey => store.work?.marginKey ?? DEFAULT_KEY);
  const { css } = useStyleTag('', { id: 'margin-key' });
  watchEffect(
    () =>
      (css.value = `[class*='kind-'] { --kind: rgb(var(--v-theme-slate)); }\n${PLAIN_STYLES}\n${keyStyles(key.value)}`),
  );
  const entry = (kind: string): KeyEntry => keyEntry(key.value, kind);
  return { key: key as ComputedRef<MarginKey>, entry };
});
