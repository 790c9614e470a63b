import { EventEmitter, once } from 'node:events';
import { inSentences, isDraft, spelled, textOfWords, vocabulary, type Transcript } from '#core/transcript';
import type { Database } from '../db/database.ts';
import { findMedium, readWholeMedium } from '../media/media.ts';
import { putDraft, putTimes, selectTranscript } from '../transcripts/queries.ts';
import { hasAgreed } from './agreements.ts';
import { engineHere, hear } from './hear.ts';
import {
  claimJob,
  finishJob,
  noteProgress,
  MOST_ATTEMPTS,
  recoverJobs,
  selectSubject,
  type ClaimedJob,
  type Lane,
  type SpeechSubject,
  type SpeechTaskName,
} from './jobs.ts';
import { SpeechError, speechErrors } from './speech-error.ts';
import type { SpeechThread } from './speech-thread.ts';
import { knows, type Transcriber } from './transcriber.ts';

/** Works off the jobs in the database, the oldest of each lane first. */
export interface SpeechQueue {
  /** There may be something to do. */
  wake(task: SpeechTaskName): void;
  /** Resolves when a job of a recording has ended here, or after so many milliseconds. */
  ended(recording: string, milliseconds: number): Promise<void>;
  stop(): Promise<void>;
}

export interface SpeechQueueOptions {
  db: Database;
  thread: SpeechThread;
  engines: readonly Transcriber[];
  /** Seconds after which a job that says it is running is given up by others; 0 where no other process works on this database. */
  staleAfter: number;
}

const LOOK_AGAIN_MILLISECONDS = 60_000;

/** Seconds: no usual remark waits until a recording that is longer has been listened to. */
const LONG = 180;
const LANES: Lane[] = [
  { task: 'transcribe', from: 0, below: LONG },
  { task: 'transcribe', from: LONG, below: Infinity },
  { task: 'align', from: 0, below: LONG },
  { task: 'align', from: LONG, below: Infinity },
];

export function speechQueue({ db, thread, engines, staleAfter }: SpeechQueueOptions): SpeechQueue {
  const running = new Map<Lane, Promise<void>>();
  const wanted = new Set<Lane>();
  const ending = new AbortController();
  const endings = new EventEmitter();
  let stopped = false;

  async function workOff(lane: Lane): Promise<void> {
    while (!stopped) {
      wanted.delete(lane);
      const job = await claimJob(db, lane);
      if (!job) {
        if (wanted.has(lane)) continue;
        return;
      }
      await work(job);
      endings.emit(job.recording);
    }
  }

  async function work(job: ClaimedJob): Promise<void> {
    try {
      await (job.task === 'align' ? alignJob(job) : transcribeJob(job));
      await finishJob(db, job, 'done');
    } catch (error) {
      if (stopped) return void (await finishJob(db, job, 'queued').catch(() => undefined));
      const problem = error instanceof SpeechError ? error : speechErrors.notMade();
      if (!(error instanceof SpeechError)) process.stderr.write(`A transcript could not be made: ${String(error)}\n`);
      const final = problem.lasting || job.attempts >= MOST_ATTEMPTS;
      await finishJob(db, job, final ? 'failed' : 'queued', problem.message).catch(() => undefined);
    }
  }

  async function transcribeJob(job: ClaimedJob): Promise<void> {
    const { recording, language } = job;
    const subject = await selectSubject(db, recording);
    if (!subject) return;
    const sound = await soundOf(subject);
    const engine = await engineFor(subject.author, language);
    const onProgress = (share: number): void => void noteProgress(db, job, share).catch(() => undefined);
    const heard = await hear(thread, engine, { ...sound, language, signal: ending.signal, onProgress });
    const words = spelled(heard.words, vocabulary(subject.names, subject.text));
    const draft: Transcript = { ...heard, words, text: textOfWords(words), source: 'machine', read: false };
    await db.transaction((tx) => putDraft(tx, recording, draft));
  }

  async function alignJob({ recording }: ClaimedJob): Promise<void> {
    const [subject, transcript] = [await selectSubject(db, recording), await selectTranscript(db, recording)];
    if (!subject || !transcript || transcript.text.trim() === '') return;
    const { bytes } = await soundOf(subject);
    const { language, words: known } = transcript;
    const aligned = await thread.align(bytes, { text: transcript.text, language, known });
    // What a browser heard comes as bare words; what a person wrote or has read is left as it is.
    const bare = isDraft(transcript);
    const words = bare
      ? spelled(inSentences(aligned.words, language), vocabulary(subject.names, subject.text))
      : aligned.words;
    const text = bare ? textOfWords(words) : transcript.text;
    await db.transaction((tx) => putTimes(tx, recording, transcript.text, { ...aligned, words, text }));
  }

  async function soundOf({ sound }: SpeechSubject): Promise<{ bytes: Buffer; mediaType: string }> {
    const medium = await findMedium(db, sound);
    if (!medium) throw speechErrors.corrupt();
    return { bytes: await readWholeMedium(db, sound, medium), mediaType: medium.mediaType };
  }

  /** A server elsewhere is asked first by whoever has agreed to it; they most often hear better. */
  async function engineFor(author: string, language: string): Promise<Transcriber | undefined> {
    const elsewhere = engines.find((engine) => engine.soundGoesTo === 'another server' && knows(engine, language));
    if (elsewhere && (await hasAgreed(db, author, 'speech server'))) return elsewhere;
    return engineHere(engines, language);
  }

  const recover = async (): Promise<void> => {
    try {
      await recoverJobs(db, staleAfter, speechErrors.engineDied('The engine').message);
      wake('transcribe');
      wake('align');
    } catch {
      // The database will be there again at the next look.
    }
  };

  const wake = (task: SpeechTaskName): void => LANES.filter((lane) => lane.task === task).forEach(start);

  function start(lane: Lane): void {
    wanted.add(lane);
    if (stopped || running.has(lane)) return;
    const work = workOff(lane)
      .catch((error: unknown) => void process.stderr.write(`The queue of recordings stopped: ${String(error)}\n`))
      .finally(() => running.delete(lane));
    running.set(lane, work);
  }

  const timer = setInterval(
    () => void (staleAfter > 0 ? recover() : (wake('transcribe'), wake('align'))),
    LOOK_AGAIN_MILLISECONDS,
  );
  timer.unref();
  void recover();

  return {
    wake,
    ended: (recording, milliseconds) =>
      once(endings, recording, { signal: AbortSignal.timeout(milliseconds) }).then(
        () => undefined,
        () => undefined,
      ),
    stop: async () => {
      stopped = true;
      ending.abort();
      clearInterval(timer);
      await thread.stop();
      await Promise.all(running.values());
    },
  };
}
