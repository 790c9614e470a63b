import { describe, expect, it } from 'vitest';
import type { Feedback } from '#contract/submissions';
import {
  applyChange,
  changedOver,
  compared,
  inverseOf,
  seen,
  readChange,
  touchedBy,
  withRemark,
  type Change,
  type UndoableChange,
} from './changes/index.ts';
import { recordingOf } from './changes/recorded.ts';
import { firstChange } from './first-version.ts';
import { NO_WORDS } from '#contract/said';
import { feedbackOf } from '../testing/mount.ts';

const ID = '6f0b3c0e-7d55-4f58-9a52-0d0f0a1b2c3d';
const OTHER = '0b7c1f52-3f0e-4c5a-8d5b-2a1e9c7d4f10';
const AUTHOR = { id: 'teacher', name: 'Teacher' };
const sound = {
  blob: new Blob(['x']),
  sha256: 'a'.repeat(64),
  duration: 2,
  peaks: [1],
  microphone: { type: 'device' as const },
  picture: null,
};
const recording = { id: 'a', sound, edit: null, draft: null };
const DROP: Change = {
  ...{ type: 'drop banked', remark: 'd', author: AUTHOR, banked: 'b', anchor: { type: 'whole' }, kind: 'next' },
  words: { ...NO_WORDS, name: 'Kept', text: 'Said again.' },
  around: { before: '', passage: '', after: '' },
  recording: null,
  greeted: null,
  madeAt: '2026-01-01T15:00:00Z',
};
const DROP_AT = '2026-01-01T15:00:00Z';
const edit = { kept: [{ start: 1, end: 2 }], levelled: true };
const empty = feedbackOf({ rubric: [], scale: [] });

const say = (remark: string, start: number): UndoableChange => ({
  type: 'make remark',
  remark,
  author: AUTHOR,
  anchor: { type: 'passage', start, end: start + 4, quote: { exact: 'tide', prefix: '', suffix: '' } },
  kind: 'repair',
  words: NO_WORDS,
  recording: { ...recording, id: remark },
  file: null,
  madeAt: '2026-01-01T10:00:00Z',
});
const after = (...changes: Change[]): Feedback => changes.reduce(applyChange, empty);
const ids = (feedback: Feedback): string[] => feedback.remarks.map(({ id }) => id);

describe('applyChange', () => {
  it('puts remarks in the order in which they were made, as the server does', () => {
    const later = { ...say('b', 0), madeAt: '2026-01-01T11:00:00Z' } as Change;
    expect(ids(after(later, say('a', 3)))).toEqual(['a', 'b']);
  });

  const every: Change[] = [
    say('a', 3),
    { type: 'amend', remark: 'a', change: { kind: 'next', tags: ['evidence'] } },
    { type: 'replace sound', recording: 'a', sound: { ...sound, sha256: 'b'.repeat(64) }, edit, transcript: null },
    { type: 'keep original', recording: 'a', blob: sound.blob },
    { type: 'take over', remark: 'a', taken: true, at: '2026-01-01T12:30:00Z' },
    { type: 'mend', recording: 'a', language: 'en', text: 'words', read: true },
    { type: 'score', criterion: 'c', score: { level: 'l' } },
    { type: 'hear', recording: 'a', played: [], at: '2026-01-01T11:00:00Z' },
    { type: 'hear', recording: 'a', played: [{ start: 0, end: 100 }], at: '2026-01-01T12:00:00Z' },
    {
      type: 'answer',
      remark: 'a',
      reply: 'r',
      author: AUTHOR,
      text: 'yes',
      recording: null,
      at: '2026-01-01T13:00:00Z',
    },
    {
      ...{ type: 'answer', remark: 'a', reply: 's', author: AUTHOR, text: '', at: '2026-01-01T14:00:00Z' },
      recording: { ...recording, id: 's' },
    },
    { type: 'settle', remark: 'a', settled: true, by: AUTHOR, at: '2026-01-01T15:00:00Z' },
    { type: 'deal with', remark: 'a', dealt: true, at: '2026-01-01T16:00:00Z' },
    { type: 'mend', recording: 's', language: 'en', text: 'spoken answer', read: true },
    { type: 'translate', recording: 'a', language: 'es', text: 'palabras' },
    DROP,
    { type: 'put aside', remark: 'a', aside: true },
    { type: 'put aside', remark: 'a', aside: false },
  ];

  it('does each of them', () => {
    expect(after(...every)).toMatchObject({
      scores: { c: { level: 'l' } },
      aside: [],
      remarks: [
        {
          id: 'a',
          kind: 'next',
          tags: ['evidence'],
          recording: {
            sound: { sha256: 'b'.repeat(64), picture: null },
            edit,
            transcript: { text: 'words', source: 'person' },
            translations: [{ language: 'es', text: 'palabras' }],
            heard: { begunAt: '2026-01-01T11:00:00Z', finishedAt: '2026-01-01T12:00:00Z' },
          },
          takenAt: '2026-01-01T12:30:00Z',
          settled: { at: '2026-01-01T15:00:00Z', by: AUTHOR },
          dealtAt: '2026-01-01T16:00:00Z',
          replies: [
            { id: 'r', text: 'yes', recording: null },
            { id: 's', recording: { transcript: { text: 'spoken answer' } } },
          ],
        },
        { id: 'd', name: 'Kept', text: 'Said again.' },
      ],
    });
  });

  it('does the same change once, however often it is done: it may be on the server already', () => {
    for (let last = 1; last <= every.length; last++) {
      const before = after(...every.slice(0, last));
      expect(applyChange(before, every[last - 1]!)).toEqual(before);
    }
  });

  it('takes a score away, and changes nothing in what it was given', () => {
    const before = after({ type: 'score', criterion: 'c', score: { level: 'l' } });
    expect(applyChange(before, { type: 'score', criterion: 'c', score: null }).scores).toEqual({});
    expect(before.scores).toEqual({ c: { level: 'l' } });
    expect(empty).toEqual({ ...empty, remarks: [], scores: {} });
  });

  it('leaves everything as it is for a remark that is gone', () => {
    expect(applyChange(empty, { type: 'put aside', remark: 'gone', aside: true })).toEqual(empty);
  });
});

describe('withRemark', () => {
  it('takes what the server knows, and leaves what was put aside there', () => {
    const aside = after(say('a', 3), { type: 'put aside', remark: 'a', aside: true });
    const known = { ...aside.aside[0]!, kind: 'strength' as const };
    expect(withRemark(aside, known)).toMatchObject({ remarks: [], aside: [{ kind: 'strength' }] });
  });
});

describe('a change of what somebody else may change too', () => {
  const amend: Change = { type: 'amend', remark: 'a', change: { text: 'mine', tags: ['x'] } };

  it('goes with what its person saw, and after they have compared, with that', () => {
    const ready = seen(after(say('a', 3)), amend);
    expect(ready).toMatchObject({ was: { text: '', tags: [] } });
    expect(compared(ready, { text: 'theirs', tags: [] })).toEqual([
      { what: 'Text', now: 'theirs', mine: 'mine' },
      { what: 'Tags', now: 'nothing', mine: 'x' },
    ]);
    expect(changedOver(ready, { text: 'theirs' })).toEqual({ ...amend, was: { text: 'theirs', tags: [] } });
  });

  it('is as it is where nobody else can be there, or nothing is seen', () => {
    const aside: Change = { type: 'put aside', remark: 'a', aside: true };
    expect([seen(empty, aside), seen(undefined, amend), changedOver(aside, {})]).toEqual([aside, amend, aside]);
    expect(compared(aside, {})).toEqual([]);
  });

  it('is a score, points or a result too, told in the words of the rubric', () => {
    const level = (id: string, title: string) => ({ id, title, description: '', points: 500 });
    const levels = [level(ID, 'weak'), level(OTHER, 'strong')];
    const rubric = [{ id: 'seen', title: 'Observation', description: '', levels }];
    const feedback = feedbackOf({ rubric, scores: { seen: { level: ID } }, points: { q: 50 } });
    const score = seen(feedback, { type: 'score', criterion: 'seen', score: { points: 450 } });
    expect(score).toMatchObject({ was: { level: ID } });
    expect(compared(score, { level: OTHER })).toEqual([{ what: 'Observation', now: 'strong', mine: '4.5 points' }]);
    expect(compared(score, null)).toEqual([{ what: 'Observation', now: 'no score', mine: '4.5 points' }]);
    expect(changedOver(score, { level: OTHER })).toMatchObject({ score: { points: 450 }, was: { level: OTHER } });
    const points = seen(feedback, { type: 'give points', question: 'q', points: 250 });
    expect([points, compared(points, null)]).toMatchObject([
      { was: 50 },
      [{ what: 'Points', now: 'no points yet', mine: '2.5 points' }],
    ]);
    const adjustment = { extra: null, total: 1200, reason: 'Agreed' };
    const adjust = seen(feedback, { type: 'adjust', adjustment });
    expect(adjust).toMatchObject({ was: null });
    const theirs = { extra: 50, total: null, reason: '' };
    expect(compared(adjust, theirs)).toEqual([{ what: 'Result', now: '0.5 extra', mine: 'a total of 12, Agreed' }]);
    expect(changedOver(adjust, theirs)).toEqual({ ...adjust, was: theirs });
  });
});

describe('a copy from the bank', () => {
  it('stands in the margin at once, with the greeting in it, and is taken back by being put aside', () => {
    const made = { ...recording, id: 'c' };
    const shown = { ...recordingOf(made, DROP_AT), transcript: null };
    const transcript = { language: 'en', text: 'Hello.', words: [], source: 'bank' as const };
    const spoken = { engine: '', approximate: false, read: true };
    const greeted = {
      sound: { ...sound, sha256: 'c'.repeat(64), duration: 5 },
      transcript: { ...transcript, ...spoken },
    };
    const plain = after({ ...DROP, recording: shown } as Change).remarks[0]!;
    expect(plain).toMatchObject({ id: 'd', name: 'Kept', recording: { id: 'c', sound: { duration: 2 } }, replies: [] });
    const change = { ...DROP, recording: shown, greeted } as UndoableChange;
    expect(after(change).remarks[0]).toMatchObject({
      recording: { id: 'c', sound: { duration: 5, sha256: 'c'.repeat(64) }, transcript: { text: 'Hello.' } },
    });
    expect(touchedBy(change)).toEqual(['d', 'c']);
    expect(inverseOf(empty, change)).toEqual({ type: 'put aside', remark: 'd', aside: true });
  });
});

describe('inverseOf', () => {
  const before: UndoableChange[] = [
    say('a', 3),
    { type: 'mend', recording: 'a', language: 'en', text: 'first', read: true },
    { type: 'score', criterion: 'c', score: { level: 'weak' } },
  ];
  const undoable: UndoableChange[] = [
    { type: 'amend', remark: 'a', change: { kind: 'next', text: 'new', private: true } },
    { type: 'mend', recording: 'a', language: 'en', text: 'second', read: true },
    { type: 'score', criterion: 'c', score: { level: 'strong' } },
    { type: 'score', criterion: 'c', score: null },
    { type: 'give points', question: 'q', points: 250 },
    { type: 'put aside', remark: 'a', aside: true },
  ];

  it.each(undoable.map((change) => [change.type, change] as const))('takes back: %s', (_, change) => {
    const feedback = after(...before);
    const inverse = inverseOf(feedback, change)!;
    expect(applyChange(applyChange(feedback, change), inverse)).toEqual(feedback);
  });

  it('a new remark is put aside, from where it can come back', () => {
    expect(inverseOf(empty, say('a', 3))).toEqual({ type: 'put aside', remark: 'a', aside: true });
  });

  it('opens a thread about a criterion with what is asked, and does not open it twice', () => {
    const ask: Change = {
      ...{ type: 'answer', remark: 'q', criterion: 'c', author: AUTHOR, recording: null, at: '2026-01-01T17:00:00Z' },
      ...{ reply: 'why', text: 'Why is it not the highest level?' },
    };
    const { remarks } = after(ask, ask, { ...ask, reply: 'also', text: 'And what would it take?' });
    expect(remarks).toHaveLength(1);
    expect(remarks[0]).toMatchObject({ id: 'q', criterion: 'c', text: '', anchor: { type: 'whole' } });
    expect(remarks[0]!.replies.map(({ text }) => text)).toEqual([ask.text, 'And what would it take?']);
    expect(touchedBy(ask)).toEqual(['q']);
  });

  it.each(['hear', 'answer', 'replace sound', 'keep original'])(
    '%s says by its type that nothing takes it back',
    (type) => {
      const lasting: Change['type'] = type as 'hear' | 'answer' | 'replace sound' | 'keep original';
      // @ts-expect-error only changes that can be taken back are asked
      const ask = () => inverseOf(empty, { type: lasting });
      expect(ask).toThrow();
    },
  );
});

describe('a change that was kept in the browser', () => {
  const OTHER = '0b6a6f5e-52b1-4a3c-8a0e-1d2c3b4a5f60';
  const anchor = { type: 'whole' };
  const at = '2026-01-01T10:00:00Z';
  const author = { id: ID, name: 'Teacher' };
  const { picture: _, ...oldSound } = sound;
  const FIRST: [string, object, Partial<Change>, string[]][] = [
    [
      'a spoken remark, with what the browser heard',
      {
        ...{ type: 'remark', remark: ID, author, anchor, kind: 'next', sound: oldSound, madeAt: at },
        draft: { language: 'en', text: 'heard', engine: 'This browser' },
        edit,
      },
      {
        type: 'make remark',
        remark: ID,
        recording: { id: ID, sound, edit, draft: { language: 'en', text: 'heard', engine: 'This browser' } },
      },
      [ID, ID],
    ],
    [
      'a written remark',
      {
        type: 'remark',
        remark: ID,
        author,
        anchor,
        kind: 'next',
        sound: null,
        content: { ...NO_WORDS, text: 'look' },
        madeAt: at,
      },
      { type: 'make remark', words: { ...NO_WORDS, text: 'look' }, recording: null, file: null },
      [ID],
    ],
    ['putting aside', { type: 'aside', remark: ID, aside: true }, { type: 'put aside', remark: ID, aside: true }, [ID]],
    [
      'an amendment',
      { type: 'content', remark: ID, change: { kind: 'next' } },
      { type: 'amend', change: { kind: 'next' } },
      [ID],
    ],
    [
      'another sound',
      { type: 'sound', remark: ID, sound: oldSound, edit },
      { type: 'replace sound', recording: ID, sound, edit, transcript: null },
      [ID],
    ],
    ['an original', { type: 'original', remark: ID, blob: sound.blob }, { type: 'keep original', recording: ID }, [ID]],
    [
      'a mended transcript',
      { type: 'transcript', remark: ID, language: 'en', text: 'x' },
      { type: 'mend', recording: ID, read: true },
      [ID],
    ],
    [
      'a translation',
      { type: 'translation', remark: ID, language: 'es', text: 'x' },
      { type: 'translate', recording: ID },
      [ID],
    ],
    ['a score', { type: 'score', criterion: ID, level: ID }, { type: 'score', score: { level: ID } }, [ID]],
    ['no score', { type: 'score', criterion: ID, level: null }, { type: 'score', score: null }, [ID]],
    ['points', { type: 'points', question: ID, points: 250 }, { type: 'give points', points: 250 }, [ID]],
    [
      'having listened',
      { type: 'heard', remark: ID, finished: true, at },
      { type: 'hear', recording: ID, played: [{ start: 0, end: 1_000_000 }] },
      [ID],
    ],
    [
      'a suggestion taken over',
      { type: 'taken', remark: ID, taken: true, at },
      { type: 'take over', taken: true },
      [ID],
    ],
    [
      'an answer by voice',
      { type: 'reply', remark: ID, reply: OTHER, author, text: '', sound: oldSound, at },
      { type: 'answer', recording: { id: OTHER, sound, edit: null, draft: null } },
      [ID, OTHER],
    ],
  ];

  it.each(FIRST)('by the first version is carried over: %s', (_, kept, expected, touches) => {
    const change = readChange(firstChange(kept));
    expect(change).toMatchObject(expected);
    expect(touchedBy(change)).toEqual(touches);
    // What this version keeps, it reads as it is.
    expect(readChange(change)).toEqual(change);
  });

  it('is refused where it is none, or has lost a part', () => {
    expect(() => readChange(firstChange({ type: 'dance' }))).toThrow();
    expect(() => readChange({ type: 'hear', recording: ID })).toThrow();
  });
});
