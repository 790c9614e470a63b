import type { Database } from './db/database.ts';
import type { ReadDocument } from './documents/document.ts';
import type { Settings } from './settings.ts';
import type { Transcriber } from './speech/transcriber.ts';

/** What the routes work with. */
export interface Context {
  db: Database;
  settings: Settings;
  readDocument: ReadDocument;
  transcriber: Transcriber;
}
