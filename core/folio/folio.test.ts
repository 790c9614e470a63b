import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Block, Mark, Run } from './blocks.ts';
import {
  blockStarts,
  blockText,
  canonicalText,
  countWords,
  flowingFolio,
  pieces,
  sentenceBeside,
  sentences,
  textBlocks,
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

describe('flowingFolio', () => {
  it('is called after its highest heading, or else as it is told', () => {
    expect(flowingFolio('docx', blocks, 'file').title).toBe('Title');
    expect(flowingFolio('docx', blocks.slice(1), 'file').title).toBe('file');
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
