// @vitest-environment happy-dom
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { effectScope } from 'vue';
import { tokens, type Transcript } from '#core/transcript';
import { mountInApp, recordingOf } from '../testing/mount.ts';
import { usePlayer } from '../player/player.ts';
import { useReadingLanguage, wordsIn } from './language.ts';
import TranscriptText from './TranscriptText.vue';
import { useCaptions, useCaptionsShown } from './use-captions.ts';
import { languageName } from '../wording/format.ts';

const transcriptOf = (text: string, change: Partial<Transcript> = {}): Transcript => ({
  ...{ language: 'en', text, source: 'machine', engine: 'PocketSphinx', approximate: false, read: false },
  words: tokens(text).map(({ text: word }, index) => ({ word, start: index, end: index + 0.9, confidence: 0.9 })),
  ...change,
});
const player = usePlayer();

beforeEach(() => {
  vi.spyOn(HTMLMediaElement.prototype, 'play').mockResolvedValue();
  player.stop();
  useReadingLanguage().value = '';
});

describe('the words of a recording', () => {
  const show = (transcript: Transcript, live = true) =>
    mountInApp(TranscriptText, { id: 'remark', url: '/sound', transcript, live });

  it('play from the one that is pressed, which lights up', async () => {
    const view = show(transcriptOf('look at this again'));
    await view.findAll('.word')[2]!.trigger('click');
    expect([player.current.value, player.position.value]).toEqual(['remark', 2]);
    player.position.value = 3.5;
    await view.vm.$nextTick();
    expect(view.findAll('.now').map((word) => word.text())).toEqual(['again']);
  });

  it('look like a draft, with the doubtful ones marked, until they were read', () => {
    const [first, ...others] = transcriptOf('sure doubtful').words;
    const words = [first!, { ...others[0]!, confidence: 0.1 }];
    const draft = show(transcriptOf('sure doubtful', { words }));
    expect(draft.find('.draft').exists()).toBe(true);
    expect(draft.findAll('.doubtful').map((word) => word.text())).toEqual(['doubtful']);
    const read = show(transcriptOf('sure doubtful', { words, read: true }));
    expect([read.find('.draft').exists(), read.findAll('.doubtful')]).toEqual([false, []]);
  });

  it('scroll in a box of their own where they are many, and the one that is said comes into sight', async () => {
    const words = Array.from({ length: 900 }, (_, index) => `word${index}`).join(' ');
    expect(show(transcriptOf('a few')).get('.words').attributes('tabindex')).toBeUndefined();
    const box = show(transcriptOf(words)).get<HTMLElement>('.words.long');
    expect(box.attributes('tabindex')).toBe('0');
    const word = box.findAll<HTMLElement>('.word')[700]!;
    Object.defineProperty(box.element, 'clientHeight', { value: 400 });
    Object.defineProperty(word.element, 'offsetTop', { value: 5000 });
    await word.trigger('click');
    player.position.value = 700.5;
    await vi.waitFor(() => expect(box.element.scrollTop).toBe(4900));
  });

  it('stand there as a whole where they cannot be pressed, or have no times', () => {
    expect(show(transcriptOf('some words'), false).findAll('.word')).toEqual([]);
    const untimed = show(transcriptOf('some words', { words: [] }));
    expect([untimed.findAll('.word'), untimed.text()]).toEqual([[], 'some words']);
  });
});

describe('captions', () => {
  const translations = [{ language: 'ar', text: 'انظر مرة أخرى', source: 'person' as const, engine: '' }];
  const filmed = recordingOf({
    id: 'remark',
    sound: { sha256: 'a'.repeat(64), duration: 4, peaks: [], picture: 'camera' },
    transcript: transcriptOf('look at this again'),
    translations,
  });
  const captionsOf = (recording = filmed) => effectScope().run(() => useCaptions(() => recording))!.captions;

  it('are there while their remark plays, at their time', async () => {
    const captions = captionsOf();
    expect(captions.value).toBeUndefined();
    await player.playFrom('remark', '/sound', 1);
    expect(captions.value).toMatchObject({ language: 'en', lines: [expect.stringContaining('look at this')] });
  });

  it('follow the language that the reader picks', async () => {
    useReadingLanguage().value = 'ar';
    const captions = captionsOf();
    await player.playFrom('remark', '/sound', 1);
    expect(captions.value).toEqual({ language: 'ar', lines: ['انظر مرة أخرى'] });
    useReadingLanguage().value = 'fr';
    expect(captions.value?.language).toBe('en');
  });

  it('are not shown where nobody wants them, and stand whole where words have no times', async () => {
    await player.playFrom('remark', '/sound', 1);
    useCaptionsShown().value = false;
    expect(captionsOf(filmed).value).toBeUndefined();
    useCaptionsShown().value = true;
    const untimed = captionsOf({ ...filmed, transcript: { ...filmed.transcript!, words: [] } });
    expect(untimed.value?.lines).toEqual(['look at this again']);
  });

  it('are in the spoken language where the wanted one is missing', () => {
    expect(wordsIn(filmed, 'ar')?.text).toBe('انظر مرة أخرى');
    expect(wordsIn(filmed, 'de')).toBe(filmed.transcript);
    expect([languageName('ar'), languageName('not a tag')]).toEqual(['Arabic', 'not a tag']);
  });
});
