import { once } from 'node:events';
import { standInServer } from '../server/speech/stand-in-server.ts';

/** Runs until the process is told to stop. */
export async function speechStandIn({ port }: { port: number }): Promise<void> {
  const server = standInServer().listen(port, '127.0.0.1');
  await once(server, 'listening');
  process.stdout.write(
    `A stand-in for a speech server is ready: start the app with VIVID_SPEECH_SERVER=http://127.0.0.1:${port}\n`,
  );
}
