// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import type { Transcript } from '#core/transcript';
import type { Remark } from '#contract/remarks';
import type { VueWrapper } from '@vue/test-utils';
import { describe, expect, it, vi } from 'vitest';
import { nextTick } from 'vue';
import { usePlayer } from '../player/player.ts';
import { Unreachable } from '../session/api.ts';
import { feedbackOf, mountInApp, remarkOf } from '../testing/mount.ts';
import AsideList from './AsideList.vue';
import ReturnPanel from './ReturnPanel.vue';
import ScoreDrawer from './drawer/ScoreDrawer.vue';
import TranscriptField from '../remark/TranscriptField.vue';
import WordCutter from '../remark/WordCutter.vue';

const transcript: Transcript = {
  language: 'en',
  text: 'Say wye, and how.',
  words: [
    { word: 'Say', start: 0, end: 0.4, confidence: 0.9 },
    { word: 'wye,', start: 0.4, end: 0.8, confidence: 0.2 },
    { word: 'and', start: 1, end: 1.2, confidence: 0.9 },
    { word: 'how.', start: 1.2, end: 1.6, confidence: 0.1 },
  ],
  source: 'machine',
  engine: 'An engine',
  approximate: false,
  read: false,
};

describe('TranscriptField', () => {
  const fieldOf = (id: string, change: Partial<Remark> = {}) =>
    mountInApp(TranscriptField, { remark: remarkOf({ id, transcript, ...change }), focused: true });
  const selected = (field: VueWrapper): string => {
    const { value, selectionStart, selectionEnd } = field.get('textarea').element as HTMLTextAreaElement;
    return value.slice(selectionStart, selectionEnd);
  };
  const open = async (field: VueWrapper): Promise<void> => {
    await field.get('[aria-label="Mend the transcript"]').trigger('click');
    await nextTick();
  };
  vi.spyOn(HTMLMediaElement.prototype, 'play').mockResolvedValue(undefined);

  it('looks like a draft until somebody has read it', async () => {
    const field = fieldOf('a');
    expect(field.text()).toContain('draft by An engine, not read yet');
    expect(field.findAll('.doubtful').map((word) => word.text())).toEqual(['wye,', 'how.']);
    await field.get('[aria-label="I have read this transcript"]').trigger('click');
    expect(field.emitted('mend')).toEqual([[{ text: transcript.text, read: true }]]);
    const read = fieldOf('b', { transcript: { ...transcript, read: true } });
    expect(read.text()).not.toContain('draft');
    expect(read.findAll('.doubtful')).toEqual([]);
  });

  it('goes from doubtful word to doubtful word, plays each, and is read at the end', async () => {
    const field = fieldOf('c');
    await open(field);
    const text = field.get('textarea');
    expect(selected(field)).toBe('wye,');
    expect(usePlayer().position.value).toBeCloseTo(0.05);
    await text.setValue('Say why, and how.');
    (text.element as HTMLTextAreaElement).setSelectionRange(7, 7);
    await text.trigger('keydown', { key: 'Enter' });
    expect(selected(field)).toBe('how.');
    await text.trigger('keydown', { key: 'Enter', shiftKey: true });
    expect(selected(field), 'a word that was typed is not doubted').toBe('how.');
    await text.trigger('keydown', { key: 'Enter', ctrlKey: true });
    expect(field.emitted('mend')).toEqual([[{ text: 'Say why, and how.', read: true }]]);
    expect(field.find('textarea').exists()).toBe(false);
  });

  it('says nothing where nothing changed', async () => {
    const field = fieldOf('d');
    await open(field);
    await field.get('textarea').trigger('blur');
    expect(field.emitted('mend')).toBeUndefined();
  });

  it('forgets what was typed with Escape', async () => {
    const field = fieldOf('e', { transcript: null });
    expect(field.text()).toContain('No transcript yet');
    await field.get('button').trigger('click');
    await field.get('textarea').setValue('oh');
    await field.get('textarea').trigger('keydown', { key: 'Escape' });
    expect([field.find('textarea').exists(), field.emitted('mend')]).toEqual([false, undefined]);
  });

  it('has what was being typed again after the page was closed', async () => {
    const field = fieldOf('f', { transcript: null });
    await field.get('button').trigger('click');
    await field.get('textarea').setValue('half a sen');
    await vi.waitFor(() => expect(localStorage.getItem('transcript:f')).toContain('half a sen'));
    const again = fieldOf('f', { transcript: null });
    expect(again.get('textarea').element.value).toBe('half a sen');
  });

  it('says how far listening is, and why it failed', async () => {
    const running = fieldOf('g', {
      transcript: null,
      speech: { task: 'transcribe', state: 'running', reason: null, progress: 0.414 },
    });
    expect(running.text()).toContain('Listening for the words … 41 %');
    const speech = { task: 'transcribe', state: 'failed', reason: 'No speech was made out.', progress: null } as const;
    const failed = fieldOf('h', { transcript: null, speech });
    expect(failed.text()).toContain('No speech was made out.');
    await failed.get('[aria-label="Try to make the transcript again"]').trigger('click');
    expect(failed.emitted('again')).toHaveLength(1);
  });
});

describe('cutting by words', () => {
  const spoken = {
    ...transcript,
    words: transcript.words.map((word, index) => (index === 2 ? { ...word, word: 'um' } : word)),
  };

  it('offers what says nothing, strikes words and takes them back', async () => {
    vi.stubGlobal('AudioEncoder', vi.fn());
    vi.stubGlobal('Worker', vi.fn());
    const cutter = mountInApp(WordCutter, { remark: remarkOf({ id: 'w', transcript: spoken }) });
    const struck = (): string[] => cutter.findAll('.struck').map((word) => word.text());
    await cutter
      .findAll('button')
      .find((button) => button.text() === 'Strike 1 “um”')!
      .trigger('click');
    expect(struck()).toEqual(['um']);
    const word = (text: string) => cutter.findAll('.word').find((one) => one.text() === text)!;
    await word('Say').trigger('click');
    await word('wye,').trigger('click', { shiftKey: true });
    expect(struck()).toEqual(['Say', 'wye,', 'um']);
    await word('um').trigger('click');
    expect(struck()).toEqual(['Say', 'wye,']);
    await cutter.get('[aria-label=Undo]').trigger('click');
    expect(struck()).toEqual(['Say', 'wye,', 'um']);
    vi.unstubAllGlobals();
  });

  it('needs words with times', () => {
    vi.stubGlobal('AudioEncoder', vi.fn());
    vi.stubGlobal('Worker', vi.fn());
    const cutter = mountInApp(WordCutter, { remark: remarkOf({ id: 'x' }) });
    expect(cutter.text()).toContain('There are no words with times yet');
    vi.unstubAllGlobals();
  });
});

describe('points for answers', () => {
  const question = { id: 'q', kind: 'long' as const, prompt: 'Why?', choices: [], points: 250 };
  const drawerOf = (points: Record<string, number> = {}) =>
    mountInApp(ScoreDrawer, { feedback: feedbackOf({ rubric: [], questions: [question], points }) });

  it('are typed with a comma or a point, given all or none, and taken away', async () => {
    const drawer = drawerOf();
    const field = drawer.get('input[inputmode=decimal]');
    await field.setValue('1,5');
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
    await drawer.findAll('input[type=radio]')[3]!.trigger('change');
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
    expect(dialog.text()).toContain('no grade, since 2 of 2 criteria are not scored');
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

describe('AsideList', () => {
  it('tells what was put aside, and brings it back', async () => {
    const remarks = [
      remarkOf({ id: 'a' }),
      remarkOf({ id: 'b', anchor: { type: 'whole' } }),
      remarkOf({ id: 'c', transcript }),
    ];
    const list = mountInApp(AsideList, { remarks });
    expect(list.get('summary').text()).toBe('Put aside: 3');
    expect(list.findAll('.name').map((name) => name.text())).toEqual([
      'On “turned”',
      'On the whole work',
      'Say wye, and how.',
    ]);
    await list.findAll('button')[1]!.trigger('click');
    expect(list.emitted('back')).toEqual([[remarks[1]]]);
  });

  it('is not there when nothing was', () => {
    expect(mountInApp(AsideList, { remarks: [] }).text()).toBe('');
  });
});
