import { askedThread, type AskedThread } from '../threads/asked-thread.ts';
import type { Aligned, Said } from './aligner.ts';
import { SpeechError, speechErrors } from './speech-error.ts';
import type { Listened, SpeechRefusal, SpeechTask, SpeechThreadData } from './speech-worker.ts';

/** Listening to recordings apart from the server's own thread. */
export interface SpeechThread {
  /** @throws SpeechError */
  listen(bytes: Uint8Array): Promise<Listened>;
  /** @throws SpeechError */
  align(bytes: Uint8Array, said: Said): Promise<Aligned>;
  stop(): Promise<void>;
}

const DECODER = 'The decoder of recordings';

/**
 * Two threads: nobody waits for a recording to be listened to, but whoever has mended a transcript sees its times come.
 */
export function speechThread(): SpeechThread {
  const [listening, aligning] = [lane({ background: true }), lane({ background: false })];
  return {
    listen: (bytes) => listening.ask({ type: 'listen', bytes }),
    align: (bytes, said) => aligning.ask({ type: 'align', bytes, said }),
    stop: async () => void (await Promise.all([listening.stop(), aligning.stop()])),
  };
}

const lane = (data: SpeechThreadData): AskedThread<SpeechTask> =>
  askedThread<SpeechTask, SpeechRefusal>('speech', {
    data,
    resourceLimits: { maxOldGenerationSizeMb: 1024 },
    refused: (refusal) => (refusal ? new SpeechError(refusal.message, refusal.lasting) : speechErrors.notMade()),
    silent: (why) => (why === 'ended' ? speechErrors.engineDied(DECODER) : speechErrors.tooSlow(DECODER)),
  });
