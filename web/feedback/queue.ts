import { queueKind, queueOf, WHOLE_QUEUE, type Queue, type QueueFilter, type QueueItem } from '#core/workflow';
import type { Waiting } from '#contract/assignments';
import { createGlobalState, useLocalStorage } from '@vueuse/core';

/** What is shown of the queue, on the first page and where the desk leads on to. */
export const useQueueFilter = createGlobalState(() => useLocalStorage<QueueFilter>('queue-filter', { ...WHOLE_QUEUE }));

/** One line of the queue: a work, or an answer. */
export interface Waited extends QueueItem {
  student: string;
  /** Of the assignment. */
  title: string;
  work?: Waiting['toMark'][number];
  answer?: Waiting['unanswered'][number];
}

/** One queue of all that waits. */
export function waitedFor({ toMark, unanswered, assignments }: Waiting, filter: QueueFilter): Queue<Waited> {
  const places = new Map(assignments.map(({ id, title, courseId }) => [id, { title, course: courseId }]));
  const placeOf = (assignment: string) => places.get(assignment) ?? { title: '', course: '' };
  return queueOf(
    [
      ...toMark.map((work): Waited => {
        const { submission, student, handedInAt: at, assignment } = work;
        return { ...{ kind: queueKind(work), submission, student, at, work }, ...placeOf(assignment) };
      }),
      ...unanswered.map((answer): Waited => {
        const { submission, remark, student, at, assignment } = answer;
        return { ...{ kind: 'reply', submission, remark, student, at, answer }, ...placeOf(assignment) };
      }),
    ],
    filter,
  );
}
