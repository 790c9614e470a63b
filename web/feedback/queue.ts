import { queueKind, queueOf, WHOLE_QUEUE, type Queue, type QueueFilter, type QueueItem } from '#core/workflow';
import type { Waiting } from '#contract/assignments';
import { createGlobalState, useLocalStorage } from '@vueuse/core';

/** What is shown of the queue, on the first page and where the desk leads on to. */
export const useQueueFilter = createGlobalState(() => useLocalStorage<QueueFilter>('queue-filter', { ...WHOLE_QUEUE }));

/** One line of the queue. */
export interface Waited extends QueueItem {
  student: string;
  title: string;
  courseTitle: string;
  /** What has to be known beside it, in a word each. */
  chips: string[];
  /** What was answered. */
  text?: string;
}

export const waitedFor = (waiting: Waiting, filter: QueueFilter, chipsOf: (work: Work) => string[]): Queue<Waited> =>
  queueOf(
    [
      ...waiting.toMark.map((work): Waited => ({
        ...{ kind: queueKind(work), submission: work.submission, student: work.student, at: work.handedInAt },
        ...place(work),
        chips: chipsOf(work),
      })),
      ...waiting.unanswered.map((reply): Waited => ({
        ...{ kind: 'reply', submission: reply.submission, remark: reply.remark, student: reply.student, at: reply.at },
        ...place(reply),
        chips: [],
        text: reply.spoken ? 'Answered by voice' : reply.text,
      })),
    ],
    filter,
  );

type Work = Waiting['toMark'][number];

const place = ({ assignment }: Pick<Work, 'assignment'>) => ({
  ...{ title: assignment.title, course: assignment.courseId, courseTitle: assignment.course },
});
