import { describe, expect, it } from 'vitest';
import type { Feedback } from '#contract/submissions';
import { applyChange, inverseOf, withRemark, type Change } from './changes.ts';

const AUTHOR = { id: 'teacher', name: 'Teacher' };
const sound = {
  blob: new Blob(['x']),
  sha256: 'a'.repeat(64),
  duration: 2,
  peaks: [1],
  microphone: { type: 'device' as const },
  picture: null,
};
const edit = { kept: [{ start: 1, end: 2 }], levelled: true };
const empty: Feedback = {
  returnedAt: null,
  remarks: [],
  aside: [],
  rubric: [],
  scale: [],
  scores: {},
  questions: [],
  points: {},
  grade: null,
};

const say = (remark: string, start: number): Change => ({
  type: 'remark',
  remark,
  author: AUTHOR,
  anchor: { type: 'passage', start, end: start + 4, quote: { exact: 'tide', prefix: '', suffix: '' } },
  kind: 'repair',
  sound,
  madeAt: '2026-01-01T10:00:00Z',
});
const after = (...changes: Change[]): Feedback => changes.reduce(applyChange, empty);
const ids = (feedback: Feedback): string[] => feedback.remarks.map(({ id }) => id);

describe('applyChange', () => {
  it('puts remarks in the order in which they were made, as the server does', () => {
    const later: Change = { ...(say('b', 0) as Extract<Change, { type: 'remark' }>), madeAt: '2026-01-01T11:00:00Z' };
    expect(ids(after(later, say('a', 3)))).toEqual(['a', 'b']);
  });

  const every: Change[] = [
    say('a', 3),
    { type: 'content', remark: 'a', change: { kind: 'next', tags: ['evidence'] } },
    { type: 'sound', remark: 'a', sound: { ...sound, sha256: 'b'.repeat(64) }, edit },
    { type: 'original', remark: 'a', blob: sound.blob },
    { type: 'taken', remark: 'a', taken: true, at: '2026-01-01T12:30:00Z' },
    { type: 'transcript', remark: 'a', language: 'en', text: 'words' },
    { type: 'score', criterion: 'c', level: 'l' },
    { type: 'heard', remark: 'a', finished: false, at: '2026-01-01T11:00:00Z' },
    { type: 'heard', remark: 'a', finished: true, at: '2026-01-01T12:00:00Z' },
    { type: 'reply', remark: 'a', reply: 'r', author: AUTHOR, text: 'yes', sound: null, at: '2026-01-01T13:00:00Z' },
    { type: 'aside', remark: 'a', aside: true },
    { type: 'aside', remark: 'a', aside: false },
  ];

  it('does each of them', () => {
    expect(after(...every)).toMatchObject({
      scores: { c: 'l' },
      aside: [],
      remarks: [
        {
          id: 'a',
          kind: 'next',
          tags: ['evidence'],
          sound: { sha256: 'b'.repeat(64), picture: null },
          edit,
          takenAt: '2026-01-01T12:30:00Z',
          transcript: { text: 'words', source: 'person' },
          heard: { begunAt: '2026-01-01T11:00:00Z', finishedAt: '2026-01-01T12:00:00Z' },
          replies: [{ id: 'r', text: 'yes' }],
        },
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
    const before = after({ type: 'score', criterion: 'c', level: 'l' });
    expect(applyChange(before, { type: 'score', criterion: 'c', level: null }).scores).toEqual({});
    expect(before.scores).toEqual({ c: 'l' });
    expect(empty).toEqual({ ...empty, remarks: [], scores: {} });
  });

  it('leaves everything as it is for a remark that is gone', () => {
    expect(applyChange(empty, { type: 'aside', remark: 'gone', aside: true })).toEqual(empty);
  });
});

describe('withRemark', () => {
  it('takes what the server knows, and leaves what was put aside there', () => {
    const aside = after(say('a', 3), { type: 'aside', remark: 'a', aside: true });
    const known = { ...aside.aside[0]!, kind: 'strength' as const };
    expect(withRemark(aside, known)).toMatchObject({ remarks: [], aside: [{ kind: 'strength' }] });
  });
});

describe('inverseOf', () => {
  const before: Change[] = [
    say('a', 3),
    { type: 'transcript', remark: 'a', language: 'en', text: 'first' },
    { type: 'score', criterion: 'c', level: 'weak' },
  ];
  const undoable: Change[] = [
    { type: 'content', remark: 'a', change: { kind: 'next', text: 'new', private: true } },
    { type: 'transcript', remark: 'a', language: 'en', text: 'second' },
    { type: 'score', criterion: 'c', level: 'strong' },
    { type: 'score', criterion: 'c', level: null },
    { type: 'points', question: 'q', points: 250 },
    { type: 'aside', remark: 'a', aside: true },
  ];

  it.each(undoable.map((change) => [change.type, change] as const))('takes back: %s', (_, change) => {
    const feedback = after(...before);
    const inverse = inverseOf(feedback, change)!;
    expect(applyChange(applyChange(feedback, change), inverse)).toEqual(feedback);
  });

  it('a new remark is put aside, from where it can come back', () => {
    expect(inverseOf(empty, say('a', 3))).toEqual({ type: 'aside', remark: 'a', aside: true });
  });

  it('what a student did cannot be taken back here', () => {
    expect(inverseOf(empty, { type: 'heard', remark: 'a', finished: true, at: '' })).toBeUndefined();
  });
});
