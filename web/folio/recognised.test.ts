// @vitest-environment happy-dom
import { flushPromises, mount } from '@vue/test-utils';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { effectScope, reactive } from 'vue';
import type { Recognised, RecognisedLeaf } from '#contract/recognised';
import type { Anchor, RegionAnchor } from '#core/anchor';
import { folioContext, workOf } from '../testing/folio.ts';
import { FOLIO, type FolioContext } from './folio-context.ts';
import RecognisedWords from './RecognisedWords.vue';
import { useRecognised, type WordlessPage } from './use-recognised.ts';
import WordlessNote from './WordlessNote.vue';

const words: RecognisedLeaf = {
  leaf: 0,
  lines: [
    [
      { text: 'low', x: 0.1, y: 0.2, width: 0.1, height: 0.02 },
      { text: 'water', x: 0.25, y: 0.2, width: 0.2, height: 0.02 },
    ],
    [{ text: 'ferry', x: 0.1, y: 0.25, width: 0.15, height: 0.03 }],
  ],
};

function context(page: WordlessPage, more: Partial<FolioContext> = {}): FolioContext {
  const made: FolioContext = reactive(
    folioContext({
      choosing: true,
      wordless: new Map([[0, page]]),
      choose: (anchor?: Anchor) => (made.target = anchor),
      ...more,
    } as never),
  );
  return made;
}
const drawn = (component: object, folio: FolioContext) =>
  mount(component, {
    props: { index: 0, ratio: 0.7 },
    global: { provide: { [FOLIO]: folio } },
    attachTo: document.body,
  });

describe('a page without a text', () => {
  it.each<[WordlessPage['state'], RecognisedLeaf | undefined, boolean, string]>([
    ['off', undefined, true, 'There is no text in this picture. Draw a box to comment on a part of it.'],
    ['off', undefined, false, 'There is no text in this picture.'],
    ['waiting', undefined, true, 'There is no text in this picture. Recognising its words …'],
    ['failed', undefined, false, 'The words in this picture could not be recognised.'],
    ['done', { leaf: 0, lines: [] }, false, 'No words were recognised in this picture.'],
    ['done', words, true, 'Recognised words: they can be selected, and may contain mistakes.'],
  ])('says so (%s, %o, choosing: %s)', (state, found, choosing, sentence) => {
    const note = drawn(WordlessNote, context({ state, words: found }, { choosing }));
    expect(note.get('[role=note]').attributes('aria-label')).toBe(sentence);
  });

  it('says nothing before anything is known', () => {
    expect(
      drawn(WordlessNote, context({ state: 'asked', words: undefined }))
        .find('[role=note]')
        .exists(),
    ).toBe(false);
  });

  it('has its recognised words selected as a box around them', () => {
    const folio = context({ state: 'done', words });
    const layer = drawn(RecognisedWords, folio);
    const [first, , last] = layer.findAll('[data-word]');
    const range = document.createRange();
    range.setStart(first!.element.firstChild!, 1);
    range.setEnd(last!.element.firstChild!, 2);
    document.getSelection()!.removeAllRanges();
    document.getSelection()!.addRange(range);
    document.dispatchEvent(new Event('selectionchange'));
    document.dispatchEvent(new Event('pointerup'));
    const { x, y, width, height, ...region } = folio.target as RegionAnchor;
    expect(region).toEqual({ type: 'region', leaf: 0 } satisfies Partial<Anchor>);
    expect([x, y, width, height].map((value) => value.toFixed(3))).toEqual(['0.100', '0.200', '0.350', '0.080']);
    // A press that selects nothing new changes nothing that was chosen since.
    folio.target = undefined;
    document.dispatchEvent(new Event('pointerup'));
    expect(folio.target).toBeUndefined();
  });
});

describe('the words of a scanned work', () => {
  afterEach(() => {
    vi.unstubAllGlobals();
    vi.useRealTimers();
  });

  it('are asked for until they are there, and not at all where the work has a text', async () => {
    vi.useFakeTimers();
    const answers: Recognised[] = [
      { state: 'waiting', leaves: [] },
      { state: 'done', leaves: [words] },
    ];
    const asked = vi.fn(() => Promise.resolve(Response.json(answers[Math.min(asked.mock.calls.length, 2) - 1])));
    vi.stubGlobal('fetch', asked);
    const scope = effectScope();
    const page = { kind: 'picture' as const, label: 'Picture', picture: 0, width: 10, height: 14, file: 0 };
    const scanned = workOf({ title: 'Scan', files: [], text: '', leaves: [{ ...page, start: 0, end: 0 }] });
    const pages = scope.run(() => useRecognised(() => scanned))!;
    expect(pages.value.get(0)?.state).toBe('asked');
    await flushPromises();
    expect(pages.value.get(0)).toEqual({ state: 'waiting', words: undefined });
    await vi.advanceTimersByTimeAsync(2100);
    expect(pages.value.get(0)).toEqual({ state: 'done', words });
    await vi.advanceTimersByTimeAsync(120_000);
    expect(asked).toHaveBeenCalledTimes(2);
    const written = workOf({ title: 'Text', files: [], text: 'Low.\n', leaves: [{ ...page, start: 0, end: 5 }] });
    expect(scope.run(() => useRecognised(() => written))!.value.size).toBe(0);
    expect(asked).toHaveBeenCalledTimes(2);
    scope.stop();
  });
});
