import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import { readSpeech, type Remark } from '#contract/remarks';
import { readFeedback, readWork, returnWork, type Feedback, type Work } from '#contract/submissions';
import { call, Refused } from '../session/api.ts';
import { applyChange, withRemark, type Change } from './changes.ts';
import { useOutbox } from '../outbox/outbox.ts';
import { useSession } from '../session/session.ts';

interface Loaded {
  work: Work;
  feedback: Feedback | undefined;
}

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
  /** Something was sent about the work that is being opened, so what was asked for before may not know it. */
  let sentMeanwhile = false;
  /** How many changes have reached the server. */
  let sent = 0;

  const feedback = computed(() => {
    if (!work.value || !fromServer.value) return undefined;
    return outbox.changesFor(work.value.id).reduce(applyChange, fromServer.value);
  });

  async function ask(submission: string): Promise<Loaded> {
    const params = { submission };
    const [work, feedback] = await Promise.all([
      call(readWork, { params }),
      call(readFeedback, { params }).catch(withoutFeedback),
    ]);
    return { work, feedback };
  }

  /** Opens a work. One that was loaded ahead is there at once, and is looked at again for what others have done meanwhile. */
  async function load(submission: string): Promise<void> {
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
    const feedback = await call(readFeedback, { params: { submission } }).catch(() => undefined);
    if (!feedback || wanted !== submission || outbox.changesFor(submission).length > 0) return;
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
  function withoutFeedback(error: unknown): undefined {
    if (session.person?.role !== 'student' || !(error instanceof Refused) || error.problem.status !== 404) throw error;
  }

  const change = (next: Change): Promise<void> => outbox.add(work.value!.id, next);

  async function setReturned(returned: boolean): Promise<void> {
    fromServer.value = await call(returnWork, { params: { submission: work.value!.id }, body: { returned } });
  }

  /** What the server says about one remark. */
  function put(remark: Remark): void {
    if (fromServer.value) fromServer.value = withRemark(fromServer.value, remark);
  }

  const listening = computed(() =>
    (fromServer.value?.remarks ?? []).some(({ speech }) => speech?.state === 'queued' || speech?.state === 'running'),
  );

  /** Asks how far listening to the recordings of the open work is. */
  async function lookAtSpeech(): Promise<void> {
    const submission = wanted;
    const asked = sent;
    if (!submission) return;
    const jobs = await call(readSpeech, { params: { submission } }).catch(() => []);
    // A transcript that was mended meanwhile is newer than the answer.
    if (submission !== work.value?.id || !fromServer.value || asked !== sent) return;
    const known = new Map(jobs.map((job) => [job.remark, job]));
    const remarks = fromServer.value.remarks.map((remark) => {
      const job = known.get(remark.id);
      const same = !job || SPEECH.every((key) => job.speech[key] === remark.speech?.[key]);
      return same ? remark : { ...remark, speech: job.speech, transcript: job.transcript };
    });
    if (remarks.some((remark, index) => remark !== fromServer.value!.remarks[index]))
      fromServer.value = { ...fromServer.value, remarks };
  }

  /** The key of the course has changed. */
  function setMarginKey(marginKey: Work['marginKey']): void {
    ahead.clear();
    if (work.value) work.value = { ...work.value, marginKey };
  }

  outbox.onSent((submission, change, update) => {
    sent++;
    // What was loaded ahead of a change does not know it.
    ahead.delete(submission);
    if (submission === wanted && submission !== work.value?.id) sentMeanwhile = true;
    if (submission !== work.value?.id || !fromServer.value) return;
    fromServer.value = update(applyChange(fromServer.value, change));
  });

  return { work, feedback, listening, load, loadAhead, lookAtSpeech, change, put, setReturned, setMarginKey };
});
