import type { Span } from './edit.ts';
import { amplified, CEILING, mostGain } from './levelled.ts';
import { limit } from './limit.ts';
import { quietestMoment } from './quietest.ts';
import { roomTone } from './room-tone.ts';
import { audibleSpan, type Padding } from './silence.ts';
import { speechLoudness } from './speech-loudness.ts';

/** Seconds of silence between a greeting and what follows it, and around a name in the middle of a sentence. */
const AFTER_GREETING = 0.28;
const AROUND_NAME = 0.09;
/** Seconds in which a piece comes out of the room and goes back into it. */
const FADE = 0.015;
/** Seconds left around what is said: the first consonant and the last breath. */
const CLOSE: Padding = { before: 0.04, after: 0.06 };
/** Seconds around the gap in which its quietest moment is looked for. */
const NEAR_GAP = 0.06;

/** A stretch of a recording and where it is heard in the joined one, in seconds. */
export interface Placed {
  from: Span;
  at: number;
}

export interface Greeted {
  samples: Float32Array;
  greeting: Placed;
  /** One stretch, or two around a gap. */
  banked: Placed[];
  /** dB by which the greeting was raised, or lowered. */
  gain: number;
}

/**
 * Joins a few words to one student with a banked remark, before it or in its gap. Silence around both is trimmed, the greeting is
 * brought to the loudness of the remark (by no more than does not bring up its room), and the pause is filled with the sound of
 * the room, into which both fade, so that nothing clicks.
 * @param greeting one channel, −1 to 1
 * @param banked the same, at the same rate
 * @param rate samples per second
 * @param gap seconds into the banked remark at which the greeting is heard; it is heard before it where there is none
 */
export function greeted(greeting: Float32Array, banked: Float32Array, rate: number, gap?: number): Greeted {
  const gain = gainOf(greeting, banked, rate);
  const raised = limit(amplified(greeting, gain), rate, CEILING);
  const own = spokenIn(greeting, rate);
  const whole = spokenIn(banked, rate);
  const cut = gap === undefined ? undefined : quietestNear(banked, rate, gap, whole);
  const [first, rest]: [Span[], Span] = cut
    ? [[{ start: whole.start, end: cut }], { start: cut, end: whole.end }]
    : [[], whole];
  const pause = cut ? AROUND_NAME : AFTER_GREETING;
  const pieces = [
    ...first.map((span) => ({ samples: banked, span })),
    { samples: raised, span: own },
    { samples: banked, span: rest },
  ];
  const { samples, starts } = joined(pieces, rate, pause, banked);
  const at = first.length;
  return {
    samples,
    greeting: { from: own, at: starts[at]! },
    banked: [...first.map((from, index) => ({ from, at: starts[index]! })), { from: rest, at: starts[at + 1]! }],
    gain,
  };
}

function gainOf(greeting: Float32Array, banked: Float32Array, rate: number): number {
  const missing = speechLoudness(banked, rate) - speechLoudness(greeting, rate);
  return Number.isFinite(missing) ? Math.min(missing, mostGain(greeting, rate)) : 0;
}

const spokenIn = (samples: Float32Array, rate: number): Span =>
  audibleSpan(samples, rate, CLOSE) ?? { start: 0, end: samples.length / rate };

function quietestNear(samples: Float32Array, rate: number, gap: number, { start, end }: Span): number | undefined {
  const near = { start: Math.max(start, gap - NEAR_GAP), end: Math.min(end, gap + NEAR_GAP) };
  if (near.end <= near.start) return undefined;
  const moment = quietestMoment(samples, rate, near);
  return moment > start && moment < end ? moment : undefined;
}

interface Piece {
  samples: Float32Array;
  span: Span;
}

/** Lays pieces into a room that is heard all the time, so many seconds apart. */
function joined(
  pieces: readonly Piece[],
  rate: number,
  pause: number,
  room: Float32Array,
): { samples: Float32Array; starts: number[] } {
  const gap = Math.round(pause * rate);
  const fade = Math.round(FADE * rate);
  const cut = pieces.map(({ samples, span }) =>
    samples.subarray(Math.round(span.start * rate), Math.round(span.end * rate)),
  );
  const length = cut.reduce((sum, piece) => sum + piece.length, 0) + gap * (cut.length - 1);
  const tone = roomTone(room, rate, length);
  const result = new Float32Array(length);
  const starts: number[] = [];
  let at = 0;
  cut.forEach((piece, index) => {
    starts.push(at / rate);
    for (let i = 0; i < piece.length; i++) {
      const share = smooth(Math.min(1, i / fade, (piece.length - 1 - i) / fade));
      result[at + i] = piece[i]! * share + tone[at + i]! * (1 - share);
    }
    at += piece.length;
    if (index < cut.length - 1) result.set(tone.subarray(at, at + gap), at);
    at += gap;
  });
  return { samples: result, starts };
}

/** From 0 to 1 without a corner at either end. */
const smooth = (share: number): number => 0.5 - 0.5 * Math.cos(Math.PI * share);
