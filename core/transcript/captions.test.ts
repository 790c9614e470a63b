import { describe, expect, it } from 'vitest';
import {
  CaptionError,
  CUE_RULES,
  cuesOf,
  looksLikeCaptions,
  readCues,
  tokens,
  wordsOfCues,
  wrapped,
  writeSrt,
  writeVtt,
  type Word,
} from './index.ts';

const TEXT =
  'Amaru, I read this with great pleasure. You look closely, and you know where your knowledge ends. The next step is evidence: wherever a number comes from somebody else, tell us who, when, and how they counted.';

const said = (text: string, seconds = 0.32): Word[] =>
  tokens(text).map(({ text }, index) => ({ word: text, start: index * seconds, end: index * seconds + seconds * 0.9 }));

describe('cues', () => {
  const cues = cuesOf(said(TEXT));

  it('keep to common captioning practice', () => {
    for (const { start, end, lines } of cues) {
      expect(lines.length).toBeLessThanOrEqual(CUE_RULES.lines);
      for (const line of lines) expect(line.length).toBeLessThanOrEqual(CUE_RULES.lineLength);
      expect(end - start).toBeLessThanOrEqual(CUE_RULES.longest + 1e-9);
      expect(end).toBeGreaterThan(start);
    }
    cues.slice(1).forEach(({ start }, i) => expect(start).toBeGreaterThanOrEqual(cues[i]!.end));
  });

  it('say every word once and in order', () => {
    expect(cues.flatMap(({ lines }) => lines).join(' ')).toBe(TEXT);
  });

  it('end with sentences where they can, and begin anew after a pause', () => {
    expect(cues[0]!.lines.join(' ')).toBe('Amaru, I read this with great pleasure.');
    const apart = [...said('Well then'), { word: 'Look.', start: 5, end: 5.4 }];
    expect(cuesOf(apart).map(({ lines }) => lines.join(' '))).toEqual(['Well then', 'Look.']);
  });

  it('stay long enough to be read where there is time', () => {
    const [quick] = cuesOf([{ word: 'Incomprehensibilities', start: 1, end: 1.2 }]);
    expect(quick!.end - quick!.start).toBeCloseTo(21 / 17);
    const slow = cuesOf(said(TEXT, 0.5));
    for (const { start, end, lines } of slow) expect(lines.join(' ').length / (end - start)).toBeLessThanOrEqual(17.5);
  });

  it('are none of no words, and put a word longer than a line alone', () => {
    expect(cuesOf([])).toEqual([]);
    const long = 'x'.repeat(60);
    expect(cuesOf(said(`so ${long} there`)).flatMap(({ lines }) => lines)).toEqual(['so', long, 'there']);
  });
});

describe('lines', () => {
  it('are about as long as each other', () => {
    const [first, second] = wrapped('The reason you give is obvious, but how do you know it?'.split(' '), 42);
    expect(Math.abs(first!.length - second!.length)).toBeLessThan(10);
  });
});

describe('caption files', () => {
  const cues = [
    { start: 0.5, end: 2.25, lines: ['Tom & <b>Jerry</b>', 'again'] },
    { start: 3723.004, end: 3725, lines: ['→ later'] },
  ];

  it('are read as they were written', () => {
    for (const text of [writeVtt(cues, 'en'), writeSrt(cues.map((cue) => ({ ...cue, lines: ['plain'] })))]) {
      expect(looksLikeCaptions(text)).toBe(true);
      expect(readCues(text).map(({ start, end }) => [start, end])).toEqual(cues.map(({ start, end }) => [start, end]));
    }
    expect(readCues(writeVtt(cues))).toEqual(cues);
  });

  it('of other programs are read: byte order mark, Windows lines, tags, settings, notes, short times', () => {
    const text =
      '\uFEFFWEBVTT - title\r\n\r\nNOTE nothing\r\n\r\nSTYLE\r\n::cue { color: red }\r\n\r\nid-1\r\n00:01.000 --> 00:02.500 align:start\r\n<v Ann>Hello <i>you</i></v>\r\n\r\n2\r\n00:03.000 --> 00:02.000\r\nbackwards\r\n';
    expect(readCues(text)).toEqual([{ start: 1, end: 2.5, lines: ['Hello you'] }]);
  });

  it('without a caption are refused', () => {
    expect(() => readCues('WEBVTT\n\nnothing here')).toThrow(CaptionError);
    expect(looksLikeCaptions('Just a text: 12:30.')).toBe(false);
  });

  it('give words that share the time of their cue', () => {
    expect(wordsOfCues([{ start: 1, end: 2, lines: ['ab', 'ab'] }])).toEqual([
      { word: 'ab', start: 1, end: 1.5 },
      { word: 'ab', start: 1.5, end: 2 },
    ]);
  });
});
