import { once } from 'node:events';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { createApp } from './app.ts';
import type { Context } from './context.ts';
import type { Database } from './db/database.ts';
import { readDocumentApart } from './documents/read-apart.ts';
import { purge } from './purge.ts';
import type { Settings } from './settings.ts';
import { enginesOf, startSpeech } from './speech/speech.ts';
import { translatorsOf } from './translation/translate.ts';
import type { Transcriber } from './speech/transcriber.ts';

const DAY = 24 * 60 * 60 * 1000;

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
  };
  const server = createServer(createApp(context));
  try {
    await listen(server, settings);
  } catch (error) {
    await speech.stop();
    throw error;
  }
  const timer = setInterval(() => void tidy(db), DAY);
  timer.unref();
  void tidy(db);
  const { port } = server.address() as AddressInfo;
  return {
    address: `http://${settings.host === '127.0.0.1' ? 'localhost' : settings.host}:${port}`,
    stop: async () => {
      clearInterval(timer);
      server.close();
      server.closeAllConnections();
      if (server.listening) await once(server, 'close');
      await speech.stop();
    },
  };
}

async function listen(server: Server, { port, host }: Settings): Promise<void> {
  server.listen(port, host);
  try {
    await once(server, 'listening');
  } catch (error) {
    throw (error as NodeJS.ErrnoException).code === 'EADDRINUSE' ? new PortTaken(port) : error;
  }
}

async function tidy(db: Database): Promise<void> {
  try {
    await purge(db);
  } catch (error) {
    process.stderr.write(`Could not clear what was put aside more than 30 days ago: ${String(error)}\n`);
  }
}
