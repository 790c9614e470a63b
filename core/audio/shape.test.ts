import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  audibleSpan,
  heardAt,
  keptSeconds,
  levelled,
  limit,
  loudness,
  measure,
  readWav,
  spokenAt,
  splice,
  truePeak,
  WavError,
  withinSpan,
  withoutSpan,
  writeWav,
} from './index.ts';

const RATE = 48_000;
/** Syllables of a hoarse voice: four a second, harmonics of 140 Hz, softer towards their ends. */
const speech = { channels: [new Float32Array()], rate: 22_050 };
const voice = Float32Array.from({ length: 3 * speech.rate }, (_, i) => {
  const seconds = i / speech.rate;
  const syllable = Math.max(0, Math.sin(2 * Math.PI * 2 * seconds)) * (0.4 + 0.3 * Math.sin(seconds * 5));
  const tone = [1, 2, 3, 5, 8].reduce((sum, k) => sum + Math.sin(2 * Math.PI * 140 * k * seconds + k * k) / k, 0);
  return syllable * 0.3 * tone;
});
speech.channels = [voice];
const scaled = (samples: Float32Array, factor: number) => samples.map((sample) => sample * factor);
const joined = (...parts: Float32Array[]): Float32Array => Float32Array.from(parts.flatMap((part) => [...part]));

describe('levelled', () => {
  it.each([0.1, 0.4, 1])(
    'brings speech recorded at %d of its level to −16 LUFS, with no true peak above −1 dBTP',
    (factor) => {
      const result = levelled(scaled(voice, factor), speech.rate);
      expect(loudness({ channels: [result], rate: speech.rate }).integrated).toBeCloseTo(-16, 0);
      expect(truePeak([result])).toBeLessThanOrEqual(-1);
    },
  );

  it('leaves silence alone, and brings no whisper of a room up by more than 30 dB', () => {
    const silence = new Float32Array(RATE);
    expect(levelled(silence, RATE)).toEqual(silence);
    const room = Float32Array.from({ length: RATE }, (_, i) => 1e-4 * Math.sin(i / 7));
    expect(Math.max(...levelled(room, RATE))).toBeLessThan(1e-4 * 10 ** (30.1 / 20));
  });

  it('keeps the ceiling whatever is said (property)', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: -1, max: 1, noNaN: true }), { minLength: 10, maxLength: 400 }), (steps) => {
        const samples = Float32Array.from({ length: RATE / 4 }, (_, i) => steps[Math.floor(i / 30) % steps.length]!);
        expect(truePeak([levelled(samples, RATE)])).toBeLessThanOrEqual(-0.99);
      }),
      { numRuns: 40 },
    );
  });
});

describe('limit', () => {
  it('turns down a loud moment and nothing a tenth of a second away', () => {
    const quiet = Float32Array.from({ length: RATE }, (_, i) => 0.1 * Math.sin(i / 10));
    const loud = quiet.slice();
    for (let i = 24_000; i < 24_100; i++) loud[i] = 0.99;
    const result = limit(loud, RATE, 0.5);
    expect(truePeak([result])).toBeLessThan(20 * Math.log10(0.51));
    expect(result.subarray(0, 19_000)).toEqual(loud.subarray(0, 19_000));
    expect(result.subarray(29_000)).toEqual(loud.subarray(29_000));
  });
});

describe('audibleSpan', () => {
  const room = (seconds: number) =>
    Float32Array.from({ length: seconds * speech.rate }, (_, i) => 5e-4 * Math.sin(i * i));

  it('finds speech in a quiet room, with some air around it and no sound of it lost', () => {
    const { start, end } = audibleSpan(joined(room(1), voice, room(2)), speech.rate)!;
    expect(start).toBeGreaterThan(0.6);
    expect(start).toBeLessThanOrEqual(1.05);
    expect(end).toBeGreaterThan(1 + voice.length / speech.rate - 0.5);
    expect(end).toBeLessThan(1 + voice.length / speech.rate + 0.4);
  });

  it('finds nothing in silence, in a steady hum of a room, or in one click', () => {
    expect(audibleSpan(new Float32Array(RATE), RATE)).toBeUndefined();
    expect(audibleSpan(new Float32Array(0), RATE)).toBeUndefined();
    const click = new Float32Array(RATE);
    click.fill(0.8, 20_000, 20_100);
    expect(audibleSpan(click, RATE)).toBeUndefined();
  });

  it('keeps everything where somebody speaks from the first moment to the last', () => {
    const all = Float32Array.from({ length: RATE }, (_, i) => 0.3 * Math.sin(i / 9) * (1 + 0.5 * Math.sin(i / 900)));
    expect(audibleSpan(all, RATE)).toEqual({ start: 0, end: 1 });
  });
});

const Spans = fc.array(
  fc.tuple(fc.double({ min: 0.05, max: 1, noNaN: true }), fc.double({ min: 0.05, max: 1, noNaN: true })),
  {
    minLength: 1,
    maxLength: 6,
  },
);
const spansOf = (parts: [number, number][]) => {
  let at = 0;
  return parts.map(([gap, length]) => {
    const start = at + gap;
    at = start + length;
    return { start, end: at };
  });
};

describe('edits', () => {
  it('a cut takes away what lies in it, and nothing else (property)', () => {
    fc.assert(
      fc.property(
        Spans,
        fc.double({ min: 0, max: 6, noNaN: true }),
        fc.double({ min: 0, max: 3, noNaN: true }),
        (parts, start, length) => {
          const kept = spansOf(parts as [number, number][]);
          const end = start + length;
          const left = withoutSpan(kept, { start, end }, 0);
          const inCut = kept.reduce(
            (sum, span) => sum + Math.max(0, Math.min(span.end, end) - Math.max(span.start, start)),
            0,
          );
          expect(keptSeconds(left)).toBeCloseTo(keptSeconds(kept) - inCut, 9);
          expect(keptSeconds(withinSpan(kept, { start, end }))).toBeCloseTo(inCut, 0);
        },
      ),
    );
  });

  it('what is heard at a moment was spoken at another, and the way back leads there again (property)', () => {
    fc.assert(
      fc.property(Spans, fc.double({ min: 0, max: 0.999, noNaN: true }), (parts, share) => {
        const kept = spansOf(parts as [number, number][]);
        const heard = share * keptSeconds(kept);
        expect(heardAt(kept, spokenAt(kept, heard))).toBeCloseTo(heard, 9);
      }),
    );
    expect(heardAt([{ start: 1, end: 2 }], 0.5)).toBeUndefined();
  });
});

describe('splice', () => {
  const sine = Float32Array.from({ length: 2 * RATE }, (_, i) => 0.5 * Math.sin((2 * Math.PI * 220 * i) / RATE));
  /** The largest step between two samples: a click is a large one. */
  const steepest = (samples: Float32Array): number =>
    samples.reduce((most, sample, i) => Math.max(most, Math.abs(sample - (samples[i - 1] ?? 0))), 0);

  it('keeps everything as it is where nothing is cut', () => {
    expect(splice(sine, RATE, [{ start: 0, end: 2 }])).toEqual(sine);
  });

  it('has the length of what is kept, and is the same sound away from the cuts', () => {
    const kept = [
      { start: 0.25, end: 0.75 },
      { start: 1.1, end: 1.9 },
    ];
    const result = splice(sine, RATE, kept);
    expect(result.length).toBe(Math.round(keptSeconds(kept) * RATE));
    expect(result[6000]).toBe(sine[6000 + 0.25 * RATE]);
    expect(result[RATE]).toBe(sine[RATE + 0.6 * RATE]);
  });

  it('no cut clicks, wherever it falls (property)', () => {
    const step = steepest(sine);
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 0.9, noNaN: true }),
        fc.double({ min: 0.05, max: 0.9, noNaN: true }),
        (from, length) => {
          const result = splice(sine, RATE, withoutSpan([{ start: 0, end: 2 }], { start: from, end: from + length }));
          expect(steepest(result)).toBeLessThan(step * 1.6);
          expect(Math.max(...result)).toBeLessThan(0.75);
        },
      ),
    );
  });

  it('starts and ends at silence where it was trimmed', () => {
    const result = splice(sine, RATE, [{ start: 0.3, end: 1.2 }]);
    expect(Math.abs(result[0]!)).toBeLessThan(0.01);
    expect(Math.abs(result.at(-1)!)).toBeLessThan(0.01);
  });
});

describe('WAV', () => {
  it('comes back as it was written, to half a step of 16 bits', () => {
    const { channels, rate } = readWav(writeWav(voice, speech.rate));
    expect(rate).toBe(speech.rate);
    expect(channels).toHaveLength(1);
    expect(channels[0]!.every((sample, i) => Math.abs(sample - voice[i]!) <= 1 / 32_767)).toBe(true);
  });

  it('reads 8, 24 and 32 bits, floats, two channels, and odd chunks before the data', () => {
    const file = (code: number, bits: number, channels: number, data: number[]): Uint8Array => {
      const head = new DataView(new ArrayBuffer(12 + 24 + 12 + 8));
      const text = (at: number, name: string) => [...name].forEach((c, i) => head.setUint8(at + i, c.charCodeAt(0)));
      text(0, 'RIFF');
      text(8, 'WAVEfmt ');
      head.setUint32(16, 16, true);
      head.setUint16(20, code, true);
      head.setUint16(22, channels, true);
      head.setUint32(24, 8000, true);
      head.setUint16(34, bits, true);
      text(36, 'LIST');
      head.setUint32(40, 3, true);
      text(48, 'data');
      head.setUint32(52, data.length, true);
      return Uint8Array.from([...new Uint8Array(head.buffer), ...data]);
    };
    const bytesOf = (array: ArrayBufferView) => [...new Uint8Array(array.buffer)];
    expect([...readWav(file(1, 8, 1, [0, 128, 192])).channels[0]!]).toEqual([-1, 0, 0.5]);
    expect([...readWav(file(1, 24, 1, [0, 0, 0xc0, 0, 0, 0x40])).channels[0]!]).toEqual([-0.5, 0.5]);
    expect([...readWav(file(1, 32, 1, bytesOf(Int32Array.of(-(2 ** 30))))).channels[0]!]).toEqual([-0.5]);
    expect([...readWav(file(3, 32, 1, bytesOf(Float32Array.of(0.25)))).channels[0]!]).toEqual([0.25]);
    expect([...readWav(file(3, 64, 1, bytesOf(Float64Array.of(-0.75)))).channels[0]!]).toEqual([-0.75]);
    const two = readWav(file(1, 16, 2, bytesOf(Int16Array.of(16_384, -16_384, 0, 8192))));
    expect(two.channels.map((samples) => [...samples])).toEqual([
      [0.5, 0],
      [-0.5, 0.25],
    ]);
  });

  it.each([
    ['nothing', new Uint8Array(0)],
    ['something else', new TextEncoder().encode('RIFF....AVI LIST')],
    ['a head alone', writeWav(new Float32Array(0), 48_000).subarray(0, 20)],
    ['a head without data', writeWav(new Float32Array(0), 48_000).subarray(0, 36)],
  ])('refuses %s with a sentence', (_, bytes) => {
    expect(() => readWav(bytes)).toThrow(WavError);
  });

  it('reads a file that breaks off as far as it goes', () => {
    expect(readWav(writeWav(voice, speech.rate).subarray(0, 44 + 1001)).channels[0]).toHaveLength(500);
  });
});

describe('measure', () => {
  it('tells loudness, true peak, range and duration, and null for silence', () => {
    const told = measure(speech);
    expect(told.duration).toBeCloseTo(voice.length / speech.rate, 3);
    expect(told.integrated).toBeLessThan(-10);
    expect(measure({ channels: [new Float32Array(RATE)], rate: RATE })).toEqual({
      integrated: null,
      truePeak: null,
      range: 0,
      duration: 1,
    });
  });
});
