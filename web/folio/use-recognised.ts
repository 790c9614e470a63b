import { readRecognised, type Recognised, type RecognisedLeaf } from '#contract/recognised';
import type { Work } from '#contract/submissions';
import { wordlessLeaves } from '#core/folio';
import { computed, onScopeDispose, shallowRef, watch, type ComputedRef } from 'vue';
import { call } from '../session/api.ts';

/** How long is waited before it is asked again, in milliseconds; longer each time. */
const FIRST_WAIT = 2000;
const LONGEST_WAIT = 30_000;

/** What is known of the words of a page that has none of its own. */
export interface WordlessPage {
  state: Recognised['state'] | 'asked';
  words: RecognisedLeaf | undefined;
}

/** The scanned pages and pictures of a work, with the words that were read in them so far. */
export function useRecognised(work: () => Work): ComputedRef<ReadonlyMap<number, WordlessPage>> {
  const wordless = computed(() => wordlessLeaves(work().folio));
  const found = shallowRef<Recognised>();
  let timer: ReturnType<typeof setTimeout> | undefined;
  let ended = false;

  async function ask(submission: string, wait: number): Promise<void> {
    const answer = await call(readRecognised, { params: { submission } }).catch(() => undefined);
    if (ended || submission !== work().id) return;
    if (answer) found.value = answer;
    if (answer && answer.state !== 'waiting') return;
    timer = setTimeout(() => void ask(submission, Math.min(LONGEST_WAIT, wait * 1.5)), wait);
  }

  watch(
    () => work().id,
    (submission) => {
      clearTimeout(timer);
      found.value = undefined;
      if (wordless.value.length > 0) void ask(submission, FIRST_WAIT);
    },
    { immediate: true },
  );
  onScopeDispose(() => {
    ended = true;
    clearTimeout(timer);
  });

  return computed(
    () =>
      new Map(
        wordless.value.map((leaf) => [
          leaf,
          { state: found.value?.state ?? 'asked', words: found.value?.leaves.find((one) => one.leaf === leaf) },
        ]),
      ),
  );
}
