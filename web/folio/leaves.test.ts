// @vitest-environment happy-dom
import { mount, type VueWrapper } from '@vue/test-utils';
import { describe, expect, it, vi } from 'vitest';
import { nextTick, reactive, type Component } from 'vue';
import type { Anchor, RegionAnchor } from '#core/anchor';
import { columnName, type Leaf, type LeafOf } from '#core/folio';
import { folioContext, readFolio } from '../testing/folio.ts';
import { anchorName } from '../wording/anchor-name.ts';
import Uptake from '../earlier/Uptake.vue';
import AnswerLeaf from './AnswerLeaf.vue';
import BoxLayer from './BoxLayer.vue';
import { FOLIO, type DrawnMark, type FolioContext } from './folio-context.ts';
import PageLeaf from './PageLeaf.vue';
import SheetLeaf from './SheetLeaf.vue';
import SlideLeaf from './SlideLeaf.vue';

const place = { file: 0, start: 0, end: 0 };

interface Drawn {
  leaf: VueWrapper;
  chosen: () => Anchor | undefined;
  picked: string[];
}

function draw(
  component: Component,
  props: Record<string, unknown>,
  more: Parameters<typeof folioContext>[0] = {},
): Drawn {
  const picked: string[] = [];
  const context: FolioContext = reactive(
    folioContext({
      choosing: true,
      pick: (id) => picked.push(id),
      choose: (anchor) => (context.target = anchor),
      ...more,
    }),
  );
  const leaf = mount(component, { props, global: { provide: { [FOLIO]: context } }, attachTo: document.body });
  return { leaf, chosen: () => context.target, picked };
}

const mark = (id: string, anchor: Anchor, kind: DrawnMark['kind'] = 'repair'): DrawnMark => ({ id, kind, anchor });

describe('a table', () => {
  const leaf: Leaf = {
    kind: 'sheet',
    label: 'Tides',
    rows: [
      [{ text: 'Day' }, { text: 'High' }],
      [{ text: 'Mon' }, { text: '4.9' }],
    ],
    file: 0,
    start: 10,
    end: 27,
  };
  const cell = ({ leaf: drawn }: Drawn, row: number, column: number) => drawn.get(`[data-cell="${row} ${column}"]`);

  it('has its cells chosen by dragging, and by the arrow keys with Shift', async () => {
    const drawn = draw(SheetLeaf, { leaf, index: 3 });
    await cell(drawn, 0, 0).trigger('pointerdown', { button: 0 });
    await cell(drawn, 1, 1).trigger('pointerenter');
    expect(drawn.chosen()).toEqual({ type: 'cells', leaf: 3, top: 0, left: 0, bottom: 1, right: 1 });
    window.dispatchEvent(new Event('pointerup'));
    await cell(drawn, 0, 1).trigger('pointerenter');
    expect(drawn.chosen()).toMatchObject({ bottom: 1, right: 1 });
    await cell(drawn, 1, 0).trigger('pointerdown', { button: 0 });
    await cell(drawn, 1, 0).trigger('keydown', { key: 'ArrowRight', shiftKey: true });
    expect(drawn.chosen()).toEqual({ type: 'cells', leaf: 3, top: 1, left: 0, bottom: 1, right: 1 });
    await cell(drawn, 1, 1).trigger('keydown', { key: 'ArrowUp' });
    expect(drawn.chosen()).toEqual({ type: 'cells', leaf: 3, top: 0, left: 1, bottom: 0, right: 1 });
  });

  it('draws the edges of a remark’s cells, leads to it, and counts its text from the right offset', async () => {
    const anchor: Anchor = { type: 'cells', leaf: 3, top: 1, left: 0, bottom: 1, right: 1 };
    const drawn = draw(SheetLeaf, { leaf, index: 3 }, { marks: [mark('a', anchor)] });
    expect(cell(drawn, 1, 0).classes()).toEqual(
      expect.arrayContaining(['marked', 'kind-repair', 'top', 'bottom', 'left']),
    );
    expect(cell(drawn, 1, 0).classes()).not.toContain('right');
    expect(cell(drawn, 0, 0).attributes('data-remarks')).toBeUndefined();
    await cell(drawn, 1, 1).trigger('pointerdown', { button: 0 });
    expect(drawn.picked).toEqual(['a']);
    expect(cell(drawn, 1, 1).get('[data-start]').attributes('data-start')).toBe('23');
  });

  it('chooses nothing where nothing can be said', async () => {
    const drawn = draw(SheetLeaf, { leaf, index: 3 }, { choosing: false });
    await cell(drawn, 0, 0).trigger('pointerdown', { button: 0 });
    expect(drawn.chosen()).toBeUndefined();
  });
});

describe('an answer', () => {
  const leaf: LeafOf<'answer'> = {
    kind: 'answer',
    label: 'Question 2',
    question: 'q',
    prompt: 'Why?',
    blocks: [],
    ...place,
  };

  it('is chosen by its question, and let go again', async () => {
    const drawn = draw(AnswerLeaf, { leaf, index: 1 });
    const question = drawn.leaf.get('button.question');
    await question.trigger('click');
    expect(drawn.chosen()).toEqual({ type: 'answer', question: 'q' });
    expect(question.attributes('aria-pressed')).toBe('true');
    await question.trigger('click');
    expect(drawn.chosen()).toBeUndefined();
    expect(drawn.leaf.get('.none').attributes('data-words')).toBe('No answer.');
  });

  it('leads to the remark about it', async () => {
    const drawn = draw(AnswerLeaf, { leaf, index: 1 }, { marks: [mark('a', { type: 'answer', question: 'q' })] });
    await drawn.leaf.get('[data-remarks=a]').trigger('click');
    expect(drawn.picked).toEqual(['a']);
  });
});

describe('boxes', () => {
  const frame = { left: 100, top: 50, width: 200, height: 100 } as DOMRect;
  const move = (x: number, y: number): boolean =>
    window.dispatchEvent(new MouseEvent('pointermove', { clientX: x, clientY: y }));

  function press(drawn: Drawn, x: number, y: number, on: Element = drawn.leaf.element as Element): Event {
    const event = new MouseEvent('pointerdown', { clientX: x, clientY: y, button: 0, cancelable: true });
    Object.defineProperty(event, 'target', { value: on });
    (drawn.leaf.vm as unknown as { begin: (event: Event) => void }).begin(event);
    return event;
  }
  const layer = (more: Parameters<typeof folioContext>[0] = {}): Drawn => {
    const article = document.createElement('article');
    article.className = 'folio';
    document.body.append(article);
    const drawn = draw(BoxLayer, { index: 2, label: 'the picture' }, more);
    article.append(drawn.leaf.element as Element);
    vi.spyOn(drawn.leaf.element as Element, 'getBoundingClientRect').mockReturnValue(frame);
    return drawn;
  };

  it('are drawn by dragging in any direction, and stay inside', () => {
    const drawn = layer();
    press(drawn, 250, 100);
    move(150, 75);
    expect(drawn.chosen()).toEqual({ type: 'region', leaf: 2, x: 0.25, y: 0.25, width: 0.5, height: 0.25 });
    move(900, 900);
    expect(drawn.chosen()).toEqual({ type: 'region', leaf: 2, x: 0.75, y: 0.5, width: 0.25, height: 0.5 });
    window.dispatchEvent(new Event('pointerup'));
    move(110, 60);
    expect(drawn.chosen()).toMatchObject({ x: 0.75 });
  });

  it('are not drawn by a slip of the hand, nor where a press is on words, unless boxes are wanted', () => {
    const drawn = layer();
    press(drawn, 250, 100);
    move(252, 101);
    expect(drawn.chosen()).toBeUndefined();
    const words = document.createElement('span');
    words.dataset.start = '0';
    expect(press(drawn, 150, 75, words).defaultPrevented).toBe(false);
    expect(press(layer({ boxing: true }), 150, 75, words).defaultPrevented).toBe(true);
  });

  it('are moved and resized with the keys, and not beyond the edge', async () => {
    const drawn = layer({ target: { type: 'region', leaf: 2, x: 0.5, y: 0.9, width: 0.3, height: 0.1 } });
    const box = drawn.leaf.get('.chosen');
    await box.trigger('keydown', { key: 'ArrowRight' });
    await box.trigger('keydown', { key: 'ArrowDown' });
    expect(drawn.chosen()).toMatchObject({ x: 0.51, y: 0.9 });
    await box.trigger('keydown', { key: 'ArrowUp', shiftKey: true });
    expect((drawn.chosen() as { height: number }).height).toBeCloseTo(0.09);
  });

  it('are moved by dragging them, and resized by their corner', async () => {
    const drawn = layer({ target: { type: 'region', leaf: 2, x: 0.5, y: 0.5, width: 0.2, height: 0.2 } });
    const drag = async (selector: string, by: [number, number]): Promise<void> => {
      await drawn.leaf.get(selector).trigger('pointerdown', { button: 0, clientX: 200, clientY: 100 });
      move(200 + by[0], 100 + by[1]);
      window.dispatchEvent(new Event('pointerup'));
      move(0, 0);
      await nextTick();
    };
    const before = drawn.chosen() as RegionAnchor;
    await drag('.chosen', [-40, 20]);
    const moved = drawn.chosen() as RegionAnchor;
    expect(moved.x).toBeLessThan(before.x);
    expect(moved.y).toBeGreaterThan(before.y);
    expect([moved.width, moved.height]).toEqual([0.2, 0.2]);
    await drag('.corner', [40, 20]);
    const sized = drawn.chosen() as RegionAnchor;
    expect([sized.x, sized.y]).toEqual([moved.x, moved.y]);
    expect(sized.width).toBeGreaterThan(0.2);
    expect(sized.height).toBeGreaterThan(0.2);
  });

  it('of remarks have a name, a glyph and a line of their kind, and lead to them', async () => {
    const drawn = layer({
      marks: [mark('a', { type: 'region', leaf: 2, x: 0, y: 0, width: 0.5, height: 0.5 }, 'question')],
    });
    const box = drawn.leaf.get('[data-remarks=a]');
    expect(box.attributes('aria-label')).toBe('Question: go to the remark about this part of the picture');
    expect([box.classes(), box.get('.glyph').attributes('data-glyph')]).toEqual([
      expect.arrayContaining(['kind-question']),
      '?',
    ]);
    await box.trigger('click');
    expect(drawn.picked).toEqual(['a']);
  });
});

describe('slides and pages', () => {
  it('draw every shape of a slide at its place, as a share of its size', async () => {
    const folio = await readFolio('demo/documents/mirza-hadzic.pptx');
    const leaf = folio.leaves[0] as LeafOf<'slide'>;
    const { leaf: drawn } = draw(SlideLeaf, { leaf, index: 0 });
    const shapes = drawn.findAll<HTMLElement>('.shape');
    expect(shapes).toHaveLength(leaf.shapes.length);
    const title = shapes.find((shape) => shape.find('h2').exists())!;
    // 1.5 cm of 28 cm.
    expect(parseFloat(title.element.style.left)).toBeCloseTo((1.5 / 28) * 100, 1);
    expect(drawn.find('svg.line line').exists()).toBe(true);
    expect(drawn.get('.notes').text()).toContain('Begin with the man who waited');
  });

  it('put the words of a page over its drawing, where they can be marked', async () => {
    const folio = await readFolio('demo/documents/sione-tuipulotu.pdf');
    const leaf = folio.leaves[0] as LeafOf<'page'>;
    const start = folio.text.indexOf('another') < 0 ? 0 : folio.text.indexOf('the mud');
    const { leaf: drawn } = draw(
      PageLeaf,
      { leaf, index: 0 },
      { stretches: [{ id: 'a', kind: 'next', start, end: start + 7 }] },
    );
    await nextTick();
    expect(drawn.findAll('.text')).toHaveLength(leaf.texts.length);
    expect(
      drawn
        .findAll('mark')
        .map((one) => one.text())
        .join(''),
    ).toBe(folio.text.slice(start, start + 7));
  });
});

describe('what a remark is about, in words', () => {
  it('names columns as tables do', () => {
    expect([0, 25, 26, 701, 702].map(columnName)).toEqual(['A', 'Z', 'AA', 'ZZ', 'AAA']);
  });

  it.each<[Anchor, string]>([
    [{ type: 'whole' }, 'the whole work'],
    [{ type: 'passage', start: 0, end: 1, quote: { exact: 'ebb', prefix: '', suffix: '' } }, '“ebb”'],
    [{ type: 'region', leaf: 0, x: 0, y: 0, width: 1, height: 1 }, 'a part of slide 3 of a.pptx'],
    [{ type: 'span', leaf: 1, start: 61, end: 70.5 }, '1:01 to 1:10 of the recording of b.ogg'],
    [{ type: 'cells', leaf: 2, top: 1, left: 0, bottom: 2, right: 27 }, 'cells A2 to AB3 of tides of a.pptx'],
    [{ type: 'cells', leaf: 2, top: 1, left: 0, bottom: 1, right: 0 }, 'cell A2 of tides of a.pptx'],
    [{ type: 'answer', question: 'q' }, 'the answer to question 1'],
    [{ type: 'region', leaf: 9, x: 0, y: 0, width: 1, height: 1 }, 'a part of the work'],
  ])('%o', (anchor, name) => {
    const leaves: Leaf[] = [
      { kind: 'slide', label: 'Slide 3', width: 1, height: 1, shapes: [], notes: [], ...place },
      { kind: 'sound', label: 'Recording', duration: 90, video: false, ...place, file: 1 },
      { kind: 'sheet', label: 'Tides', rows: [], ...place },
      { kind: 'answer', label: 'Question 1', question: 'q', prompt: '', blocks: [], ...place },
    ];
    const files = [
      { name: 'a.pptx', format: 'pptx' as const },
      { name: 'b.ogg', format: 'ogg' as const },
    ];
    expect(anchorName({ leaves, files }, anchor)).toBe(name);
  });
});

describe('Uptake', () => {
  it('shows the old words with what was struck, and the new ones with what was put in', () => {
    const uptake = mount(Uptake, { props: { before: 'It does not explain.', after: 'It cannot explain.' } });
    const [before, now] = uptake.findAll('p');
    expect([before!.text(), before!.get('del').text()]).toEqual(['It does not explain.', 'does not']);
    expect([now!.text(), now!.get('ins').text()]).toEqual(['It cannot explain.', 'cannot']);
  });
});
