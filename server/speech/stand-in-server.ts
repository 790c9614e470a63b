import { readWav, speechSpans } from '#core/audio';
import { shiftWords, textOfWords, type Word } from '#core/transcript';
import express, { type Express } from 'express';
import multer from 'multer';
import { PRACTICE_SENTENCES } from '../../contract/practice.ts';

/** How far the length of speech may be from that of a sentence. */
const TOLERANCE = 0.12;

/**
 * A small stand-in for a speech server: it answers `POST /v1/audio/transcriptions` with the sentence of the practice microphone
 * that is as long as the speech in the recording. It hears nothing, and has an empty answer for everything else.
 * @param key where one must be sent
 */
export function standInServer(key?: string): Express {
  const app = express();
  app.post('/v1/audio/transcriptions', multer().single('file'), (request, response) => {
    if (key !== undefined && request.get('Authorization') !== `Bearer ${key}`) {
      response.status(401).json({ error: { message: 'The key is wrong.' } });
      return;
    }
    const bytes = request.file?.buffer;
    const words = bytes ? sentenceIn(bytes) : [];
    const { language = 'en' } = request.body as { language?: string };
    response.json({ task: 'transcribe', language, text: textOfWords(words), words });
  });
  return app;
}

function sentenceIn(bytes: Uint8Array): Word[] {
  const { channels, rate } = readWav(bytes);
  const spans = speechSpans(channels[0]!, rate);
  const [start, end] = [spans[0]?.start ?? 0, spans.at(-1)?.end ?? 0];
  const lengths = PRACTICE_SENTENCES.map(({ words }) => words.at(-1)!.end - words[0]!.start);
  const off = lengths.map((length) => Math.abs(length - (end - start)) / length);
  const nearest = off.indexOf(Math.min(...off));
  if (off[nearest]! > TOLERANCE) return [];
  const { words } = PRACTICE_SENTENCES[nearest]!;
  return shiftWords(words, start - words[0]!.start);
}
