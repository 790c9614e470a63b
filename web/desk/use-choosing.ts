import type { Anchor } from '#core/anchor';
import { sentenceBeside, sentences, type Folio } from '#core/folio';
import { computed, nextTick, ref, type ComputedRef, type Ref } from 'vue';
import { rangeOf } from '../folio/selection.ts';
import { useTarget, type Target } from '../folio/use-target.ts';

export interface Choosing extends Target {
  /** Whether a drag draws a box, also where there are words. */
  boxing: Ref<boolean>;
  /** What a hand does on most of this work before the voice begins. */
  how: ComputedRef<string>;
  /** What a stamp is put on where nothing is chosen: a place on the page that is being read. */
  placeOnPage(size: number): Anchor | undefined;
  /** The page, slide or picture that is being read. */
  pageInView(): number | undefined;
  drop(): void;
  stepSentence(by: 1 | -1): void;
  box(): void;
  /** Leads the keyboard to the box that is chosen. */
  takeBox(): void;
}

/** Somebody presses the key when they have heard it: the moment began so many seconds before, and is so long. */
const HEARD_BEFORE = 1;
const HEARD_MOMENT = 2;
const PAGES = new Set(['page', 'slide', 'picture']);

/** What of the work is to be spoken about, by mouse and by keys. */
export function useChoosing(root: () => Element | null, folio: () => Folio | undefined): Choosing {
  const target = useTarget(root, folio);
  const boxing = ref(false);

  const how = computed(() => {
    const kinds = new Set(folio()?.leaves.map(({ kind }) => kind));
    if (kinds.size > 1) return 'Select words or a part of the work';
    if (kinds.has('sound')) return 'Drag over a stretch of the recording';
    if (kinds.has('picture')) return 'Drag over a part of the picture';
    if (kinds.has('sheet')) return 'Drag over cells';
    if (kinds.has('answer')) return 'Press a question or select words';
    return 'Select words';
  });

  function drop(): void {
    target.clear();
    boxing.value = false;
  }

  function stepSentence(by: 1 | -1): void {
    const [element, work] = [root(), folio()];
    if (!element || !work) return;
    const now = target.now();
    const next = sentenceBeside(sentences(work.text), now?.type === 'passage' ? now : undefined, by);
    const range = next && rangeOf(element, next);
    if (!range) return;
    const selection = document.getSelection();
    selection?.removeAllRanges();
    selection?.addRange(range);
    range.startContainer.parentElement?.scrollIntoView({ block: 'nearest' });
  }

  function pageInView(): number | undefined {
    const leaves = [...(root()?.querySelectorAll<HTMLElement>('[data-leaf]') ?? [])];
    const middle = window.innerHeight / 2;
    const seen = leaves.find((leaf) => leaf.getBoundingClientRect().bottom > middle) ?? leaves.at(-1);
    const index = Number(seen?.dataset.leaf);
    return PAGES.has(folio()?.leaves[index]?.kind ?? '') ? index : undefined;
  }

  /** The moment of the student's recording that is being heard, or was last. */
  function momentHeard(): Anchor | undefined {
    const index = folio()?.leaves.findIndex(({ kind }) => kind === 'sound') ?? -1;
    const media = root()?.querySelector<HTMLMediaElement>(`[data-leaf="${index}"] :is(audio, video)`);
    if (!media?.duration) return undefined;
    const hundredths = (seconds: number): number => Math.round(seconds * 100) / 100;
    const start = hundredths(Math.max(0, media.currentTime - HEARD_BEFORE));
    return { type: 'span', leaf: index, start, end: hundredths(Math.min(media.duration, start + HEARD_MOMENT)) };
  }

  /** A box in the middle of the leaf that is being read, to be moved with the keys or drawn anew with the mouse. */
  function box(): void {
    const leaf = pageInView();
    if (leaf === undefined) return target.choose(momentHeard() ?? target.chosen.value);
    boxing.value = true;
    target.choose({ type: 'region', leaf, x: 0.3, y: 0.4, width: 0.4, height: 0.2 });
    takeBox();
  }

  const takeBox = (): void =>
    void nextTick(() => root()?.querySelector<HTMLElement>('.box.chosen')?.focus({ preventScroll: true }));

  function placeOnPage(size: number): Anchor | undefined {
    const leaf = pageInView();
    if (leaf === undefined) return undefined;
    const frame = root()?.querySelector(`[data-leaf="${leaf}"] .layer`)?.getBoundingClientRect();
    const width = size;
    const height = frame ? (size * frame.width) / frame.height : size;
    return { type: 'region', leaf, x: 0.78, y: 0.06, width, height: Math.min(0.9, height) };
  }

  return { ...target, boxing, how, placeOnPage, pageInView, drop, stepSentence, box, takeBox };
}
