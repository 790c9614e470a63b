import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Block, Mark, Run } from './blocks.ts';
import {
  blockStarts,
  blockText,
  canonicalText,
  countWords,
  folioOf,
  pieces,
  sentenceBeside,
  sentences,
  textBlocks,
  titleOf,
} from './index.ts';

const run = (text: string, ...marks: Mark[]): Run => ({ text, marks });
const blocks: Block[] = [
  { type: 'heading', level: 1, runs: [run('Title')] },
  { type: 'paragraph', runs: [run('One '), run('two', 'bold'), run(' three.')] },
  {
    type: 'table',
    rows: [
      [
        { header: true, blocks: [{ type: 'paragraph', runs: [run('a')] }] },
        { header: false, blocks: [] },
      ],
    ],
  },
  { type: 'picture', picture: 0, alt: 'A wave' },
  { type: 'item', depth: 0, marker: '1.', runs: [run('last')] },
];

describe('canonicalText', () => {
  it('joins all text in reading order, a line break after each block, without markers and pictures', () => {
    expect(canonicalText(blocks)).toBe('Title\nOne two three.\na\nlast\n');
  });

  it('has every block at its start', () => {
    const text = canonicalText(blocks);
    const starts = blockStarts(blocks);
    for (const block of textBlocks(blocks))
      expect(text.startsWith(`${blockText(block)}\n`, starts.get(block))).toBe(true);
  });
});

describe('titleOf', () => {
  it('is the highest heading', () => {
    expect(titleOf(blocks)).toBe('Title');
    expect(titleOf(blocks.slice(1))).toBeUndefined();
  });
});

describe('folioOf', () => {
  const file = (name: string) => ({
    name,
    format: 'docx' as const,
    title: name,
    leaves: [{ kind: 'text' as const, label: 'Text', blocks }],
  });

  it('puts the files of a work one after the other, with one text and one count of pictures', () => {
    const folio = folioOf([file('one'), file('two')], [1, 1]);
    const length = canonicalText(blocks).length;
    expect(folio.text).toBe(canonicalText(blocks).repeat(2));
    expect(folio.leaves.map(({ file, start, end }) => [file, start, end])).toEqual([
      [0, 0, length],
      [1, length, 2 * length],
    ]);
    expect(folio.files).toEqual([
      { name: 'one', format: 'docx' },
      { name: 'two', format: 'docx' },
    ]);
    const second = folio.leaves[1]!;
    expect(second.kind === 'text' && second.blocks[3]).toEqual({ type: 'picture', picture: 1, alt: 'A wave' });
    expect(folio.title).toBe('one');
  });

  it('has the text of every kind of leaf, and none for pictures and sounds', () => {
    const { text, leaves } = folioOf([
      {
        name: 'a',
        format: 'pdf',
        title: '',
        leaves: [
          {
            kind: 'page',
            label: 'Page 1',
            page: 1,
            width: 10,
            height: 10,
            texts: [
              { text: 'the ti', glue: '', x: 0, y: 0, width: 1, height: 1 },
              { text: 'de', glue: ' ', x: 0, y: 0, width: 1, height: 1 },
              { text: 'turns', glue: '\n', x: 0, y: 0, width: 1, height: 1 },
            ],
          },
          { kind: 'picture', label: 'Picture', picture: 0, width: 1, height: 1 },
          {
            kind: 'sheet',
            label: 'Table',
            rows: [
              [{ text: 'a' }, { text: '' }],
              [{ text: 'b' }, { text: 'c' }],
            ],
          },
        ],
      },
    ]);
    expect(text).toBe('the tide turns\na\t\nb\tc\n');
    expect(leaves.map(({ start, end }) => [start, end])).toEqual([
      [0, 15],
      [15, 15],
      [15, 22],
    ]);
  });
});

describe('pieces', () => {
  const arbitraryRuns = fc.array(
    fc.record({ text: fc.string({ unit: 'grapheme', minLength: 1, maxLength: 12 }), marks: fc.constant<Mark[]>([]) }),
    { maxLength: 6 },
  );
  const arbitraryStretches = fc
    .array(fc.tuple(fc.nat(80), fc.nat(30)), { maxLength: 5 })
    .map((list) => list.map(([start, length], index) => ({ id: `stretch ${index}`, start, end: start + length + 1 })));

  it('put together again are the runs, each evenly covered', () => {
    fc.assert(
      fc.property(arbitraryRuns, fc.nat(40), arbitraryStretches, (runs, start, stretches) => {
        const cut = pieces(runs, start, stretches);
        expect(cut.map(({ text }) => text).join('')).toBe(runs.map(({ text }) => text).join(''));
        let at = start;
        for (const piece of cut) {
          expect(piece.start).toBe(at);
          at += piece.text.length;
          for (const stretch of stretches) {
            const covered = piece.covering.includes(stretch.id);
            expect(covered).toBe(stretch.start < at && stretch.end > piece.start);
            if (covered) expect(stretch.start <= piece.start && stretch.end >= at).toBe(true);
          }
        }
      }),
    );
  });

  it('keep marks and links', () => {
    const link = { text: 'see here', marks: ['italic' as const], link: 'https://tides.example/' };
    expect(pieces([link], 10, [{ id: 'r', start: 14, end: 18 }])).toEqual([
      { text: 'see ', start: 10, marks: ['italic'], link: link.link, covering: [] },
      { text: 'here', start: 14, marks: ['italic'], link: link.link, covering: ['r'] },
    ]);
  });
});

describe('countWords', () => {
  it('counts what has letters or figures', () => {
    expect(countWords("It's 3 – or four.\nLines")).toBe(5);
    expect(countWords(' – … \n')).toBe(0);
  });
});

describe('sentences', () => {
  const text = 'Title\nFirst one. Is it 3.5 m? Yes!\nLast';
  const all = sentences(text);

  it('end at blocks and stops, not at decimal points', () => {
    expect(all.map(({ start, end }) => text.slice(start, end))).toEqual([
      'Title',
      'First one.',
      'Is it 3.5 m?',
      'Yes!',
      'Last',
    ]);
  });

  it('are walked one by one, both ways, from any selection', () => {
    expect(sentenceBeside(all, undefined, 1)).toBe(all[0]);
    expect(sentenceBeside(all, undefined, -1)).toBe(all[4]);
    expect(sentenceBeside(all, all[1], 1)).toBe(all[2]);
    expect(sentenceBeside(all, all[1], -1)).toBe(all[0]);
    expect(sentenceBeside(all, all[4], 1)).toBeUndefined();
  });
});
