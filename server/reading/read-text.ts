import { readRoster, type ReadRoster } from '#core/roster';
import { CaptionError, readCues, textOfWords, wordsOfCues, type Word } from '#core/transcript';
import { decodeText } from '../documents/decode-text.ts';

/** What is read out of a text from outside. */
export interface Readings {
  roster: ReadRoster;
  captions: { text: string; words: Word[] };
}
/** A text that was pasted, or a file that holds one in whatever encoding. */
export type TextTask =
  { kind: 'roster'; text: string | Uint8Array; turned: boolean } | { kind: 'captions'; text: string };

/** What is no text, or not what it should be. */
export class NotReadable extends Error {}

/** @throws NotReadable */
export function readText(task: TextTask): Readings[TextTask['kind']] {
  if (task.kind === 'captions') return captionsIn(task.text);
  const text = typeof task.text === 'string' ? task.text : decodeText(task.text)?.text;
  if (text === undefined) throw new NotReadable();
  return readRoster(text, task.turned);
}

function captionsIn(content: string): Readings['captions'] {
  try {
    const words = wordsOfCues(readCues(content));
    return { text: textOfWords(words), words };
  } catch (error) {
    throw error instanceof CaptionError ? new NotReadable() : error;
  }
}
