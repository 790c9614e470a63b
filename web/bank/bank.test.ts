// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import type { BankedRemark } from '#contract/bank';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { nextTick } from 'vue';
import { mountInApp, recordingOf, remarkOf } from '../testing/mount.ts';

const call = vi.hoisted(() => vi.fn());
vi.mock('../session/api.ts', async (original) => ({ ...(await original<object>()), call }));
const keep = vi.fn<(change: object) => Promise<void>>(() => Promise.resolve());
const setSound = vi.fn(() => Promise.resolve());
vi.mock('./use-bank-actions.ts', () => ({ useBankActions: () => ({ keep, recordings: { setSound } }) }));
const cut = { sound: 'cut', edit: 'edit' };
const cutWords = vi.fn((_recording: object, _struck: readonly number[]) => Promise.resolve(cut));
vi.mock('./cut-words.ts', () => ({ cutWords }));

const { aroundOf } = await import('./around.ts');
const { BankChange, touchedInBank } = await import('./bank-changes.ts');
const { default: BankPicker } = await import('./BankPicker.vue');
const { gapOf } = await import('./greet.ts');
const { nameFor } = await import('./keep-draft.ts');
const { default: KeepForm } = await import('./KeepForm.vue');
const { reasonWords } = await import('./reason-words.ts');
const { default: SaidBefore } = await import('./SaidBefore.vue');
const { useBankPicker, withKeys } = await import('./use-bank-picker.ts');

const words = (text: string) => text.split(' ').map((word, index) => ({ word, start: index, end: index + 0.8 }));
const transcript = (text: string) => ({
  ...{
    language: 'en',
    text,
    words: words(text),
    source: 'person' as const,
    engine: '',
    approximate: false,
    read: true,
  },
});
const banked = (id: string, more: Partial<BankedRemark> = {}): BankedRemark => ({
  ...{
    id,
    name: id,
    text: '',
    link: null,
    reaction: null,
    suggestion: null,
    tags: [],
    description: '',
    kind: 'repair',
  },
  ...{ criterion: '', gap: null, uses: 0, lastUsedAt: null, heard: 0, answered: 0, language: 'en', pinned: null },
  ...{ owner: { id: 'me', name: 'Me' }, shared: { courses: [], people: [] }, lendsVoice: false },
  ...{ recording: null, madeAt: '2026-01-01T10:00:00Z', asideAt: null },
  ...more,
});

beforeEach(() => {
  for (const mock of [call, keep, setSound, cutWords]) mock.mockClear();
});

describe('withKeys', () => {
  const found = [banked('a'), banked('b', { pinned: 1 }), banked('c')].map((remark) => ({ remark, reasons: [] }));

  it('who is pinned keeps their digit, the others get those that are left', () => {
    expect(withKeys(found, true).map(({ key }) => key)).toEqual([2, 1, 3]);
    expect(withKeys(found, false).map(({ key }) => key)).toEqual([undefined, undefined, undefined]);
  });

  it('there are nine digits', () => {
    const many = Array.from({ length: 12 }, (_, index) => ({ remark: banked(`${index}`), reasons: [] }));
    expect(withKeys(many, true).map(({ key }) => key)).toEqual([
      1,
      2,
      3,
      4,
      5,
      6,
      7,
      8,
      9,
      undefined,
      undefined,
      undefined,
    ]);
  });
});

describe('nameFor', () => {
  it.each([
    [{ name: 'Mine', text: 'x' }, 'Mine'],
    [{ text: 'Name your source. And the year.' }, 'Name your source'],
    [{ text: 'This is a sentence that goes on and on, without an end' }, 'This is a sentence that goes on …'],
    [{ recording: recordingOf({ transcript: transcript('Where from? Say it.') }), text: 'y' }, 'Where from?'],
    [{ text: '' }, ''],
  ])('%j', (remark, name) => {
    expect(nameFor({ name: '', recording: null, ...remark })).toBe(name);
  });
});

describe('what is known of a place and of a gap', () => {
  it('a passage with what stands around it, at the ends of the work too', () => {
    const quote = { exact: 'tide', prefix: '', suffix: '' };
    expect(aroundOf({ text: 'The tide turns.' }, { type: 'passage', start: 4, end: 8, quote })).toEqual({
      ...{ before: 'The ', passage: 'tide', after: ' turns.' },
    });
    expect(aroundOf({ text: 'The tide turns.' }, { type: 'whole' }).passage).toBe('');
  });

  it('the gap lies between two words, where their times are known', () => {
    const recording = recordingOf({ transcript: transcript('Look here again') });
    expect(gapOf({ gap: 1, recording })).toBeCloseTo(0.9);
    expect(gapOf({ gap: 3, recording })).toBeUndefined();
    expect(gapOf({ gap: null, recording })).toBeUndefined();
    expect(gapOf({ gap: 1, recording: recordingOf() })).toBeUndefined();
  });

  it('reasons are said in words', () => {
    expect(reasonWords({ why: 'label', label: 'source', says: 'names no source' })).toBe(
      '“source”: this passage names no source',
    );
    expect(reasonWords({ why: 'like', uses: 3 })).toContain('passages like this');
    expect(reasonWords({ why: 'often', uses: 4 })).toBe('said 4 times');
  });
});

describe('a change of the bank that is kept in the browser', () => {
  const ID = '6f0b3c0e-7d55-4f58-9a52-0d0f0a1b2c3d';
  const OTHER = '0b6a6f5e-52b1-4a3c-8a0e-1d2c3b4a5f60';

  it('waits for the remark that it keeps', () => {
    const about = { name: 'x', text: '', link: null, reaction: null, suggestion: null, tags: [], kind: 'next' };
    const rest = { criterion: '', description: '', gap: null };
    const change = BankChange.parse({
      type: 'keep',
      banked: ID,
      from: OTHER,
      recording: null,
      about: { ...about, ...rest },
    });
    expect(touchedInBank(change)).toEqual([ID, OTHER]);
  });

  it('is refused where it has lost a part', () => {
    expect(() => BankChange.parse({ type: 'mend', recording: ID })).toThrow();
  });
});

describe('BankPicker', () => {
  const place = () => ({ submission: 's', folio: { text: 'The tide.' } as never, anchor: { type: 'whole' as const } });

  async function open(found: BankedRemark[]) {
    call.mockImplementation((_endpoint: unknown, input: { body: { query?: string } }) =>
      Promise.resolve(
        input.body.query === undefined
          ? { criterion: null, suggestions: found.map((remark) => ({ remark, reasons: [] })) }
          : { remarks: found.slice(0, 1), total: 1 },
      ),
    );
    let picker!: ReturnType<typeof useBankPicker>;
    const holder = mountInApp({ setup: () => ((picker = useBankPicker(place, () => null)), () => null) }, {});
    await vi.waitFor(() => expect(picker.known.value).toBe(true));
    const view = mountInApp(BankPicker, { picker });
    await nextTick();
    return { picker, view, holder, press: (key: string) => view.get('input').trigger('keydown', { key }) };
  }
  const dropped = (view: ReturnType<typeof mountInApp>): string[] =>
    (view.emitted('drop') ?? []).map(([remark]) => (remark as BankedRemark).id);

  it('drops by digit, by Enter after going through, and by hand', async () => {
    const { view, press } = await open([banked('a'), banked('b'), banked('c')]);
    await press('2');
    await press('ArrowDown');
    await press('ArrowDown');
    await press('ArrowUp');
    await press('Enter');
    await view.findAll('.drop')[2]!.trigger('click');
    expect(dropped(view)).toEqual(['b', 'b', 'c']);
  });

  it('while something is typed a digit is a part of it, and what is found takes the place of what is likely', async () => {
    const { picker, view, press } = await open([banked('a'), banked('b')]);
    picker.query.value = 'tide';
    await vi.waitFor(() => expect(picker.choices.value).toHaveLength(1));
    await press('2');
    expect(dropped(view)).toEqual([]);
    await press('Enter');
    expect(dropped(view)).toEqual(['a']);
  });

  it('says what to do where there is nothing', async () => {
    const { view } = await open([]);
    expect(view.text()).toContain('press K');
    await view.get('input').trigger('keydown', { key: 'Enter' });
    expect(dropped(view)).toEqual([]);
  });
});

describe('KeepForm', () => {
  const said = transcript('Hello Ines, name your source.');
  const remark = remarkOf({ id: 'r', recording: recordingOf({ id: 'r', transcript: said }) });
  const form = (more: object = {}) =>
    mountInApp(KeepForm, { remark, rubric: [], names: ['Ines Bettencourt'], ...more });

  it('offers to cut a student’s name out of the copy, with the words before it', async () => {
    call.mockResolvedValue({ banked: [], said: 0 });
    const view = form();
    await vi.waitFor(() => expect(view.text()).toContain('It says “Hello Ines,”'));
    await view.get('input[type=checkbox]').setValue(true);
    await view.get('form').trigger('submit');
    await vi.waitFor(() => expect(view.emitted('kept')).toHaveLength(1));
    expect(cutWords.mock.calls[0]![1]).toEqual([0, 1]);
    const { banked: id, from } = keep.mock.calls[0]![0] as { banked: string; from: string };
    expect(from).toBe('r');
    expect(setSound).toHaveBeenCalledWith(expect.objectContaining({ id }), cut.sound, cut.edit);
  });

  it('says what is nearly the same, and puts this one in its place on wish', async () => {
    call.mockResolvedValue({ banked: [banked('old', { name: 'Where from?' })], said: 0 });
    const view = form({ names: [] });
    await vi.waitFor(() => expect(view.text()).toContain('nearly the same: “Where from?”'));
    await view.get('input[type=checkbox]').setValue(true);
    await view.get('form').trigger('submit');
    await vi.waitFor(() => expect(view.emitted('kept')).toHaveLength(1));
    expect(cutWords).not.toHaveBeenCalled();
    const merged = call.mock.calls.at(-1)!;
    expect(merged[1]).toMatchObject({ params: { banked: 'old' } });
  });
});

describe('SaidBefore', () => {
  const remark = remarkOf({ recording: null, text: 'Strike every word that you do not miss.' });

  it.each([
    [{ banked: [], said: 3 }, true],
    [{ banked: [], said: 2 }, false],
    [{ banked: [banked('x')], said: 5 }, false],
  ])('%j', async (answer, shown) => {
    call.mockResolvedValue(answer);
    const view = mountInApp(SaidBefore, { remark });
    await vi.waitFor(() => expect(call).toHaveBeenCalled());
    await nextTick();
    await nextTick();
    expect(view.text().includes('Keep it in your bank')).toBe(shown);
  });
});
