import type { BankThread } from './bank/bank-thread.ts';
import type { Database } from './db/database.ts';
import type { ReadDocumentFor } from './documents/document.ts';
import type { RecognitionQueue } from './recognition/queue.ts';
import type { Settings } from './settings.ts';
import type { Translator } from './translation/translator.ts';
import type { Speech } from './speech/speech.ts';

/** What the routes work with. */
export interface Context {
  db: Database;
  settings: Settings;
  readDocument: ReadDocumentFor;
  speech: Speech;
  translators: readonly Translator[];
  bank: BankThread;
  recognition: RecognitionQueue;
}
