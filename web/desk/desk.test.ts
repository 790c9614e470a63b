// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { describe, expect, it, vi } from 'vitest';
import { PLAIN_MARKING } from '#core/grading';
import type { Finding } from '#core/returning';
import type { Feedback } from '#contract/submissions';
import { Unreachable } from '../session/api.ts';
import { feedbackOf, mountInApp, recordingOf, remarkOf } from '../testing/mount.ts';
import AsideList from './AsideList.vue';
import { DESK } from './desk.ts';
import ReturnPanel from './ReturnPanel.vue';
import AdjustResult from './drawer/AdjustResult.vue';
import ScoreDrawer from './drawer/ScoreDrawer.vue';

const desk = { goTo: vi.fn(), score: vi.fn(), speakAbout: vi.fn(), writeAbout: vi.fn() };
const ID = '6f0b3c0e-7d55-4f58-9a52-0d0f0a1b2c3d';
const work = { id: ID, student: { id: ID, name: 'Amaru' }, assignment: { id: ID } };
const scoresOf = (feedback: Feedback) => mountInApp(ScoreDrawer, { feedback, work }, {}, { [DESK]: desk });

describe('points for answers', () => {
  const question = { id: 'q', kind: 'long' as const, prompt: 'Why?', choices: [], points: 250 };
  const drawerOf = (points: Record<string, number> = {}) =>
    scoresOf(feedbackOf({ rubric: [], questions: [question], points }));

  it('are typed with a comma or a point, given all or none, and taken away', async () => {
    const drawer = drawerOf();
    const field = drawer.get('input[inputmode=decimal]');
    await field.setValue('1,5');
    await drawer.setProps({ feedback: feedbackOf({ rubric: [], questions: [question], points: { q: 150 } }) });
    await field.setValue('');
    const [all, none] = drawer.findAll('.given button');
    await all!.trigger('click');
    await none!.trigger('click');
    expect(drawer.emitted('points')).toEqual([
      ['q', 150],
      ['q', null],
      ['q', 250],
      ['q', 0],
    ]);
    await drawer.setProps({ feedback: feedbackOf({ rubric: [], questions: [question] }) });
    expect(drawer.get('footer').text()).toContain('1 of 1 parts to score');
  });

  it.each(['3', '-1', 'two', '1.234'])('are not given as %s', async (typed) => {
    const drawer = drawerOf();
    await drawer.get('input[inputmode=decimal]').setValue(typed);
    expect(drawer.emitted('points')).toBeUndefined();
    expect(drawer.get('[role=alert]').text()).toContain('from 0 to 2.5');
  });

  it('make a grade when all are given', () => {
    expect(drawerOf({ q: 200 }).get('footer').text().replace(/\s+/g, ' ')).toContain('2 of 2.5 points');
  });
});

describe('ScoreDrawer', () => {
  it('counts points while criteria are missing, and has the grade when none is', async () => {
    const drawer = scoresOf(feedbackOf({ scores: { seen: { level: 'strong' } } }));
    expect(drawer.get('footer').text()).toBe('10 points so far; 1 of 2 criteria to score');
    await drawer.setProps({ feedback: feedbackOf({ scores: { seen: { level: 'strong' }, known: { level: 'no' } } }) });
    expect(drawer.get('footer').text().replace(/\s+/g, ' ')).toContain('10 of 17.5 points');
    expect(drawer.get('footer').text()).toContain('Pass');
  });

  it('tells which level was chosen, and takes it away again', async () => {
    const drawer = scoresOf(feedbackOf({ scores: { seen: { level: 'weak' } } }));
    await drawer.findAll('input[type=radio]')[3]!.setValue(true);
    await drawer.get('.clear').trigger('click');
    expect(drawer.emitted('score')).toEqual([
      ['known', { level: 'yes' }],
      ['seen', null],
    ]);
  });

  it('shows the grade as it was returned, and cannot be changed then', () => {
    const grade = { points: 100, possible: 200, percentage: 5000, grade: 'As it was' };
    const drawer = scoresOf(
      feedbackOf({
        returnedAt: '2026-01-01T00:00:00Z',
        scores: { seen: { level: 'weak' }, known: { level: 'no' } },
        grade,
      }),
    );
    expect(drawer.text()).toContain('As it was');
    expect(drawer.findAll('fieldset').every((fieldset) => fieldset.attributes('disabled') !== undefined)).toBe(true);
    expect(drawer.find('.clear').exists()).toBe(false);
  });

  it('names every radio button after its level', () => {
    const drawer = scoresOf(feedbackOf());
    for (const label of drawer.findAll('label')) expect(label.get('.level').text()).not.toBe('');
    expect(drawer.findAll('legend').map((legend) => legend.text())).toEqual(['Observation', 'Evidence']);
  });
});

describe('other scores', () => {
  const criterion = (feedback: Feedback, index = 0) => scoresOf(feedback).findAll('fieldset')[index]!;

  it('lie in between, where half steps are given', async () => {
    const halves = feedbackOf({ marking: { ...PLAIN_MARKING, halfSteps: true }, scores: { seen: { points: 600 } } });
    const drawer = scoresOf(halves);
    expect(
      drawer
        .findAll('fieldset')[0]!
        .findAll('.level')
        .map((one) => one.text()),
    ).toEqual(['weak', 'In between', 'strong']);
    expect(drawer.get('.chosen').text()).toContain('In between');
  });

  it('are typed, or left out', async () => {
    const drawer = scoresOf(feedbackOf());
    await drawer.get('.more button').trigger('click');
    await drawer.get('input[inputmode=decimal]').setValue('4,5');
    await drawer.get('.given button').trigger('click');
    expect(drawer.emitted('score')).toEqual([
      ['seen', { points: 450 }],
      ['seen', { notAssessed: true }],
    ]);
    expect(criterion(feedbackOf({ scores: { seen: { notAssessed: true } } })).text()).toContain(
      'left out of the result',
    );
  });

  it('are given by a digit, which leads on to the next', async () => {
    const drawer = scoresOf(feedbackOf());
    await drawer.get('input[type=radio]').trigger('keydown', { key: '2' });
    expect(drawer.emitted('score')).toEqual([['seen', { level: 'strong' }]]);
    expect(desk.score).toHaveBeenCalledWith('seen');
  });

  it('stand beside what was said about the criterion', async () => {
    const part = criterion(
      feedbackOf({ remarks: [remarkOf({ id: 'r', criterion: 'seen', text: 'You looked twice.' })] }),
    );
    await part.get('.remarks button').trigger('click');
    expect(desk.goTo).toHaveBeenCalledWith('r');
    await part.get('[aria-label^="Speak about"]').trigger('click');
    expect(desk.speakAbout).toHaveBeenCalledWith('seen');
  });

  it('explain the result, which a flag stands beside', () => {
    const scores = { seen: { level: 'strong' }, known: { level: 'yes' } };
    const late = feedbackOf({ scores, minutesLate: 90, standing: { flag: null, extendedUntil: null } });
    expect(scoresOf(late).get('footer').text()).toContain('late');
    expect(scoresOf(late).get('details p').text()).toBe('10 + 7.5 = 17.5 of 17.5, that is 100 %: Pass.');
    const excused = feedbackOf({ scores, standing: { flag: 'excused', extendedUntil: null } });
    expect(scoresOf(excused).get('footer').text()).toContain('Excused: left out of everything.');
  });
});

describe('AdjustResult', () => {
  const fill = async (whole: boolean, total: string, extra = '', reason = '') => {
    const form = mountInApp(AdjustResult, { adjustment: null, whole });
    const [first, second, third] = form.findAll('input');
    await first!.setValue(total);
    await second!.setValue(extra);
    await third?.setValue(reason);
    await form.trigger('submit');
    return form;
  };

  it('sets another total only with a reason, and a whole score without one', async () => {
    expect((await fill(false, '12', '', 'Agreed with Ruari')).emitted('adjust')).toEqual([
      [{ total: 1200, extra: null, reason: 'Agreed with Ruari' }],
    ]);
    const silent = await fill(false, '12');
    expect([silent.emitted('adjust'), silent.get('[role=alert]').text()]).toEqual([
      undefined,
      'Say why the total is another one.',
    ]);
    expect((await fill(true, '17,5', '1')).emitted('adjust')).toEqual([[{ total: 1750, extra: 100, reason: '' }]]);
  });

  it.each(['NaN', '-1', '1e3', '12.345', 'twelve'])('refuses a total of %s and changes nothing', async (typed) => {
    const form = await fill(true, typed);
    expect(form.emitted('adjust')).toBeUndefined();
    expect(form.get('[role=alert]').text()).toContain('A total is a number');
  });
});

describe('ReturnPanel', () => {
  const open = async (feedback = feedbackOf(), findings: Finding[] = []) => {
    const done = { setReturned: vi.fn(() => Promise.resolve()), setReady: vi.fn(() => Promise.resolve()) };
    const row = { submission: ID, student: 'Amaru', state: 'begun', remarks: 0, findings };
    const rows = [{ ...row, ...{ returnedAt: null, returnAt: null, held: null, grade: null } }];
    vi.stubGlobal('fetch', () => Promise.resolve(Response.json({ title: 'A', course: ID, rows })));
    const props = { feedback, work, ...done };
    const panel = mountInApp(ReturnPanel, props, { RouterLink: { template: '<a><slot /></a>' } }, { [DESK]: desk });
    await panel.get('button').trigger('click');
    const button = (name: string) =>
      panel
        .get('[role=dialog]')
        .findAll('button')
        .find((one) => one.text().includes(name))!;
    return { panel, ...done, dialog: panel.get('[role=dialog]'), button };
  };

  it('says what the student will get, and what is missing', async () => {
    const { dialog } = await open(feedbackOf({ remarks: [remarkOf()] }));
    expect(dialog.text()).toContain('1 remark');
    expect(dialog.text()).toContain('no grade. Not scored yet: Observation, Evidence.');
    const complete = await open(feedbackOf({ scores: { seen: { level: 'weak' }, known: { level: 'no' } } }));
    expect(complete.dialog.text()).toContain('the scores and the grade');
  });

  it('shows what one may want to mend, and leads there', async () => {
    const { panel, dialog } = await open(feedbackOf(), [{ type: 'otherName', remark: ID, name: 'Ines' }]);
    await vi.waitFor(() => expect(dialog.text()).toContain('“Ines”, which is another student’s name'));
    await dialog.get('.mend').trigger('click');
    expect(desk.goTo).toHaveBeenLastCalledWith(ID);
    expect(panel.find('[role=dialog]').exists()).toBe(false);
  });

  it('returns only after it was asked twice, says that it is ready, and takes back the same way', async () => {
    const { panel, button, setReturned, setReady } = await open();
    expect(setReturned).not.toHaveBeenCalled();
    await button('Return to Amaru').trigger('click');
    expect(setReturned).toHaveBeenCalledWith(true);
    await vi.waitFor(() => expect(panel.find('[role=dialog]').exists()).toBe(false));
    const later = await open();
    await later.button('Ready').trigger('click');
    expect([later.setReady.mock.calls, setReady.mock.calls]).toEqual([[[true]], []]);
    const back = await open(feedbackOf({ returnedAt: '2026-01-01T00:00:00Z' }));
    await back.button('Take back').trigger('click');
    expect(back.setReturned).toHaveBeenCalledWith(false);
  });

  it('stays open with a sentence when it could not be done', async () => {
    const { dialog, button, setReturned } = await open();
    setReturned.mockRejectedValueOnce(new Unreachable());
    await button('Return to Amaru').trigger('click');
    await vi.waitFor(() => expect(dialog.get('[role=alert]').text()).toContain('cannot be reached'));
  });

  it('closes with Escape', async () => {
    const { panel, dialog } = await open();
    await dialog.trigger('keydown', { key: 'Escape' });
    expect(panel.find('[role=dialog]').exists()).toBe(false);
  });
});

const SPOKEN = {
  ...{ language: 'en', text: 'Say why, and how.', words: [], source: 'person' as const },
  ...{ engine: '', approximate: true, read: true },
};

describe('AsideList', () => {
  it('tells what was put aside, and brings it back', async () => {
    const remarks = [
      remarkOf({ id: 'a' }),
      remarkOf({ id: 'b', anchor: { type: 'whole' } }),
      remarkOf({ id: 'c', recording: recordingOf({ transcript: SPOKEN }) }),
    ];
    const list = mountInApp(AsideList, { remarks });
    expect(list.get('summary').text()).toBe('Put aside: 3');
    expect(list.findAll('.name').map((name) => name.text())).toEqual([
      'On “turned”',
      'On the whole work',
      'Say why, and how.',
    ]);
    await list.findAll('button')[1]!.trigger('click');
    expect(list.emitted('back')).toEqual([[remarks[1]]]);
  });

  it('is not there when nothing was', () => {
    expect(mountInApp(AsideList, { remarks: [] }).text()).toBe('');
  });
});
