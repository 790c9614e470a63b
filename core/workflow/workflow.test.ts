import { describe, expect, it } from 'vitest';
import {
  isLate,
  may,
  minutesLate,
  objectOf,
  permissions,
  refusal,
  workState,
  type Action,
  type Standings,
} from './index.ts';

const strange = {
  teacher: false,
  student: false,
  author: false,
  returned: false,
  silent: false,
  opened: false,
  ...{ second: false, closed: false, blind: false },
};
const nobody: Standings = {
  course: strange,
  assignment: strange,
  submission: strange,
  remark: strange,
  recording: { ...strange, holder: 'remark', owner: false },
  note: strange,
  moderation: { teacher: false, marker: false, finished: false },
  handout: strange,
  banked: { owner: false, shared: false },
  person: { steward: false, other: true, own: false },
  stamp: { owner: false },
  upload: { owner: false },
};
const everywhere = (standing: Partial<Standings['recording'] & typeof strange>): Standings => ({
  course: { ...nobody.course, ...standing },
  assignment: { ...nobody.assignment, ...standing },
  submission: { ...nobody.submission, ...standing },
  remark: { ...nobody.remark, ...standing },
  recording: { ...nobody.recording, ...standing },
  note: { ...nobody.note, ...standing },
  moderation: { ...nobody.moderation, ...standing },
  handout: { ...nobody.handout, ...standing },
  banked: { ...nobody.banked, ...standing },
  person: nobody.person,
  stamp: { ...nobody.stamp, ...standing },
  upload: { ...nobody.upload, ...standing },
});

const actions = Object.keys(permissions) as Action[];
const allowed = (who: Standings): Action[] => actions.filter((action) => may(who[objectOf(action)], action));

describe('permissions', () => {
  it('give a stranger nothing, ever', () => {
    expect([...allowed(nobody), ...allowed(everywhere({ returned: true, opened: true }))]).toEqual([]);
  });

  it('give a classmate only the course and their own handing in', () => {
    expect(allowed(everywhere({ student: true, returned: true }))).toEqual([
      ...['course.read', 'assignment.handIn', 'handout.read'],
    ]);
  });

  it('give the author their work, and the feedback once it is returned', () => {
    const author = { student: true, author: true };
    expect(allowed(everywhere(author))).toEqual([
      ...['course.read', 'assignment.handIn', 'work.read', 'work.receipt', 'work.withdraw', 'handout.read'],
    ]);
    expect(allowed(everywhere({ ...author, returned: true }))).toEqual([
      'course.read',
      'assignment.handIn',
      'work.read',
      'work.receipt',
      'work.ask',
      'work.marked',
      'feedback.read',
      'remark.read',
      'suggestion.take',
      'remark.dealWith',
      'reply.make',
      'thread.settle',
      'recording.hear',
      'recording.reportHeard',
      'handout.read',
    ]);
  });

  it('let the author withdraw a work until somebody has opened it', () => {
    const author = { ...nobody.submission, author: true };
    expect(refusal(author, 'work.withdraw')).toBeUndefined();
    expect(refusal({ ...author, opened: true }, 'work.withdraw')).toBe('opened');
    expect(refusal({ ...nobody.submission, teacher: true }, 'work.withdraw')).toBe('notAllowed');
  });

  it('let the teacher change what is not returned, and mend transcripts always', () => {
    const draft = ['score.choose', 'points.give', 'remark.make', 'remark.change', 'remark.putAside'] as const;
    const [before, after] = [everywhere({ teacher: true }), everywhere({ teacher: true, returned: true })];
    for (const action of [...draft, 'recording.change'] as const)
      expect([may(before[objectOf(action)], action), refusal(after[objectOf(action)], action)]).toEqual([
        true,
        'returned',
      ]);
    expect(may(after.recording, 'recording.mend')).toBe(true);
    expect(may(after.recording, 'recording.reportHeard')).toBe(false);
  });

  it('show a second marker nothing until they have handed over, and then change nothing', () => {
    const blind = { ...nobody.recording, blind: true };
    for (const action of ['feedback.read', 'work.read', 'score.choose', 'remark.read', 'recording.hear'] as const)
      expect([refusal(blind, action), action]).toEqual(['blind', action]);
    const second = { ...nobody.recording, teacher: true, second: true };
    expect([may(second, 'score.choose'), may(second, 'remark.make')]).toEqual([true, true]);
    expect(refusal(second, 'feedback.return')).toBe('notAllowed');
    expect(refusal({ ...nobody.assignment, teacher: true, second: true }, 'assignment.set')).toBe('notAllowed');
    expect(refusal({ ...second, closed: true }, 'score.choose')).toBe('closed');
    expect(refusal({ ...second, closed: true }, 'feedback.read')).toBeUndefined();
  });

  it('let teachers settle what the second marker has handed over, and not before', () => {
    const [teacher, marker] = [
      { teacher: true, marker: false, finished: false },
      { teacher: true, marker: true, finished: false },
    ];
    expect([may(teacher, 'moderation.settle'), may({ ...teacher, finished: true }, 'moderation.settle')]).toEqual([
      false,
      true,
    ]);
    expect([may(teacher, 'moderation.finish'), may(marker, 'moderation.finish')]).toEqual([false, true]);
    expect([may(teacher, 'moderation.callOff'), may(marker, 'moderation.callOff')]).toEqual([true, false]);
    expect(refusal(nobody.moderation, 'moderation.read')).toBe('unseen');
  });

  it('let whoever answered by voice mend their words, and the other side be heard to have listened', () => {
    const answer = { ...nobody.recording, holder: 'reply', returned: true } as const;
    const [own, teachers] = [
      { ...answer, author: true, owner: true },
      { ...answer, teacher: true },
    ];
    expect([may(own, 'recording.mend'), may(own, 'recording.reportHeard')]).toEqual([true, false]);
    expect([may(teachers, 'recording.mend'), may(teachers, 'recording.reportHeard')]).toEqual([true, true]);
    expect(may({ ...own, owner: false }, 'recording.mend')).toBe(false);
    expect(may(teachers, 'recording.change')).toBe(false);
  });

  it('let a steward reset everybody but another steward, and nobody else', () => {
    expect(may({ steward: true, other: true, own: false }, 'person.reset')).toBe(true);
    expect(refusal({ steward: true, other: false, own: false }, 'person.reset')).toBe('notAllowed');
    expect(refusal({ steward: false, other: true, own: false }, 'person.reset')).toBe('unseen');
    // A teacher gives slips in the course, where the entry is theirs alone.
    expect(may({ steward: false, other: true, own: true }, 'person.reset')).toBe(false);
  });

  it.each(['person.change', 'person.merge', 'person.giveSlip'] as const)(
    '%s is for whoever entered somebody, and for the steward except with stewards',
    (action) => {
      expect(may({ steward: false, other: true, own: true }, action)).toBe(true);
      expect(may({ steward: true, other: true, own: false }, action)).toBe(true);
      expect(may({ steward: true, other: false, own: false }, action)).toBe(false);
      expect(may({ steward: false, other: true, own: false }, action)).toBe(false);
    },
  );

  it('say why not, and nothing to whoever must not know', () => {
    const author = { ...nobody.submission, author: true };
    expect(refusal(author, 'feedback.read')).toBe('unseen');
    expect(refusal({ ...author, returned: true }, 'remark.make')).toBe('notAllowed');
    expect(refusal({ ...nobody.remark, teacher: true }, 'reply.make')).toBe('notReturned');
    expect(refusal({ owner: false }, 'stamp.read')).toBe('unseen');
  });
});

describe('workState', () => {
  const facts = { returnedAt: null, readyAt: null, remarks: 0, scores: 0, backAgain: false };
  const now = '2026-01-01T00:00:00Z';

  it('goes from waiting over begun and ready to returned', () => {
    expect(workState(facts)).toBe('waiting');
    expect(workState({ ...facts, scores: 1 })).toBe('begun');
    expect(workState({ ...facts, remarks: 1, scores: 3 })).toBe('begun');
    expect(workState({ ...facts, remarks: 1, readyAt: now })).toBe('ready');
    expect(workState({ ...facts, readyAt: now, returnedAt: now })).toBe('returned');
  });

  it('a work that comes back after a return is back until it is begun', () => {
    expect(workState({ ...facts, backAgain: true })).toBe('back');
    expect(workState({ ...facts, backAgain: true, remarks: 1 })).toBe('begun');
  });
});

it.each([
  ['2026-03-01T12:00:00Z', null, 0],
  ['2026-03-01T12:00:00Z', '2026-03-01T12:00:00Z', 0],
  ['2026-03-01T12:00:59.999Z', '2026-03-01T12:00:00Z', 0],
  ['2026-03-01T12:01:00Z', '2026-03-01T12:00:00Z', 1],
  ['2026-03-01T12:01:30Z', '2026-03-01T12:00:30Z', 1],
  ['2026-03-02T12:00:00Z', '2026-03-01T12:00:00+01:00', 25 * 60],
])('a work of %s that was due %s is %d minutes late', (handedInAt, dueAt, late) => {
  expect(minutesLate(handedInAt, dueAt)).toBe(late);
  expect(isLate(handedInAt, dueAt)).toBe(late > 0);
});
