// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { describe, expect, it, vi } from 'vitest';
import { Unreachable } from '../session/api.ts';
import { feedbackOf, mountInApp, recordingOf, remarkOf } from '../testing/mount.ts';
import AsideList from './AsideList.vue';
import ReturnPanel from './ReturnPanel.vue';
import ScoreDrawer from './drawer/ScoreDrawer.vue';

describe('points for answers', () => {
  const question = { id: 'q', kind: 'long' as const, prompt: 'Why?', choices: [], points: 250 };
  const drawerOf = (points: Record<string, number> = {}) =>
    mountInApp(ScoreDrawer, { feedback: feedbackOf({ rubric: [], questions: [question], points }) });

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
    const drawer = mountInApp(ScoreDrawer, { feedback: feedbackOf({ scores: { seen: 'strong' } }) });
    expect(drawer.get('footer').text()).toBe('10 points so far; 1 of 2 criteria to score');
    await drawer.setProps({ feedback: feedbackOf({ scores: { seen: 'strong', known: 'no' } }) });
    expect(drawer.get('footer').text().replace(/\s+/g, ' ')).toContain('10 of 17.5 points');
    expect(drawer.get('footer').text()).toContain('Pass');
  });

  it('tells which level was chosen, and takes it away again', async () => {
    const drawer = mountInApp(ScoreDrawer, { feedback: feedbackOf({ scores: { seen: 'weak' } }) });
    await drawer.findAll('input[type=radio]')[3]!.setValue(true);
    await drawer.get('.clear').trigger('click');
    expect(drawer.emitted('score')).toEqual([
      ['known', 'yes'],
      ['seen', null],
    ]);
  });

  it('shows the grade as it was returned, and cannot be changed then', () => {
    const grade = { points: 100, possible: 200, percentage: 5000, grade: 'As it was' };
    const drawer = mountInApp(ScoreDrawer, {
      feedback: feedbackOf({ returnedAt: '2026-01-01T00:00:00Z', scores: { seen: 'weak', known: 'no' }, grade }),
    });
    expect(drawer.text()).toContain('As it was');
    expect(drawer.findAll('fieldset').every((fieldset) => fieldset.attributes('disabled') !== undefined)).toBe(true);
    expect(drawer.find('.clear').exists()).toBe(false);
  });

  it('names every radio button after its level', () => {
    const drawer = mountInApp(ScoreDrawer, { feedback: feedbackOf() });
    for (const label of drawer.findAll('label')) expect(label.get('.level').text()).not.toBe('');
    expect(drawer.findAll('legend').map((legend) => legend.text())).toEqual(['Observation', 'Evidence']);
  });
});

describe('ReturnPanel', () => {
  const open = async (feedback = feedbackOf(), setReturned = vi.fn(() => Promise.resolve())) => {
    const panel = mountInApp(ReturnPanel, { feedback, student: 'Amaru', setReturned });
    await panel.get('button').trigger('click');
    return { panel, setReturned, dialog: panel.get('[role=dialog]') };
  };

  it('says what the student will get, and what is missing', async () => {
    const { dialog } = await open(feedbackOf({ remarks: [remarkOf()] }));
    expect(dialog.text()).toContain('1 remark');
    expect(dialog.text()).toContain('no grade, because 2 of 2 criteria have no score');
    expect(dialog.text()).toContain('1 remark has no transcript');
    const complete = await open(feedbackOf({ scores: { seen: 'weak', known: 'no' } }));
    expect(complete.dialog.text()).toContain('the scores and the grade');
  });

  it('returns only after it was asked twice, and takes back the same way', async () => {
    const { panel, dialog, setReturned } = await open();
    expect(setReturned).not.toHaveBeenCalled();
    await dialog.findAll('button')[1]!.trigger('click');
    expect(setReturned).toHaveBeenCalledWith(true);
    await vi.waitFor(() => expect(panel.find('[role=dialog]').exists()).toBe(false));
    const back = await open(feedbackOf({ returnedAt: '2026-01-01T00:00:00Z' }));
    await back.dialog.findAll('button')[1]!.trigger('click');
    expect(back.setReturned).toHaveBeenCalledWith(false);
  });

  it('stays open with a sentence when it could not be done', async () => {
    const { dialog } = await open(
      feedbackOf(),
      vi.fn(() => Promise.reject(new Unreachable())),
    );
    await dialog.findAll('button')[1]!.trigger('click');
    await vi.waitFor(() => expect(dialog.get('[role=alert]').text()).toContain('cannot be reached'));
  });

  it('closes with Escape and with “Not now”', async () => {
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
