import type { Database } from '../db/database.ts';
import type { Settings } from '../settings.ts';
import { pocketsphinx } from './pocketsphinx.ts';
import { speechQueue, type SpeechQueue } from './queue.ts';
import { speechServer } from './speech-server.ts';
import { speechThread, type SpeechThread } from './speech-thread.ts';
import type { Transcriber } from './transcriber.ts';

/** Everything that listens to recordings. */
export interface Speech {
  engines: readonly Transcriber[];
  thread: SpeechThread;
  queue: SpeechQueue;
  stop(): Promise<void>;
}

/** A running job of another process that has not been touched for so many seconds will not be done any more. */
const STALE_SECONDS = 30 * 60;

/** The engines that this machine and its settings have. */
export const enginesOf = ({ dictation, speechServer: server }: Settings): Transcriber[] =>
  [server && speechServer(server), dictation ? pocketsphinx() : undefined].filter((engine) => engine !== undefined);

export function startSpeech(db: Database, settings: Settings, engines: readonly Transcriber[]): Speech {
  const thread = speechThread();
  const queue = speechQueue({ db, thread, engines, staleAfter: settings.databaseUrl ? STALE_SECONDS : 0 });
  return { engines, thread, queue, stop: queue.stop };
}
