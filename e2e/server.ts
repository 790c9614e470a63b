import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { cp, mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const VIVID = fileURLToPath(new URL('../scripts/vivid.mjs', import.meta.url));
const READY = /ready at (http:\S+)/;
const SET_UP = /up your school at (http:\S+)/;
/** Names a data folder of the sample school that servers begin with a copy of. */
const PREPARED = 'VIVID_PREPARED_SCHOOL';

/** The real server with the sample school, on a database and in a process of its own. */
export class Server {
  address = '';
  readonly #folder: string;
  #process: ChildProcess | undefined;

  readonly #dictation: boolean;
  readonly #sample: boolean;
  /** Where an empty school is set up. */
  setUp = '';

  private constructor(folder: string, { dictation, sample }: { dictation: boolean; sample: boolean }) {
    this.#folder = folder;
    this.#dictation = dictation;
    this.#sample = sample;
  }

  /**
   * @param name names its data folder
   * @param dictation whether recordings are listened to, which takes much of a small machine
   * @param sample whether it is the sample school, or one that is empty
   */
  static async start(name: string, { dictation = false, sample = true } = {}): Promise<Server> {
    const folder = await mkdtemp(path.join(tmpdir(), `vivid-${name}-`));
    const prepared = process.env[PREPARED];
    if (prepared && sample) await cp(prepared, folder, { recursive: true });
    const server = new Server(folder, { dictation, sample });
    await server.start();
    return server;
  }

  /** Starts, or starts again at the same address. */
  async start(): Promise<void> {
    const port = this.address ? new URL(this.address).port : '0';
    const child = spawn(process.execPath, [VIVID, 'serve', ...(this.#sample ? ['--sample'] : []), '--port', port], {
      env: {
        ...process.env,
        VIVID_DATA: this.#folder,
        VIVID_DICTATION: String(this.#dictation),
        VIVID_RECOGNITION: 'false',
      },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    this.#process = child;
    this.address = await new Promise<string>((resolve, reject) => {
      let said = '';
      child.stdout.on('data', (chunk) => {
        const ready = READY.exec((said += String(chunk)));
        this.setUp = SET_UP.exec(said)?.[1] ?? '';
        if (ready && (this.#sample || this.setUp)) resolve(ready[1]!);
      });
      child.once('exit', () => reject(new Error(`The server did not start: ${said}`)));
    });
  }

  /** `kill -9`: no time to tidy up. */
  kill(): Promise<void> {
    return this.#end('SIGKILL');
  }

  stop(): Promise<void> {
    return this.#end('SIGTERM');
  }

  /** Works on the database while the server is stopped. */
  async whileStopped(work: (dataFolder: string) => Promise<void>): Promise<void> {
    await this.stop();
    await work(this.#folder);
    await this.start();
  }

  async #end(signal: NodeJS.Signals): Promise<void> {
    const child = this.#process;
    if (child?.exitCode !== null || child.signalCode !== null) return;
    child.kill(signal);
    await once(child, 'exit');
  }

  /** Fills the sample school once for all servers that are started after this one; answers what ends that. */
  static async prepare(): Promise<() => Promise<void>> {
    const server = await Server.start('prepared');
    await server.stop();
    process.env[PREPARED] = server.#folder;
    return () => server.remove();
  }

  async remove(): Promise<void> {
    await this.kill();
    await rm(this.#folder, { recursive: true, force: true });
  }
}
