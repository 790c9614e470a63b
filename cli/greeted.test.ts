import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import {
  greeted,
  levelDbfs,
  levelled,
  readWav,
  REMARK_LEVEL,
  roomTone,
  speechLoudness,
  speechSpans,
} from '#core/audio';

const sentences = [0, 1, 2].map((number) =>
  readWav(readFileSync(new URL(`../web/recorder/practice/sentence-${number}.wav`, import.meta.url))),
);
const RATE = sentences[0]!.rate;
const JUMP = 10 ** (-50 / 20);

/** Noise that is the same each time (a linear congruential generator, Numerical Recipes), in dBFS. */
function inRoom(samples: Float32Array, gain: number, room: number, seed: number): Float32Array {
  let state = seed;
  const level = 10 ** (room / 20) * Math.sqrt(3);
  return samples.map((sample) => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return sample * 10 ** (gain / 20) + level * (state / 2 ** 31 - 1);
  });
}

const silence = (seconds: number): Float32Array => new Float32Array(Math.round(seconds * RATE));
const concat = (...parts: Float32Array[]): Float32Array => Float32Array.from(parts.flatMap((part) => [...part]));

/** The first words of a sentence, as somebody who says hello: from 0.3 to 1.2 s, with silence around them. */
const hello = (which: number, seconds: number): Float32Array =>
  concat(silence(0.4), sentences[which]!.channels[0]!.subarray(0, Math.round(seconds * RATE)), silence(0.5));

const PAIRS = Array.from({ length: 20 }, (_, index) => ({
  name: `pair ${index + 1}`,
  greeting: inRoom(
    hello(index % 3, 0.35 + 0.045 * index),
    [-14, -6, 0, 3][index % 4]!,
    [-95, -66][index % 2]!,
    index + 1,
  ),
  banked: inRoom(
    concat(silence(0.3), sentences[(index + 1) % 3]!.channels[0]!, silence(0.4)),
    [0, -4, 2][index % 3]!,
    [-90, -70, -62][index % 3]!,
    index + 50,
  ),
}));

const cut = (samples: Float32Array, from: number, seconds: number): Float32Array =>
  samples.subarray(Math.round(from * RATE), Math.round((from + seconds) * RATE));

describe('greeted', () => {
  it.each(PAIRS)('$name: as loud as each other (BS.1770), nothing clicks, the room goes on in the pause', (pair) => {
    const { samples, greeting, banked } = greeted(pair.greeting, pair.banked, RATE);
    const [rest] = banked;
    const greetingLength = greeting.from.end - greeting.from.start;
    const own = cut(samples, greeting.at, greetingLength);
    const remark = cut(samples, rest!.at, rest!.from.end - rest!.from.start);
    expect(Math.abs(speechLoudness(own, RATE) - speechLoudness(remark, RATE))).toBeLessThan(1);
    const pause = { from: greeting.at + greetingLength, to: rest!.at };
    expect(pause.to - pause.from).toBeGreaterThan(0.2);
    for (const join of [greeting.at, pause.from, pause.to, samples.length / RATE])
      for (
        let i = Math.max(1, Math.round((join - 0.002) * RATE));
        i < Math.min(samples.length, (join + 0.002) * RATE);
        i++
      )
        expect(Math.abs(samples[i]! - samples[i - 1]!)).toBeLessThan(JUMP);
    const between = cut(samples, pause.from, pause.to - pause.from);
    expect(levelDbfs(between)).toBeLessThan(-50);
  });

  it('puts a name into a gap, and keeps all that was said around it', () => {
    const remark = concat(silence(0.3), sentences[0]!.channels[0]!, silence(0.3));
    const spans = speechSpans(remark, RATE);
    const gap = (spans[0]!.end + (spans[1]?.start ?? spans[0]!.end)) / 2;
    const { samples, greeting, banked } = greeted(hello(1, 0.6), remark, RATE, gap);
    expect(banked).toHaveLength(2);
    expect(banked[0]!.from.end).toBeCloseTo(banked[1]!.from.start, 6);
    expect(Math.abs(banked[0]!.from.end - gap)).toBeLessThan(0.07);
    expect(banked[0]!.at).toBe(0);
    expect(greeting.at).toBeGreaterThan(banked[0]!.from.end - banked[0]!.from.start);
    const pieces = [greeting, ...banked].reduce((sum, { from }) => sum + from.end - from.start, 0);
    expect(samples.length / RATE).toBeCloseTo(pieces + 2 * 0.09, 2);
  });

  it('does not make a whisper in a noisy room a shout in a noisier one', () => {
    const whisper = inRoom(hello(0, 0.8), -34, -60, 3);
    const { gain } = greeted(whisper, sentences[1]!.channels[0]!, RATE);
    expect(gain).toBeLessThanOrEqual(12);
    const still = greeted(inRoom(hello(0, 0.8), -20, -120, 3), sentences[1]!.channels[0]!, RATE);
    expect(still.gain).toBeGreaterThan(12);
  });

  it('is the remark alone where nothing was said before it', () => {
    const { samples, gain } = greeted(silence(0.3), sentences[1]!.channels[0]!, RATE);
    expect(gain).toBe(0);
    expect(samples.every(Number.isFinite)).toBe(true);
  });
});

describe('speechLoudness', () => {
  it('of a short shout is that of its voice, not of the silence around it', () => {
    const shout = sentences[0]!.channels[0]!.subarray(0, Math.round(0.4 * RATE));
    const alone = speechLoudness(shout, RATE);
    expect(Math.abs(speechLoudness(concat(silence(0.25), shout, silence(0.3)), RATE) - alone)).toBeLessThan(1);
    const level = speechLoudness(levelled(concat(silence(0.25), shout, silence(0.3)), RATE), RATE);
    expect(Math.abs(level - REMARK_LEVEL.loudness)).toBeLessThan(1);
  });
});

describe('roomTone', () => {
  it('is as quiet as the quietest stretch, as long as wanted, and never jumps', () => {
    const recording = inRoom(concat(sentences[0]!.channels[0]!, silence(0.3)), 0, -60, 9);
    const tone = roomTone(recording, RATE, RATE);
    expect(tone).toHaveLength(RATE);
    expect(levelDbfs(tone)).toBeGreaterThan(-63);
    expect(levelDbfs(tone)).toBeLessThan(-57);
    expect(roomTone(new Float32Array(0), RATE, 10)).toEqual(new Float32Array(10));
  });
});
