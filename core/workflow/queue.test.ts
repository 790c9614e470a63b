import { describe, expect, it } from 'vitest';
import { nextInQueue, queueOf, WHOLE_QUEUE, type QueueItem } from './index.ts';

const item = (submission: string, day: number, change: Partial<QueueItem> = {}): QueueItem => ({
  ...{ kind: 'new', submission, course: 'shore', at: `2026-11-${String(day).padStart(2, '0')}T08:00:00Z` },
  ...change,
});
const items = [
  item('c', 9),
  item('a', 3, { course: 'tides' }),
  item('b', 7, { kind: 'reply', remark: 'r' }),
  item('d', 1, { kind: 'back', course: 'tides' }),
];
const ids = (queue: readonly QueueItem[]): string => queue.map(({ submission }) => submission).join('');

describe('the queue', () => {
  it('has everything, the oldest first', () => {
    expect(queueOf(items, WHOLE_QUEUE)).toMatchObject({ hiddenByCourse: 0, hiddenByKind: 0 });
    expect(ids(queueOf(items, WHOLE_QUEUE).shown)).toBe('dabc');
  });

  it('says how many a filter hides, and by what', () => {
    const { shown, ...hidden } = queueOf(items, { course: 'shore', kinds: ['reply'] });
    expect([ids(shown), hidden]).toEqual(['b', { hiddenByCourse: 2, hiddenByKind: 1 }]);
  });

  it('leads on from a work, round to the first, and to nothing where nothing else waits', () => {
    const queue = queueOf(items, WHOLE_QUEUE).shown;
    expect(nextInQueue(queue, 'a')?.submission).toBe('b');
    expect(nextInQueue(queue, 'c')?.submission).toBe('d');
    expect(nextInQueue(queue, 'gone')?.submission).toBe('d');
    expect(nextInQueue([item('a', 1), item('a', 2, { kind: 'reply' })], 'a')).toBeUndefined();
    expect(nextInQueue([], 'a')).toBeUndefined();
  });
});
