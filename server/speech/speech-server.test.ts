import express, { type Express } from 'express';
import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { fileURLToPath } from 'node:url';
import { afterEach, describe, expect, it } from 'vitest';
import { writeWav } from '#core/audio';
import { PRACTICE_SENTENCES } from '../../contract/practice.ts';
import { decodeSpeech } from './decode.ts';
import { SPEECH_RATE } from './speech-rate.ts';
import { speechServer } from './speech-server.ts';
import { standInServer } from './stand-in-server.ts';
import type { Clip } from './transcriber.ts';

let server: Server | undefined;
afterEach(() => {
  server?.closeAllConnections();
  server?.close();
});

async function serving(app: Express): Promise<string> {
  server = createServer(app).listen(0, '127.0.0.1');
  await once(server, 'listening');
  return `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
}

const clipOf = (samples: Float32Array): Clip => {
  const wav = writeWav(samples, SPEECH_RATE);
  return { bytes: wav, mediaType: 'audio/wav', wav, duration: samples.length / SPEECH_RATE, language: 'en-GB' };
};
const quiet = clipOf(new Float32Array(SPEECH_RATE));
const QUICK = { pauses: [5, 5], patience: () => 200 };
const settingsOf = (address: string, key?: string) => ({ address, key, model: 'default' });

/** Answers with each of these in turn, the last one again and again. */
function answering(...answers: ((response: express.Response) => void)[]): { app: Express; asked: () => number } {
  let asked = 0;
  const app = express();
  app.post('/v1/audio/transcriptions', (_request, response) =>
    answers[Math.min(asked++, answers.length - 1)]!(response),
  );
  return { app, asked: () => asked };
}

describe('the stand-in', () => {
  const sentence = (index: number): Buffer =>
    readFileSync(fileURLToPath(new URL(`../../web/recorder/practice/sentence-${index}.wav`, import.meta.url)));

  it('answers the sentences of the practice microphone, with times; and wants its key', async () => {
    const address = await serving(standInServer('secret'));
    const samples = await decodeSpeech(sentence(0));
    const heard = await speechServer(settingsOf(address, 'secret'), QUICK).transcribe(clipOf(samples));
    expect(heard?.text).toBe(PRACTICE_SENTENCES[0]!.text);
    expect(heard?.words.map(({ word }) => word).join(' ')).toBe(PRACTICE_SENTENCES[0]!.text);
    await expect(speechServer(settingsOf(address, 'wrong'), QUICK).transcribe(quiet)).rejects.toThrow('HTTP 401');
  });

  it('has no words for anything else', async () => {
    const address = await serving(standInServer());
    expect(await speechServer(settingsOf(address), QUICK).transcribe(quiet)).toBeUndefined();
  });
});

describe('a speech server', () => {
  it('is sent one channel of PCM, the language and what is wanted', async () => {
    let sent = '';
    const app = express();
    app.post('/v1/audio/transcriptions', express.raw({ type: () => true, limit: '10mb' }), (request, response) => {
      sent = (request.body as Buffer).toString('latin1');
      response.json({ text: 'Hello there.' });
    });
    const heard = await speechServer(settingsOf(await serving(app)), QUICK).transcribe(quiet);
    expect(heard).toEqual({ language: 'en-GB', text: 'Hello there.', words: [] });
    expect(sent).toMatch(/name="language"\s+en\s/);
    expect(sent).toMatch(/name="response_format"\s+verbose_json\s/);
    expect(sent).toMatch(/name="timestamp_granularities\[\]"\s+word\s/);
    expect(sent).toContain('RIFF');
  });

  it('that is busy or away is asked again, and then it is told', async () => {
    const busy = answering(
      (response) => void response.status(503).end(),
      (response) => void response.status(429).end(),
      (response) => void response.json({ text: 'At last.' }),
    );
    expect((await speechServer(settingsOf(await serving(busy.app)), QUICK).transcribe(quiet))?.text).toBe('At last.');
    expect(busy.asked()).toBe(3);
    await expect(speechServer(settingsOf('http://127.0.0.1:9'), QUICK).transcribe(quiet)).rejects.toThrow(
      'The speech server at 127.0.0.1:9 could not be reached.',
    );
  });

  it('that never answers is given up', async () => {
    const { app, asked } = answering(() => undefined);
    await expect(speechServer(settingsOf(await serving(app)), QUICK).transcribe(quiet)).rejects.toThrow('in time');
    expect(asked()).toBe(3);
  });

  it('that refuses is not asked again', async () => {
    const { app, asked } = answering((response) => void response.status(400).json({ error: 'no' }));
    await expect(speechServer(settingsOf(await serving(app)), QUICK).transcribe(quiet)).rejects.toThrow('HTTP 400');
    expect(asked()).toBe(1);
  });

  it.each([
    ['a web page', (response: express.Response) => void response.send('<html>')],
    ['another shape', (response: express.Response) => void response.json({ result: 'x' })],
    [
      'times that are no numbers',
      (response: express.Response) => void response.json({ text: 'a', words: [{ word: 'a', start: '0', end: null }] }),
    ],
  ])('that answers %s is refused', async (_, answer) => {
    await expect(
      speechServer(settingsOf(await serving(answering(answer).app)), QUICK).transcribe(quiet),
    ).rejects.toThrow('something that is no transcript');
  });

  it('whose times do not go with its words is believed its words only', async () => {
    const words = [
      { word: 'b', start: 0.9, end: 1 },
      { word: 'a', start: 0.1, end: 0.2 },
    ];
    const { app } = answering((response) => void response.json({ text: 'b a', words }));
    expect((await speechServer(settingsOf(await serving(app)), QUICK).transcribe(quiet))?.words).toEqual([]);
  });
});
