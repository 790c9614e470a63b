import { PERSON_HEADER } from '#contract/session';
import { resumableUploads, type WithUploads } from '#contract/uploads';
import type { DetailedError, Upload } from 'tus-js-client';
import { Problem } from '#contract/problem';
import { hexDigest } from './digest.ts';
import { Refused, Unreachable } from './refused.ts';
import { speaker } from './speaker.ts';

/** What has come in, as a request names it. */
export type SentFile = WithUploads['uploads'][number];

/** Somebody has stopped it. */
export class Stopped extends Error {}

interface Options {
  /** How much of all files has arrived, from 0 to 1. */
  onProgress?: ((share: number) => void) | undefined;
  /** Goes on by itself whenever the server is there again; otherwise it ends when the server stays away. */
  patient?: boolean;
  /** Whether it waits for the server right now. */
  onWaiting?: (waiting: boolean) => void;
}

export interface Sending {
  /** Rejects with Refused, Unreachable or Stopped. */
  done: Promise<SentFile[]>;
  pause(): void;
  goOn(): void;
  stop(): void;
}

/** At 10 kB/s a piece takes a minute and a half; servers and proxies wait as long. */
const PIECE_BYTES = 1024 * 1024;
const RETRY_MILLISECONDS = [500, 1500, 4000];
const PATIENCE_MILLISECONDS = 5000;

/** Under what the browser remembers where a file is being sent to: by its content, or where it cannot hash, by what it is called. */
async function keyOf(file: Blob): Promise<string> {
  if (window.isSecureContext) return `upload-${await hexDigest(await file.arrayBuffer())}`;
  const called = file instanceof File ? [file.name, file.lastModified] : [crypto.getRandomValues(new Uint32Array(2))];
  return ['upload', file.size, ...called].join('-');
}

/** What has been used, or is not there any more, is sent anew the next time. */
export async function forgetSent(files: readonly Blob[]): Promise<void> {
  for (const file of files) localStorage.removeItem(await keyOf(file));
}

/** Sends files so that each goes on where it broke off, also after the page was closed. */
export function sendFiles(files: readonly Blob[], { onProgress, patient = false, onWaiting }: Options = {}): Sending {
  const together = files.reduce((sum, { size }) => sum + size, 0);
  let before = 0;
  let current: Upload | undefined;
  let paused = false;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let stop: (reason: Stopped) => void = () => undefined;
  const stopped = new Promise<never>((_, reject) => (stop = reject));

  const goOn = (): void => {
    clearTimeout(timer);
    onWaiting?.(false);
    if (!paused) current?.start();
  };

  async function sendOne(file: Blob): Promise<SentFile> {
    const { Upload } = await import('tus-js-client');
    const kept = await keyOf(file);
    return new Promise((resolve, reject) => {
      const upload: Upload = new Upload(file, {
        endpoint: `/api${resumableUploads.uploadsAt}`,
        uploadUrl: localStorage.getItem(kept),
        headers: speaker() ? { [PERSON_HEADER]: speaker()! } : {},
        chunkSize: PIECE_BYTES,
        uploadDataDuringCreation: true,
        storeFingerprintForResuming: false,
        retryDelays: RETRY_MILLISECONDS,
        onUploadUrlAvailable: () => localStorage.setItem(kept, upload.url!),
        onProgress: (sent) => {
          onWaiting?.(false);
          onProgress?.(together > 0 ? (before + sent) / together : 0);
        },
        onError: (error) => {
          const failure = failureOf(error);
          if (!patient || failure instanceof Refused) return reject(failure);
          onWaiting?.(true);
          timer = setTimeout(goOn, PATIENCE_MILLISECONDS);
        },
        onSuccess: () =>
          resolve({ upload: upload.url!.split('/').at(-1)!, name: file instanceof File ? file.name : 'recording' }),
      });
      current = upload;
      if (!paused) upload.start();
    });
  }

  async function sendAll(): Promise<SentFile[]> {
    const sent: SentFile[] = [];
    for (const file of files) {
      sent.push(await Promise.race([sendOne(file), stopped]));
      before += file.size;
    }
    return sent;
  }

  const pause = (): void => {
    paused = true;
    clearTimeout(timer);
    void current?.abort();
  };
  return {
    done: sendAll(),
    pause,
    goOn() {
      paused = false;
      goOn();
    },
    stop() {
      pause();
      stop(new Stopped());
    },
  };
}

function failureOf(error: Error | DetailedError): Refused | Unreachable {
  const response = 'originalResponse' in error ? error.originalResponse : null;
  if (!response) return new Unreachable();
  const problem = Problem.safeParse(asJson(response.getBody()));
  return problem.success ? new Refused(problem.data) : new Unreachable();
}

function asJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}
