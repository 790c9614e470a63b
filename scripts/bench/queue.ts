import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { setTimeout as sleep } from 'node:timers/promises';
import type { z } from 'zod';
import { NO_WORDS } from '../../contract/said.ts';
import type { readSpeech } from '../../contract/recordings.ts';
import { TEACHER } from '../../e2e/school.ts';
import { Server } from '../../e2e/server.ts';
import type { Client } from '../../server/testing/client.ts';
import { firstWaiting, signedIn, summary, timed } from './answers.ts';

const REMARKS = 30;
/** Seconds for which the desk is used, at the most. */
const WATCHED = 90;
const QUIET = 8;
/** Milliseconds between one thing that a teacher does and the next: far less than a hand needs. */
const BETWEEN = 40;

const voices = JSON.parse(readFileSync(new URL('../../demo/voices/voices.json', import.meta.url), 'utf8')) as Record<
  string,
  { duration: number }
>;

/** How quickly the desk is answered while thirty recordings wait to be written down, and before that. */
export async function benchQueue(): Promise<object> {
  const server = await Server.start('bench-queue', { dictation: true });
  try {
    const teacher = await signedIn(server.address, TEACHER);
    const submission = await firstWaiting(teacher);
    const before = await answers(teacher, submission, QUIET, () => Promise.resolve(true));
    const sending = await sayAll(teacher, submission);
    const during = await answers(teacher, submission, WATCHED, async () => (await waiting(teacher, submission)) > 0);
    return {
      remarks: REMARKS,
      stillWaiting: await waiting(teacher, submission),
      answersBefore: summary(before),
      answersWhileListening: { ...summary(during), wanted: 'none over 200 because of it' },
      sendingOne: summary(sending),
    };
  } finally {
    await server.remove();
  }
}

async function sayAll(teacher: Client, submission: string): Promise<number[]> {
  const times: number[] = [];
  const names = Object.keys(voices);
  for (let index = 0; index < REMARKS; index++) {
    const name = names[index % names.length]!;
    const file = readFileSync(new URL(`../../demo/voices/${name}.ogg`, import.meta.url));
    const sound = { duration: voices[name]!.duration, peaks: [0, 100], microphone: { type: 'device' } };
    const said = { ...NO_WORDS, recording: { id: randomUUID(), sound } };
    const body = { anchor: { type: 'whole' }, kind: 'next', said };
    const path = `/submissions/${submission}/remarks/${randomUUID()}`;
    times.push(await timed(() => teacher.send('PUT', path, { body, file })));
  }
  return times;
}

async function waiting(teacher: Client, submission: string): Promise<number> {
  const { json } = await teacher.send('GET', `/submissions/${submission}/speech`);
  return (json as z.infer<typeof readSpeech.answer>).filter(({ speech }) => /queued|running/.test(speech.state)).length;
}

/** What a desk asks for, again and again. */
async function answers(teacher: Client, submission: string, seconds: number, goOn: () => Promise<boolean>) {
  const times: number[] = [];
  const until = performance.now() + seconds * 1000;
  while (performance.now() < until && (await goOn()))
    for (const path of ['', '/feedback', '/class', '/speech', '/earlier']) {
      times.push(await timed(() => teacher.send('GET', `/submissions/${submission}${path}`)));
      await sleep(BETWEEN);
    }
  return times;
}
