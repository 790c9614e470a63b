/** A work that waits to be marked, or a student's answer that waits for one. */
export interface QueueItem {
  kind: QueueKind;
  submission: string;
  /** Where it is an answer, the remark that was answered. */
  remark?: string | null | undefined;
  course: string;
  /** Since when it waits: an ISO 8601 instant. */
  at: string;
}

/** `new`: handed in for the first time, or begun; `back`: comes again after a return; `reply`: a student had the last word. */
export type QueueKind = 'new' | 'back' | 'reply';
export const QUEUE_KINDS = ['new', 'back', 'reply'] as const satisfies readonly QueueKind[];

/** What somebody wants to see of their queue. */
export interface QueueFilter {
  /** Null for all. */
  course: string | null;
  kinds: QueueKind[];
}

export const WHOLE_QUEUE: QueueFilter = { course: null, kinds: [...QUEUE_KINDS] };

export interface Queue<Item> {
  shown: Item[];
  /** How many the course hides, and how many of the others their kind does. */
  hiddenByCourse: number;
  hiddenByKind: number;
}

/** One queue of all, oldest first. */
export function queueOf<Item extends QueueItem>(items: readonly Item[], { course, kinds }: QueueFilter): Queue<Item> {
  const here = course === null ? items : items.filter((item) => item.course === course);
  const shown = here.filter(({ kind }) => kinds.includes(kind));
  return {
    shown: shown.toSorted((a, b) => a.at.localeCompare(b.at) || a.submission.localeCompare(b.submission)),
    hiddenByCourse: items.length - here.length,
    hiddenByKind: here.length - shown.length,
  };
}

/** What comes after a work in the queue, or first where it is not in it any more; undefined where nothing else waits. */
export function nextInQueue<Item extends QueueItem>(queue: readonly Item[], submission: string): Item | undefined {
  const others = queue.filter((item) => item.submission !== submission);
  const last = queue.findLastIndex((item) => item.submission === submission);
  return queue.slice(last + 1).find((item) => item.submission !== submission) ?? others[0];
}
