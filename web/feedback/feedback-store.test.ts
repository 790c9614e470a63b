import 'fake-indexeddb/auto';
import { createPinia, setActivePinia } from 'pinia';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { nextTick } from 'vue';
import { readFeedback, type Feedback } from '#contract/submissions';
import { call } from '../session/api.ts';
import type { Change } from './changes/index.ts';
import { useFeedback } from './feedback-store.ts';

type Listener = (parcel: { subject: string; about: string; change: Change }, answer: unknown) => void;

const sentTo = vi.hoisted(() => ({ listeners: [] as Listener[], onTheWay: [] as Change[] }));

vi.mock('../session/api.ts', () => ({ call: vi.fn(), Refused: class extends Error {} }));
vi.mock('../outbox/outbox.ts', () => ({
  useOutbox: () => ({
    changesFor: () => sentTo.onTheWay,
    onSent: (listener: Listener) => sentTo.listeners.push(listener),
  }),
}));

const WORK = 'work';
const feedbackWith = (levels: Record<string, string>): Feedback =>
  ({
    rubric: [],
    scores: Object.fromEntries(Object.entries(levels).map(([criterion, level]) => [criterion, { level }])),
  }) as unknown as Feedback;

let answers: ((feedback: Feedback) => void)[];

beforeEach(() => {
  setActivePinia(createPinia());
  answers = [];
  sentTo.listeners.length = 0;
  sentTo.onTheWay = [];
  vi.mocked(call).mockImplementation((endpoint: unknown) =>
    endpoint === readFeedback
      ? (new Promise((resolve) => answers.push(resolve as (feedback: Feedback) => void)) as never)
      : (Promise.resolve({ id: WORK }) as never),
  );
});

describe('a work that was loaded ahead', () => {
  const opened = async () => {
    const store = useFeedback();
    store.loadAhead(WORK);
    answers[0]!(feedbackWith({ a: 'early' }));
    await store.load(WORK);
    return store;
  };

  it('is there at once, and what others did meanwhile comes after', async () => {
    const store = await opened();
    expect(store.feedback?.scores).toEqual({ a: { level: 'early' } });
    answers[1]!(feedbackWith({ a: 'late' }));
    await vi.waitFor(() => expect(store.feedback?.scores).toEqual({ a: { level: 'late' } }));
  });

  it('does not lose a change that was sent while it was looked at again', async () => {
    const store = await opened();
    const change: Change = { type: 'score', criterion: 'a', score: { level: 'mine' } };
    sentTo.listeners[0]!({ subject: 'feedback', about: WORK, change }, (feedback: Feedback) => feedback);
    sentTo.listeners[0]!({ subject: 'another', about: WORK, change }, undefined);
    expect(store.feedback?.scores).toEqual({ a: { level: 'mine' } });
    answers[1]!(feedbackWith({ a: 'from before' }));
    await vi.waitFor(() => expect(answers).toHaveLength(3));
    await nextTick();
    expect(store.feedback?.scores).toEqual({ a: { level: 'mine' } });
    answers[2]!(feedbackWith({ a: 'mine', b: 'of another' }));
    await vi.waitFor(() =>
      expect(store.feedback?.scores).toEqual({ a: { level: 'mine' }, b: { level: 'of another' } }),
    );
  });

  it('shows what another tab has sent, as the server has it', async () => {
    const store = await opened();
    answers[1]!(feedbackWith({ a: 'early' }));
    await vi.waitFor(() => expect(answers).toHaveLength(2));
    const change: Change = { type: 'score', criterion: 'a', score: { level: 'of the other tab' } };
    sentTo.listeners[0]!({ subject: 'feedback', about: WORK, change }, undefined);
    expect(store.feedback?.scores).toEqual({ a: { level: 'of the other tab' } });
    answers[2]!(feedbackWith({ a: 'of the other tab', b: 'too' }));
    await vi.waitFor(() =>
      expect(store.feedback?.scores).toEqual({ a: { level: 'of the other tab' }, b: { level: 'too' } }),
    );
  });
});

describe('a work that is opened', () => {
  it('has what was sent meanwhile, also while more is on its way', async () => {
    const store = useFeedback();
    const opening = store.load(WORK);
    const sent: Change = { type: 'score', criterion: 'a', score: { level: 'sent' } };
    sentTo.listeners[0]!({ subject: 'feedback', about: WORK, change: sent }, (feedback: Feedback) => feedback);
    sentTo.onTheWay = [{ type: 'score', criterion: 'b', score: { level: 'on its way' } }];
    answers[0]!(feedbackWith({}));
    await opening;
    answers[1]!(feedbackWith({ a: 'sent' }));
    await vi.waitFor(() =>
      expect(store.feedback?.scores).toEqual({ a: { level: 'sent' }, b: { level: 'on its way' } }),
    );
  });
});
