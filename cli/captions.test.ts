import { describe, expect, it } from 'vitest';
import { cuesOf, tokens, writeVtt } from '#core/transcript';
import { WebVTTParser } from 'webvtt-parser';

const TEXT =
  'Amaru, I read this with great pleasure. Is 3 < 4 & 5 > 4? You look closely, and you know where your knowledge ends; the next step is evidence.';

describe('WebVTT', () => {
  it('is read without an error by an independent parser (webvtt-parser), cue by cue', () => {
    const words = tokens(TEXT).map(({ text }, index) => ({ word: text, start: index * 0.4, end: index * 0.4 + 0.35 }));
    const cues = cuesOf(words);
    const { cues: read, errors } = new WebVTTParser().parse(writeVtt(cues, 'en'), 'subtitles');
    expect(errors).toEqual([]);
    expect(read).toHaveLength(cues.length);
    read.forEach(({ startTime, endTime }, index) => {
      expect(startTime).toBeCloseTo(cues[index]!.start, 3);
      expect(endTime).toBeCloseTo(cues[index]!.end, 3);
    });
  });
});
