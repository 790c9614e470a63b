import type { Stamp } from '#contract/stamps';
import { computed, type ComputedRef, type Ref } from 'vue';
import type { Notice } from './notice.ts';
import type { Choosing } from './use-choosing.ts';
import type { useSpeaking } from './voice/use-speaking.ts';
import type { Writing } from './use-writing.ts';

interface Options {
  choosing: Choosing;
  writing: Writing;
  speaking: ReturnType<typeof useSpeaking>;
  /** What is chosen, in words. */
  targetName: ComputedRef<string | undefined>;
  returned: ComputedRef<boolean>;
  notice: Ref<Notice | undefined>;
}

/** Of the width of a page. */
const STAMP_SHARE = 0.12;

/** All that a remark can be beside spoken: written, suggested, reacted, stamped, filmed. */
export function useForms({ choosing, writing, speaking, targetName, returned, notice }: Options) {
  const say = (text: string): void => void (notice.value = { text });
  const kind = (): string => speaking.nextKind.value;

  const stampTarget = computed(() => {
    if (targetName.value) return `Goes on ${targetName.value}.`;
    return choosing.placeOnPage(STAMP_SHARE)
      ? 'Goes on the page you are reading; drag a box first to choose where.'
      : 'Select words in the work, then choose a stamp.';
  });

  /** Opens the form for a remark that is written. */
  function write(content: { private?: boolean } = {}): void {
    if (!returned.value) writing.begin(choosing.now() ?? { type: 'whole' }, kind(), content);
  }

  function suggest(): void {
    const anchor = choosing.now();
    if (returned.value) return;
    if (anchor?.type === 'passage') writing.begin(anchor, kind(), { suggestion: anchor.quote.exact });
    else say('Select the words you want to change, then suggest others.');
  }

  function react(emoji: string): void {
    const anchor = choosing.now();
    if (anchor) void writing.put(anchor, kind(), { reaction: emoji });
    else say('Select the words you want to react to.');
  }

  function stamp(one: Stamp): void {
    const anchor = choosing.now() ?? choosing.placeOnPage(STAMP_SHARE);
    if (anchor) void writing.put(anchor, kind(), { stamp: one });
    else say('Select the words the stamp belongs to.');
  }

  return { stampTarget, write, suggest, react, stamp };
}
