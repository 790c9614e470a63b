// @vitest-environment happy-dom
import { RouterLinkStub } from '@vue/test-utils';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { tokens } from '#core/transcript';
import type { Recording } from '#contract/recordings';
import type { Remark } from '#contract/remarks';
import type { Transcript } from '#contract/transcripts';
import { usePlayer } from '../player/player.ts';
import { mountInApp, recordingOf, remarkOf } from '../testing/mount.ts';
import FoundText from './FoundText.vue';
import SearchHit from './SearchHit.vue';

const TEXT = 'When you write that a reason is obvious, the reader stops looking.';
const TRANSCRIPT: Transcript = {
  ...{ language: 'en', text: TEXT, source: 'person', engine: '', approximate: false, read: true },
  words: tokens(TEXT).map(({ text }, index) => ({ word: text, start: index, end: index + 0.9 })),
};
const spoken = (change: Partial<Remark> = {}, recording: Partial<Recording> = {}): Remark =>
  remarkOf({ recording: recordingOf({ id: 'remark', transcript: TRANSCRIPT, ...recording }), ...change });
const hit = (remark: Remark, find: string) =>
  mountInApp(
    SearchHit,
    { remark, find, submission: 'work', student: 'Amaru Quispe', assignment: 'A walk', route: 'desk' },
    { RouterLink: RouterLinkStub },
  );

beforeEach(() => {
  vi.restoreAllMocks();
  vi.spyOn(HTMLMediaElement.prototype, 'play').mockResolvedValue();
});

describe('a hit of the search', () => {
  it('marks its words, and plays from them', async () => {
    const view = hit(spoken(), 'reader stop');
    expect(view.findAll('.found').map((word) => word.text())).toEqual(['reader', 'stops']);
    await view.get('button').trigger('click');
    expect([usePlayer().current.value, usePlayer().position.value]).toEqual(['remark', 9]);
  });

  it('plays from the beginning where the words are only written', async () => {
    const view = hit(spoken({ name: 'Wrack zones' }), 'wrack');
    expect(view.findAll('.found').map((word) => word.text())).toEqual(['Wrack']);
    await view.get('button').trigger('click');
    expect(usePlayer().position.value).toBe(0);
  });

  it('shows a translation only where it has the words, and words without times too', () => {
    const translations = [{ language: 'es', text: 'El lector deja de mirar.', source: 'person' as const, engine: '' }];
    expect(hit(spoken({}, { translations }), 'reader').text()).not.toContain('lector');
    const spanish = hit(spoken({}, { translations }), 'LECTOR');
    expect(spanish.get('[lang=es]').findAll('.found')).toHaveLength(1);
    const untimed = hit(spoken({}, { transcript: { ...TRANSCRIPT, words: [] } }), 'reader');
    expect(untimed.get('.found').text()).toBe('reader');
  });

  it('has nothing to play where nothing was said, and opens at its place', () => {
    const written = hit(remarkOf({ recording: null, text: 'See the figure.', tags: ['sources'] }), 'sour');
    expect(written.find('button').exists()).toBe(false);
    expect(written.get('.found').text()).toBe('sources');
    expect(written.getComponent(RouterLinkStub).props().to).toEqual({
      name: 'desk',
      params: { submission: 'work' },
      hash: '#remark',
    });
  });

  it('shows what was written as text, never as markup', () => {
    const view = mountInApp(FoundText, { text: '<img src=x onerror=alert(1)> reader', find: 'img' });
    expect(view.find('img').exists()).toBe(false);
    expect(view.text()).toContain('<img src=x');
  });
});
