import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import { readFeedback, readWork, returnWork, type Feedback, type Work } from '#contract/submissions';
import { call } from './api.ts';
import { applyChange, type Change } from './changes.ts';
import { useOutbox } from './outbox.ts';

/** One work and what was said about it: as the server has it, and what of our own changes is still on the way. */
export const useFeedback = defineStore('feedback', () => {
  const outbox = useOutbox();
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
      call(readFeedback, { params }),
    ]);
    // Somebody who walks on quickly has asked for another work since.
    if (wanted !== submission) return;
    work.value = readWorkAnswer;
    fromServer.value = readFeedbackAnswer;
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
