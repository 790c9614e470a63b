// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import { blockStarts, type Block } from '#core/folio';
import { describe, expect, it } from 'vitest';
import { folioContext } from '../testing/folio.ts';
import FolioBlock from './FolioBlock.vue';
import { FOLIO, type DrawnStretch } from './folio-context.ts';

const ID = '6f0b3c0e-7d55-4f58-9a52-0d0f0a1b2c3d';
const paragraph: Block = { type: 'paragraph', runs: [{ text: 'The tide turned.', marks: [] }] };
const stretch = (id: string, start: number, end: number, kind: DrawnStretch['kind']): DrawnStretch => ({
  id,
  start,
  end,
  kind,
});

const picked: string[] = [];
const draw = (block: Block, stretches: DrawnStretch[] = [], focused?: string) =>
  mount(FolioBlock, {
    props: { block, starts: blockStarts([block]) },
    global: {
      provide: { [FOLIO]: folioContext({ submission: ID, stretches, focused, pick: (id) => picked.push(id) }) },
    },
  });

describe('a drawn block', () => {
  it('marks a passage in its kind and leads to its remark', async () => {
    const drawn = draw(paragraph, [stretch('a', 4, 8, 'repair')]);
    expect(drawn.findAll('[data-start]').map((piece) => piece.text())).toEqual(['The', 'tide', 'turned.']);
    const mark = drawn.get('mark');
    expect(mark.classes()).toContain('kind-repair');
    await mark.trigger('click');
    expect(picked.splice(0)).toEqual(['a']);
  });

  it('draws a line for each of two remarks on the same words, one below the other', () => {
    const drawn = draw(paragraph, [stretch('a', 0, 8, 'repair'), stretch('b', 4, 15, 'strength')]);
    const both = drawn.findAll('mark').find((mark) => mark.text() === 'tide')!;
    expect(both.classes()).toContain('kind-strength');
    expect(both.get('.layer').classes()).toContain('kind-repair');
    expect(both.attributes('data-remarks')).toBe('a b');
  });

  it('lets the remark in focus stand out where several lie', async () => {
    const drawn = draw(paragraph, [stretch('a', 0, 8, 'repair'), stretch('b', 4, 15, 'strength')], 'a');
    const both = drawn.findAll('mark').find((mark) => mark.text() === 'tide')!;
    expect(both.classes()).toEqual(expect.arrayContaining(['kind-repair', 'focused']));
    await both.trigger('click');
    expect(picked.splice(0)).toEqual(['a']);
  });

  it('sets headings one step lower, since the page has its own', () => {
    expect(draw({ type: 'heading', level: 1, runs: paragraph.runs as never }).element.tagName).toBe('H2');
    expect(draw({ type: 'heading', level: 6, runs: paragraph.runs as never }).element.tagName).toBe('H6');
  });

  it('draws numbering and footnote calls without making them text', () => {
    const item = draw({
      type: 'item',
      depth: 1,
      marker: '3.',
      runs: [
        { text: 'third', marks: [] },
        { text: '', marks: [], note: '1' },
      ],
    });
    expect(item.text()).toBe('third');
    expect(item.get('.marker').attributes('data-marker')).toBe('3.');
    expect(item.get('.note').attributes('data-note')).toBe('1');
  });

  it('draws equations as MathML, with the characters that the text has, and marks them as a whole', () => {
    const math = {
      element: 'math',
      children: [
        {
          element: 'mfrac',
          children: [
            { element: 'mi', children: ['a'] },
            { element: 'mn', children: ['2'] },
          ],
        },
      ],
    };
    const drawn = draw({ type: 'paragraph', runs: [{ text: 'a2', marks: [], math }] }, [stretch('a', 1, 2, 'repair')]);
    const mark = drawn.get('mark');
    expect([mark.text(), mark.attributes('data-start')]).toEqual(['a2', '0']);
    expect(mark.get('math mfrac mn').text()).toBe('2');
  });

  it('opens links apart, without telling where from', () => {
    const link = draw({
      type: 'paragraph',
      runs: [{ text: 'see', marks: ['italic'], link: 'https://tides.example/' }],
    });
    expect(link.get('a').attributes()).toMatchObject({
      href: 'https://tides.example/',
      target: '_blank',
      rel: 'noopener noreferrer',
    });
    expect(link.get('[data-start]').classes()).toContain('italic');
  });

  it('draws tables with marks inside, and pictures from the server with words for who cannot see them', () => {
    const cell = { type: 'paragraph' as const, runs: [{ text: 'deep', marks: [] }] };
    const table = draw(
      {
        type: 'table',
        rows: [
          [
            { header: true, blocks: [] },
            { header: false, blocks: [cell] },
          ],
        ],
      },
      [stretch('a', 0, 4, 'next')],
    );
    expect([table.findAll('th').length, table.get('td mark').text()]).toEqual([1, 'deep']);
    const picture = draw({ type: 'picture', picture: 2, alt: '' }).get('img');
    expect(picture.attributes('src')).toBe(`/api/submissions/${ID}/pictures/2`);
    expect(picture.attributes('alt')).not.toBe('');
  });
});
