import { randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { z } from 'zod';
import { Transcript, Word } from '../contract/transcripts.ts';
import type { Queries } from '../server/db/database.ts';
import { keepMedium } from '../server/media/media.ts';
import { insertRecording } from '../server/recordings/queries.ts';
import { fromRoot } from '../server/root.ts';
import { putTranscript } from '../server/transcripts/queries.ts';
import type { SpokenLine } from './spoken-line.ts';

const Voice = z.object({ duration: z.number(), peaks: z.array(z.int()), words: z.array(Word) });
type Voice = z.infer<typeof Voice>;

export const daysAgo = (days: number): string => new Date(Date.now() - days * 24 * 60 * 60 * 1000).toISOString();

let voices: Promise<Record<string, Voice>> | undefined;

async function readVoices(): Promise<Record<string, Voice>> {
  const file = new URL('voices.json', fromRoot('demo/voices/'));
  return z.record(z.string(), Voice).parse(JSON.parse(await readFile(file, 'utf8')));
}

async function voiceOf({ name }: SpokenLine): Promise<Voice & { bytes: Buffer }> {
  const known = await (voices ??= readVoices());
  return { bytes: await readFile(new URL(`${name}.ogg`, fromRoot('demo/voices/'))), ...known[name]! };
}

/** Keeps a line as it was spoken. */
export async function keepVoice(tx: Queries, line: SpokenLine, owner: string): Promise<string> {
  const id = randomUUID();
  const { bytes, duration, peaks } = await voiceOf(line);
  const sha256 = await keepMedium(tx, bytes, 'audio/ogg');
  const sound = { sha256, duration, peaks, picture: null };
  await insertRecording(tx, { id, owner, sound, edit: null, language: 'en' });
  return id;
}

export async function putWords(tx: Queries, recording: string, line: SpokenLine): Promise<void> {
  const { words } = await voiceOf(line);
  const transcript = { language: 'en', text: line.text, words, source: 'person' };
  await putTranscript(tx, recording, Transcript.parse(transcript), null);
}

/** Keeps a line with its words. */
export async function keepSpoken(tx: Queries, line: SpokenLine, owner: string): Promise<string> {
  const recording = await keepVoice(tx, line, owner);
  await putWords(tx, recording, line);
  return recording;
}

export async function draftOf({ name }: SpokenLine): Promise<Transcript> {
  const file = await readFile(fromRoot(`demo/voices/${name}.draft.json`), 'utf8');
  return Transcript.parse({ ...(JSON.parse(file) as object), source: 'machine', read: false });
}
