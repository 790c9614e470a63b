import { levelled, loudness, peaks, truePeak } from '#core/audio';
import { keystrokeSeconds, typed } from '#core/pace';
import { figure, round } from './figure.ts';

const RATE = 48_000;
const MINUTES = 30;
const RUNS = 3;

/** Syllables of a voice with pauses between sentences, the same each time. */
const speech = (seconds: number): Float32Array =>
  Float32Array.from({ length: seconds * RATE }, (_, i) => {
    const at = i / RATE;
    const speaking = at % 7 < 5 ? 1 : 0.003;
    return (
      speaking * 0.2 * Math.abs(Math.sin(at * 12)) * (Math.sin(at * 880) + 0.5 * Math.sin(at * 2640 + Math.sin(at * 5)))
    );
  });

const milliseconds = (work: () => unknown): number => {
  const begun = performance.now();
  work();
  return performance.now() - begun;
};

/** What sound costs, and what the hand has to do around a remark. */
export function benchVoice(): object {
  const samples = speech(MINUTES * 60);
  const sound = { channels: [samples], rate: RATE };
  const times = (work: () => unknown): number[] =>
    Array.from({ length: RUNS }, () => (MINUTES * 60_000) / milliseconds(work));
  const short = samples.slice(0, 10 * RATE);
  levelled(short, RATE);
  return {
    loudnessAndPeaks: figure(
      '× real time',
      times(() => [loudness(sound), peaks(samples, 600)]),
      '100 or more, for 30 minutes',
    ),
    truePeak: figure(
      '× real time',
      times(() => truePeak(sound.channels)),
      'for 30 minutes',
    ),
    levelTenSeconds: figure(
      'ms',
      Array.from({ length: 5 }, () => milliseconds(() => levelled(short, RATE))),
      'part of 300',
    ),
    keystrokeLevel: keystrokeLevel(),
  };
}

/** Point at the first word, press, point at the last, let go (the two halves of one K). */
const SELECT = 'M P K P';

/**
 * Seconds of hand work by the keystroke-level model of Card, Moran & Newell (1980), without the time it takes to speak. The other
 * hand rests on the space bar, so there is no homing around a spoken remark.
 */
function keystrokeLevel(): object {
  const ways = {
    anchoredSpokenRemark: `${SELECT} K`,
    // Open the bank, think of its name, type three letters, take the first.
    bankedRemark: `${SELECT} K M KKK K`,
    typedRemarkOf25Words: `${SELECT} H K ${typed(25)} KK H`,
  };
  return Object.fromEntries(
    Object.entries(ways).map(([name, sequence]) => [
      name,
      {
        seconds: round(keystrokeSeconds(sequence)),
        operators: sequence.replace(/K{4,}/g, (keys) => `${keys.length} K `),
      },
    ]),
  );
}
