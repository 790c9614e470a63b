// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { createPinia, setActivePinia } from 'pinia';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { registerSubject } from '../outbox/subjects.ts';
import type { Change } from './changes/index.ts';
import { useSession } from '../session/session.ts';
import { useSitting } from './sitting.ts';

const ID = '6f0b3c0e-7d55-4f58-9a52-0d0f0a1b2c3d';
const score = (level: string | null): Change => ({
  type: 'score',
  criterion: ID,
  score: level === null ? null : { level },
});
const deed = (label: string, submission = ID) => ({ submission, label, undo: score(null), redo: score(ID) });

registerSubject('feedback', async () => (await import('./subject.ts')).feedbackSubject);
const server = vi.fn<typeof fetch>();
vi.stubGlobal('fetch', server);
const sent = () => server.mock.calls.map(([, request]) => JSON.parse(request!.body as string) as unknown);

beforeEach(() => {
  setActivePinia(createPinia());
  useSession().person = { id: ID, name: 'Teacher', teaches: true, learns: false };
  server.mockReset();
  server.mockImplementation(() => Promise.resolve(Response.json({ scores: {} })));
});

describe('a sitting', () => {
  it('undoes in turn, whoever it was about, and does again', async () => {
    const sitting = useSitting();
    sitting.remember(deed('first', 'one'));
    sitting.remember(deed('second', 'two'));
    expect(sitting.next?.label).toBe('second');
    expect((await sitting.undo())?.submission).toBe('two');
    expect((await sitting.undo())?.label).toBe('first');
    expect(await sitting.undo()).toBeUndefined();
    expect((await sitting.redo())?.label).toBe('first');
    await vi.waitFor(() => expect(sent()).toEqual([{ score: null }, { score: null }, { score: { level: ID } }]));
  });

  it('forgets what was undone once something new is done', async () => {
    const sitting = useSitting();
    sitting.remember(deed('first'));
    await sitting.undo();
    expect(sitting.nextRedo?.label).toBe('first');
    sitting.remember(deed('second'));
    expect(await sitting.redo()).toBeUndefined();
    expect(sitting.next?.label).toBe('second');
  });
});
