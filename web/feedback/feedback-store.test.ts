import 'fake-indexeddb/auto';
import { createPinia, setActivePinia } from 'pinia';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { nextTick } from 'vue';
import { readFeedback, type Feedback } from '#contract/submissions';
import { call } from '../session/api.ts';
import type { Change } from './changes/index.ts';
import { useFeedback } from './feedback-store.ts';

type Listener = (parcel: { subject: string; about: string; change: Change }, answer: unknown) => void;

const sentTo = vi.hoisted(() => ({ listeners: [] as Listener[] }));

vi.mock('../session/api.ts', () => ({ call: vi.fn(), Refused: class extends Error {} }));
vi.mock('../outbox/outbox.ts', () => ({
  useOutbox: () => ({ changesFor: () => [], onSent: (listener: Listener) => sentTo.listeners.push(listener) }),
}));

const WORK = 'work';
const feedbackWith = (scores: Record<string, string>): Feedback => ({ scores }) as unknown as Feedback;

describe('a work that was loaded ahead', () => {
  let answers: ((feedback: Feedback) => void)[];

  beforeEach(() => {
    setActivePinia(createPinia());
    answers = [];
    sentTo.listeners.length = 0;
    vi.mocked(call).mockImplementation((endpoint: unknown) =>
      endpoint === readFeedback
        ? (new Promise((resolve) => answers.push(resolve as (feedback: Feedback) => void)) as never)
        : (Promise.resolve({ id: WORK }) as never),
    );
  });

  const opened = async () => {
    const store = useFeedback();
    store.loadAhead(WORK);
    answers[0]!(feedbackWith({ a: 'early' }));
    await store.load(WORK);
    return store;
  };

  it('is there at once, and what others did meanwhile comes after', async () => {
    const store = await opened();
    expect(store.feedback?.scores).toEqual({ a: 'early' });
    answers[1]!(feedbackWith({ a: 'late' }));
    await vi.waitFor(() => expect(store.feedback?.scores).toEqual({ a: 'late' }));
  });

  it('does not lose a change that was sent while it was looked at again', async () => {
    const store = await opened();
    const change: Change = { type: 'score', criterion: 'a', level: 'mine' };
    sentTo.listeners[0]!({ subject: 'feedback', about: WORK, change }, (feedback: Feedback) => feedback);
    sentTo.listeners[0]!({ subject: 'another', about: WORK, change }, undefined);
    expect(store.feedback?.scores).toEqual({ a: 'mine' });
    answers[1]!(feedbackWith({ a: 'from before' }));
    await vi.waitFor(() => expect(answers).toHaveLength(3));
    await nextTick();
    expect(store.feedback?.scores).toEqual({ a: 'mine' });
    answers[2]!(feedbackWith({ a: 'mine', b: 'of another' }));
    await vi.waitFor(() => expect(store.feedback?.scores).toEqual({ a: 'mine', b: 'of another' }));
  });
});
