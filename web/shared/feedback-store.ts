import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import { readFeedback, readWork, returnWork, type Feedback, type Work } from '#contract/submissions';
import { call, Refused } from './api.ts';
import { applyChange, type Change } from './changes.ts';
import { useOutbox } from './outbox.ts';
import { useSession } from './session.ts';

/** One work and what was said about it: as the server has it, and what of our own changes is still on the way. */
export const useFeedback = defineStore('feedback', () => {
  const outbox = useOutbox();
  const session = useSession();
  const work = shallowRef<Work>();
  const fromServer = shallowRef<Feedback>();
  let wanted: string | undefined;

  const feedback = computed(() => {
    if (!work.value || !fromServer.value) return undefined;
    return outbox.changesFor(work.value.id).reduce(applyChange, fromServer.value);
  });

  async function load(submission: string): Promise<void> {
    wanted = submission;
    work.value = undefined;
    fromServer.value = undefined;
    const params = { submission };
    const [readWorkAnswer, readFeedbackAnswer] = await Promise.all([
      call(readWork, { params }),
      call(readFeedback, { params }).catch(withoutFeedback),
    ]);
    // Somebody who walks on quickly has asked for another work since.
    if (wanted !== submission) return;
    work.value = readWorkAnswer;
    fromServer.value = readFeedbackAnswer;
  }

  /** A student may read a version that is with its teacher; what is said about it is not there for them. */
  function withoutFeedback(error: unknown): undefined {
    if (session.person?.role !== 'student' || !(error instanceof Refused) || error.problem.status !== 404) throw error;
  }

  const change = (next: Change): Promise<void> => outbox.add(work.value!.id, next);

  async function setReturned(returned: boolean): Promise<void> {
    fromServer.value = await call(returnWork, { params: { submission: work.value!.id }, body: { returned } });
  }

  outbox.onSent((submission, sent, update) => {
    if (submission !== work.value?.id || !fromServer.value) return;
    fromServer.value = update(applyChange(fromServer.value, sent));
  });

  return { work, feedback, load, change, setReturned };
});
