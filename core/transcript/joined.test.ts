import { describe, expect, it } from 'vitest';
import { joinedTranscript, type Transcript } from './index.ts';

const transcript = (text: string, from = 0, more: Partial<Transcript> = {}): Transcript => ({
  ...{ language: 'en', text, source: 'machine', engine: 'x', approximate: false, read: true },
  words: text.split(/\s+/u).map((word, index) => ({ word, start: from + index * 0.5, end: from + index * 0.5 + 0.4 })),
  ...more,
});

describe('joinedTranscript', () => {
  const hello = transcript('Hello Ines,', 0.2);
  const remark = transcript('name your\nsource, please.', 0.5);

  it('has the words of both at the times at which they are heard', () => {
    const joined = joinedTranscript([
      { transcript: hello, from: { start: 0.16, end: 1.2 }, at: 0 },
      { transcript: remark, from: { start: 0.4, end: 2.6 }, at: 1.3 },
    ]);
    expect(joined.text).toBe('Hello Ines, name your\nsource, please.');
    expect(joined.words.map(({ word }) => word)).toEqual(['Hello', 'Ines,', 'name', 'your', 'source,', 'please.']);
    expect(joined.words[0]!.start).toBeCloseTo(0.04);
    expect(joined.words[2]!.start).toBeCloseTo(1.4);
    expect(joined).toMatchObject({ source: 'bank', read: true, language: 'en' });
  });

  it('puts a name into the middle', () => {
    const joined = joinedTranscript([
      { transcript: remark, from: { start: 0.5, end: 1.45 }, at: 0 },
      { transcript: hello, from: { start: 0.2, end: 1.1 }, at: 1 },
      { transcript: remark, from: { start: 1.45, end: 2.5 }, at: 2 },
    ]);
    expect(joined.text).toBe('name your Hello Ines, source, please.');
    const starts = joined.words.map(({ start }) => start);
    expect(starts).toEqual([...starts].sort((a, b) => a - b));
  });

  it('no word begins before its part is heard, or ends after it', () => {
    const joined = joinedTranscript([
      { transcript: hello, from: { start: 0.3, end: 1.05 }, at: 0 },
      { transcript: remark, from: { start: 0.6, end: 2.3 }, at: 1 },
    ]);
    expect(joined.words.map(({ start }) => start)[0]).toBe(0);
    expect(joined.words[1]!.end).toBeCloseTo(0.75);
    expect(joined.words[2]!.start).toBeCloseTo(1);
    expect(joined.words.at(-1)!.end).toBeCloseTo(2.7);
  });

  it('knows the text alone where times are missing, and is a draft where one of them is', () => {
    const untimed = { ...remark, words: [] };
    const joined = joinedTranscript([
      { transcript: untimed, from: { start: 0, end: 1 }, at: 0 },
      { transcript: { ...hello, read: false }, from: { start: 0, end: 1 }, at: 1 },
      { transcript: untimed, from: { start: 1, end: 2 }, at: 2 },
    ]);
    expect(joined).toMatchObject({ words: [], read: false, text: 'name your\nsource, please. Hello Ines,' });
  });
});
