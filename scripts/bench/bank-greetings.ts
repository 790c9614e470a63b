import { greeted, levelDbfs, speechLoudness } from '#core/audio';
import { readFile } from 'node:fs/promises';
import { BANK } from '../../demo/bank.ts';
import { GREETINGS } from '../../demo/greetings.ts';
import { fromRoot } from '../../server/root.ts';
import { decodeSpeech } from '../../server/speech/decode.ts';

const RATE = 16_000;
const PAIRS = 20;
/** Seconds around a join. */
const NEAR = 0.002;
const FLOOR = -120;

const speech = async (name: string): Promise<Float32Array> =>
  decodeSpeech(await readFile(new URL(`${name}.ogg`, fromRoot('demo/voices/'))));

/** Twenty greetings before twenty banked remarks of the sample school: how far apart in loudness, and what jumps at the joins. */
export async function benchGreetings(): Promise<object> {
  const apart: number[] = [];
  const jumps: number[] = [];
  const pauses: number[] = [];
  for (let pair = 0; pair < PAIRS; pair++) {
    const hello = await speech(GREETINGS[pair % GREETINGS.length]!.name);
    const banked = await speech(BANK[(pair * 7) % BANK.length]!.name);
    // Nobody sits at the same distance from the microphone each day.
    const louder = hello.map((sample) => sample * 10 ** (((pair % 5) - 3) / 4));
    const { samples, greeting, banked: placed } = greeted(louder, banked, RATE);
    const [rest] = placed;
    const cut = (from: number, to: number): Float32Array =>
      samples.subarray(Math.round(from * RATE), Math.round(to * RATE));
    const end = greeting.at + greeting.from.end - greeting.from.start;
    apart.push(
      Math.abs(
        speechLoudness(cut(greeting.at, end), RATE) - speechLoudness(cut(rest!.at, samples.length / RATE), RATE),
      ),
    );
    jumps.push(...[greeting.at, end, rest!.at, samples.length / RATE].map((join) => jumpNear(samples, join)));
    pauses.push(levelDbfs(cut(end, rest!.at)));
  }
  return {
    pairs: PAIRS,
    loudnessUnitsApartAtMost: hundredths(Math.max(...apart)),
    largestJumpDbfs: hundredths(Math.max(...jumps)),
    loudestPauseDbfs: hundredths(Math.max(...pauses)),
    wanted: 'apart 1 or less, jump −50 or less',
  };
}

function jumpNear(samples: Float32Array, seconds: number): number {
  let most = 0;
  const [from, to] = [
    Math.max(1, Math.round((seconds - NEAR) * RATE)),
    Math.min(samples.length, (seconds + NEAR) * RATE),
  ];
  for (let i = from; i < to; i++) most = Math.max(most, Math.abs(samples[i]! - samples[i - 1]!));
  return most === 0 ? FLOOR : 20 * Math.log10(most);
}

const hundredths = (value: number): number => Math.round(value * 100) / 100;
