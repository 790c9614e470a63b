import { describe, expect, it } from 'vitest';
import { isLate, may, permissions, workState, type Action, type Standing } from './index.ts';

const nobody: Standing = { teacher: false, student: false, author: false, returned: false, opened: false };
const people = {
  nobody,
  teacher: { ...nobody, teacher: true },
  author: { ...nobody, student: true, author: true },
  classmate: { ...nobody, student: true },
};
const actions = Object.keys(permissions) as Action[];
const allowed = (who: Standing, returned: boolean): Action[] =>
  actions.filter((action) => may({ ...who, returned }, action));

describe('permissions', () => {
  it('give a stranger nothing, ever', () => {
    expect([...allowed(nobody, false), ...allowed(nobody, true)]).toEqual([]);
  });

  it('give a classmate only their own handing in', () => {
    expect(allowed(people.classmate, true)).toEqual(['assignment.handIn']);
  });

  it('give the author their work, and the feedback once it is returned', () => {
    expect(allowed(people.author, false)).toEqual(['assignment.handIn', 'work.read', 'work.withdraw']);
    expect(allowed(people.author, true)).toEqual([
      'assignment.handIn',
      'work.read',
      'feedback.read',
      'suggestion.take',
      'remark.listen',
      'remark.reportHeard',
      'reply.make',
      'reply.listen',
    ]);
  });

  it('let the author withdraw a work until somebody has opened it', () => {
    expect(may({ ...people.author, opened: true }, 'work.withdraw')).toBe(false);
    expect(may(people.teacher, 'work.withdraw')).toBe(false);
  });

  it('let the teacher change what is not returned, and mend transcripts always', () => {
    const draft = ['score.choose', 'points.give', 'remark.make', 'remark.change', 'remark.putAside'] as const;
    for (const action of draft)
      expect([may(people.teacher, action), may({ ...people.teacher, returned: true }, action)]).toEqual([true, false]);
    expect(may({ ...people.teacher, returned: true }, 'transcript.mend')).toBe(true);
    expect(may(people.teacher, 'remark.reportHeard')).toBe(false);
  });
});

describe('workState', () => {
  it('goes from waiting over begun to returned', () => {
    const facts = { returnedAt: null, remarks: 0, scores: 0, parts: 3, backAgain: false };
    expect(workState(facts)).toBe('waiting');
    expect(workState({ ...facts, scores: 1 })).toBe('begun');
    expect(workState({ ...facts, remarks: 2, scores: 2 })).toBe('begun');
    expect(workState({ ...facts, scores: 3 })).toBe('begun');
    expect(workState({ ...facts, remarks: 1, scores: 3 })).toBe('ready');
    expect(workState({ ...facts, returnedAt: '2026-01-01T00:00:00Z' })).toBe('returned');
  });

  it('a work that comes back after a return is back until it is begun', () => {
    const facts = { returnedAt: null, remarks: 0, scores: 0, parts: 3, backAgain: true };
    expect(workState(facts)).toBe('back');
    expect(workState({ ...facts, remarks: 1 })).toBe('begun');
  });

  it('where nothing is to be scored, nobody can tell whether it is ready', () => {
    expect(workState({ returnedAt: null, remarks: 9, scores: 0, parts: 0, backAgain: false })).toBe('begun');
  });
});

describe('isLate', () => {
  it('is later than due, in whatever time zone it is written', () => {
    expect(isLate('2026-01-01T12:00:01Z', '2026-01-01T13:00:00+01:00')).toBe(true);
    expect(isLate('2026-01-01T12:00:00Z', '2026-01-01T13:00:00+01:00')).toBe(false);
    expect(isLate('2026-01-01T12:00:00Z', null)).toBe(false);
  });
});
