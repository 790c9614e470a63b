// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import type { Transcript } from '#core/transcript';
import type { Recording } from '#contract/recordings';
import type { VueWrapper } from '@vue/test-utils';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { nextTick } from 'vue';
import { usePlayer } from '../player/player.ts';
import { mountInApp, recordingOf } from '../testing/mount.ts';
import { RECORDING_ACTIONS } from './recording-actions.ts';
import RecordingView from './RecordingView.vue';
import TranscriptField from './TranscriptField.vue';
import WordCutter from './WordCutter.vue';

const actions = { mend: vi.fn(), listenAgain: vi.fn(), languageOf: () => 'en' };
const provided = { [RECORDING_ACTIONS as symbol]: actions };
beforeEach(() => {
  actions.mend.mockReset();
  actions.listenAgain.mockReset();
});

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
  const fieldOf = (id: string, change: Partial<Recording> = {}) =>
    mountInApp(TranscriptField, { recording: recordingOf({ id, transcript, ...change }), focused: true }, {}, provided);
  const selected = (field: VueWrapper): string => {
    const { value, selectionStart, selectionEnd } = field.get('textarea').element as HTMLTextAreaElement;
    return value.slice(selectionStart, selectionEnd);
  };
  const open = async (field: VueWrapper): Promise<void> => {
    await field.get('[aria-label="Correct the transcript"]').trigger('click');
    await nextTick();
  };
  vi.spyOn(HTMLMediaElement.prototype, 'play').mockResolvedValue(undefined);

  it('looks like a draft until somebody has read it', async () => {
    const field = fieldOf('a');
    expect(field.text()).toContain('draft by An engine, not read yet');
    expect(field.findAll('.doubtful').map((word) => word.text())).toEqual(['wye,', 'how.']);
    await field.get('[aria-label="I have read this transcript"]').trigger('click');
    expect(actions.mend.mock.calls).toEqual([[expect.anything(), { text: transcript.text, read: true }]]);
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
    expect(actions.mend.mock.calls).toEqual([[expect.anything(), { text: 'Say why, and how.', read: true }]]);
    expect(field.find('textarea').exists()).toBe(false);
  });

  it('says nothing where nothing changed', async () => {
    const field = fieldOf('d');
    await open(field);
    await field.get('textarea').trigger('blur');
    expect(actions.mend).not.toHaveBeenCalled();
  });

  it('forgets what was typed with Escape', async () => {
    const field = fieldOf('e', { transcript: null });
    expect(field.text()).toContain('No transcript yet');
    await field.get('button').trigger('click');
    await field.get('textarea').setValue('oh');
    await field.get('textarea').trigger('keydown', { key: 'Escape' });
    expect(field.find('textarea').exists()).toBe(false);
    expect(actions.mend).not.toHaveBeenCalled();
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
    expect(running.text()).toContain('Listening for the words … 41%');
    const speech = { task: 'transcribe', state: 'failed', reason: 'No speech was made out.', progress: null } as const;
    const failed = fieldOf('h', { transcript: null, speech });
    expect(failed.text()).toContain('No speech was made out.');
    await failed.get('[aria-label="Try the transcript again"]').trigger('click');
    expect(actions.listenAgain).toHaveBeenCalledOnce();
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
    const cutter = mountInApp(WordCutter, { recording: recordingOf({ id: 'w', transcript: spoken }) }, {}, provided);
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
    const cutter = mountInApp(WordCutter, { recording: recordingOf({ id: 'x' }) }, {}, provided);
    expect(cutter.text()).toContain('no transcript with word timing yet');
    vi.unstubAllGlobals();
  });
});

describe('RecordingView', () => {
  it('plays and reads for whoever listens, without anything to mend', () => {
    const view = mountInApp(RecordingView, {
      recording: recordingOf({ id: 'r1', transcript }),
      label: 'the answer',
      live: true,
    });
    expect(view.get('button').attributes('aria-label')).toBe('Play the answer');
    expect(view.text()).toContain('Say wye, and how.');
    expect(view.find('[aria-label="Correct the transcript"]').exists()).toBe(false);
    const bare = mountInApp(RecordingView, { recording: recordingOf({ id: 'r2' }), label: 'x' });
    expect(bare.text()).toContain('There is no transcript yet');
  });

  it('mends and cuts for whoever may, in the waveform or by words', async () => {
    const props = {
      recording: recordingOf({ id: 'r3', transcript }),
      label: 'x',
      live: true,
      mendable: true,
      cutting: true,
    };
    const view = mountInApp(RecordingView, props, { SoundEditor: { template: '<p>waveform</p>' } }, provided);
    await vi.waitFor(() => expect(view.find('[aria-label="Correct the transcript"]').exists()).toBe(true));
    const ways = view.get('[aria-label="How to cut"]').findAll('button');
    expect(ways.map((way) => way.text())).toEqual(['Cut in the waveform', 'Cut by words']);
    await ways[1]!.trigger('click');
    await vi.waitFor(() => expect(view.find('[aria-label="Cut by words"]').exists()).toBe(true));
  });
});
