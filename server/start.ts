import { once } from 'node:events';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { createApp } from './app.ts';
import { bankThread } from './bank/bank-thread.ts';
import type { Context } from './context.ts';
import type { Database } from './db/database.ts';
import { readDocumentApart } from './documents/read-apart.ts';
import { mailerOf, type Mailer } from './mail/mailer.ts';
import { queueDigests } from './notices/digest.ts';
import { sendMails } from './mail/send.ts';
import { purge } from './purge.ts';
import { returnPlanned } from './returning/planned.ts';
import { recognitionQueue, type RecognitionQueue } from './recognition/queue.ts';
import { tesseract } from './recognition/tesseract.ts';
import type { Settings } from './settings.ts';
import { enginesOf, startSpeech } from './speech/speech.ts';
import { translatorsOf } from './translation/translate.ts';
import type { Transcriber } from './speech/transcriber.ts';

/** A page is read in far less. */
const STALE_SECONDS = 10 * 60;
const HOUR = 60 * 60 * 1000;
/** How late a return at a set time, or mail, may be, in milliseconds. */
const PLANNED_EVERY = 15_000;
const DIGESTS_EVERY = 10 * 60_000;

/** Milliseconds for which an idle connection is kept: longer than most proxies do, so that none sends into one that is being closed. */
const KEPT_OPEN = 75_000;

export interface Running {
  address: string;
  stop(): Promise<void>;
}

export class PortTaken extends Error {
  constructor(port: number) {
    super(`Port ${port} is taken by another program. Stop that one, or choose another port with --port.`);
    this.name = 'PortTaken';
  }
}

/** Serves an open database until it is stopped; who opened the database closes it. */
export async function startServer(
  db: Database,
  settings: Settings,
  engines: readonly Transcriber[] = enginesOf(settings),
): Promise<Running> {
  const speech = startSpeech(db, settings, engines);
  const context: Context = {
    db,
    settings,
    readDocument: readDocumentApart,
    speech,
    translators: translatorsOf(settings),
    bank: bankThread(),
    recognition: startRecognition(db, settings),
  };
  const server = createServer(createApp(context));
  server.keepAliveTimeout = KEPT_OPEN;
  try {
    await listen(server, settings);
  } catch (error) {
    await Promise.all([speech.stop(), context.recognition.stop()]);
    throw error;
  }
  const stopping = new AbortController();
  const timer = setInterval(() => void tidy(db, stopping.signal), HOUR);
  timer.unref();
  void tidy(db, stopping.signal);
  const mailer = mailerOf(settings);
  const send = (): void => {
    void sendPlanned(db, stopping.signal);
    void mailWaiting(db, mailer, stopping.signal);
  };
  const digest = (): void => void tellNews(db, settings.address ?? addressOf(server, settings), stopping.signal);
  const digests = setInterval(digest, DIGESTS_EVERY);
  digests.unref();
  const planned = setInterval(send, PLANNED_EVERY);
  planned.unref();
  send();
  return {
    address: addressOf(server, settings),
    stop: async () => {
      clearInterval(timer);
      clearInterval(planned);
      clearInterval(digests);
      stopping.abort();
      mailer.stop();
      server.close();
      server.closeAllConnections();
      if (server.listening) await once(server, 'close');
      await Promise.all([speech.stop(), context.bank.stop(), context.recognition.stop()]);
    },
  };
}

const startRecognition = (db: Database, { databaseUrl, recognition }: Settings): RecognitionQueue =>
  recognitionQueue({
    db,
    recogniser: recognition ? tesseract() : undefined,
    staleAfter: databaseUrl ? STALE_SECONDS : 0,
  });

function addressOf(server: Server, { host }: Settings): string {
  const { port } = server.address() as AddressInfo;
  return `http://${host === '127.0.0.1' ? 'localhost' : host}:${port}`;
}

async function tellNews(db: Database, address: string, stopping: AbortSignal): Promise<void> {
  try {
    await queueDigests(db, address, new Date(), stopping);
  } catch (error) {
    if (stopping.aborted) return;
    process.stderr.write(`Could not tell people what is new: ${String(error)}\n`);
  }
}

async function listen(server: Server, { port, host }: Settings): Promise<void> {
  server.listen(port, host);
  try {
    await once(server, 'listening');
  } catch (error) {
    throw (error as NodeJS.ErrnoException).code === 'EADDRINUSE' ? new PortTaken(port) : error;
  }
}

async function tidy(db: Database, stopping: AbortSignal): Promise<void> {
  try {
    await purge(db);
    await db.tidy();
  } catch (error) {
    if (stopping.aborted) return;
    process.stderr.write(`Could not clear away what is no longer needed: ${String(error)}\n`);
  }
}

async function sendPlanned(db: Database, stopping: AbortSignal): Promise<void> {
  try {
    await returnPlanned(db, stopping);
  } catch (error) {
    if (stopping.aborted) return;
    process.stderr.write(`Could not return what was planned: ${String(error)}\n`);
  }
}

async function mailWaiting(db: Database, mailer: Mailer, stopping: AbortSignal): Promise<void> {
  try {
    await sendMails(db, mailer, stopping);
  } catch (error) {
    if (stopping.aborted) return;
    process.stderr.write(`Could not look for mail that waits: ${String(error)}\n`);
  }
}
