import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import type { Standing } from '#contract/grading';
import { readSpeech, type Recording } from '#contract/recordings';
import { readAsStudent, setReady as sendReady } from '#contract/returning';
import { readFeedback, readWork, returnWork, type Feedback, type Work } from '#contract/submissions';
import { call, Refused } from '../session/api.ts';
import { applyChange, recordingIn, seen, touchedBy, withRecording, type Change, type Update } from './changes/index.ts';
import { useOutbox } from '../outbox/outbox.ts';
import { useSession } from '../session/session.ts';

interface Loaded {
  work: Work;
  feedback: Feedback | undefined;
}

/** The name of our changes in the outbox. */
export const SUBJECT = 'feedback';

const SPEECH = ['task', 'state', 'reason', 'progress'] as const;

/** How many works are held that nobody has opened yet. */
const MOST_AHEAD = 4;

/** One work and what was said about it: as the server has it, and what of our own changes is still on the way. */
export const useFeedback = defineStore('feedback', () => {
  const outbox = useOutbox();
  const session = useSession();
  const work = shallowRef<Work>();
  const fromServer = shallowRef<Feedback>();
  const ahead = new Map<string, Promise<Loaded>>();
  let wanted: string | undefined;
  /** A teacher sees exactly what the student would. */
  let asStudent = false;
  /** Something was sent about the work that is being opened, so what was asked for before may not know it. */
  let sentMeanwhile = false;
  /** How many changes have reached the server. */
  let sent = 0;

  const changesFor = (submission: string): Change[] => outbox.changesFor(SUBJECT, submission) as Change[];

  const feedback = computed(() => {
    if (!work.value || !fromServer.value) return undefined;
    return changesFor(work.value.id).reduce(applyChange, fromServer.value);
  });

  async function ask(submission: string): Promise<Loaded> {
    const params = { submission };
    const asked = call(asStudent ? readAsStudent : readFeedback, { params }).catch((error: unknown) => error);
    const [work, answer] = await Promise.all([call(readWork, { params }), asked]);
    if (!(answer instanceof Error)) return { work, feedback: answer as Feedback };
    if (isWithTeacher(work, answer)) return { work, feedback: undefined };
    throw answer;
  }

  /** Opens a work. One that was loaded ahead is there at once, and is looked at again for what others have done meanwhile. */
  async function load(submission: string, preview = false): Promise<void> {
    if (preview !== asStudent) ahead.clear();
    asStudent = preview;
    wanted = submission;
    sentMeanwhile = false;
    const early = ahead.get(submission);
    ahead.delete(submission);
    if (!early) {
      work.value = undefined;
      fromServer.value = undefined;
    }
    const loaded = await (early ?? ask(submission));
    // Somebody who walks on quickly has asked for another work since.
    if (wanted !== submission) return;
    work.value = loaded.work;
    fromServer.value = loaded.feedback;
    if (early || sentMeanwhile) void lookAgain(submission);
  }

  async function lookAgain(submission: string): Promise<void> {
    const asked = sent;
    const { feedback } = await ask(submission).catch(() => ({ feedback: undefined }));
    if (!feedback || wanted !== submission) return;
    // What was sent in between may be newer than the answer.
    if (sent === asked) fromServer.value = feedback;
    else await lookAgain(submission);
  }

  /** Loads a work that will probably be opened next. It stays quiet about what fails: opening it will tell. */
  function loadAhead(submission: string): void {
    if (ahead.has(submission) || submission === wanted) return;
    const loading = ask(submission);
    loading.catch(() => ahead.delete(submission));
    ahead.set(submission, loading);
    for (const oldest of ahead.keys()) if (ahead.size > MOST_AHEAD) ahead.delete(oldest);
  }

  /** A student may read a version that is with its teacher; what is said about it is not there for them. */
  const isWithTeacher = (work: Work, error: Error): boolean =>
    work.student.id === session.person?.id && error instanceof Refused && error.problem.status === 404;

  function add(submission: string, wanted: Change): Promise<void> {
    const change = seen(submission === work.value?.id ? feedback.value : undefined, wanted);
    return outbox.add({ subject: SUBJECT, about: submission, touches: touchedBy(change), change });
  }

  async function setReturned(returned: boolean): Promise<void> {
    fromServer.value = await call(returnWork, { params: { submission: work.value!.id }, body: { returned } });
  }

  async function setReady(ready: boolean): Promise<void> {
    await call(sendReady, { params: { submission: work.value!.id }, body: { ready } });
    if (fromServer.value) fromServer.value = { ...fromServer.value, readyAt: ready ? new Date().toISOString() : null };
  }

  /** How late it is follows from when it was due, so all is asked for again. */
  async function setStanding(standing: Standing): Promise<void> {
    if (fromServer.value) fromServer.value = { ...fromServer.value, standing };
    if (work.value) await lookAgain(work.value.id);
  }

  /** What the server says about one recording. */
  function put(recording: Recording): void {
    if (fromServer.value) fromServer.value = withRecording(fromServer.value, recording);
  }

  const listening = computed(() =>
    (fromServer.value?.remarks ?? [])
      .flatMap(({ recording, replies }) => [recording, ...replies.map((reply) => reply.recording)])
      .some((recording) => recording?.speech?.state === 'queued' || recording?.speech?.state === 'running'),
  );

  /** Asks how far listening to the recordings of the open work is. */
  async function lookAtSpeech(): Promise<void> {
    const submission = wanted;
    const asked = sent;
    if (!submission) return;
    const jobs = await call(readSpeech, { params: { submission } }).catch(() => []);
    // A transcript that was mended meanwhile is newer than the answer.
    if (submission !== work.value?.id || !fromServer.value || asked !== sent) return;
    for (const { recording: id, speech, transcript } of jobs) {
      const recording = recordingIn(fromServer.value, id);
      if (recording && SPEECH.some((key) => speech[key] !== recording.speech?.[key]))
        put({ ...recording, speech, transcript });
    }
  }

  /** The key of the course has changed. */
  function setMarginKey(marginKey: Work['marginKey']): void {
    ahead.clear();
    if (work.value) work.value = { ...work.value, marginKey };
  }

  outbox.onSent(({ subject, about: submission, change }, update) => {
    if (subject !== SUBJECT) return;
    sent++;
    // What was loaded ahead of a change does not know it.
    ahead.delete(submission);
    if (submission === wanted && submission !== work.value?.id) sentMeanwhile = true;
    if (submission !== work.value?.id || !fromServer.value) return;
    const changed = applyChange(fromServer.value, change as Change);
    fromServer.value = update ? (update as Update)(changed) : changed;
    if (!update) void lookAgain(submission);
  });

  return {
    work,
    lookAgain: () => (work.value ? lookAgain(work.value.id) : Promise.resolve()),
    feedback,
    listening,
    load,
    loadAhead,
    lookAtSpeech,
    add,
    put,
    setReturned,
    setReady,
    setStanding,
    setMarginKey,
  };
});
