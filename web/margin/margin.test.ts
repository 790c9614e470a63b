// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { h, nextTick, type FunctionalComponent } from 'vue';
import { mountInApp, remarkOf } from '../testing/mount.ts';
import { DEFAULT_KEY } from '#core/margin';
import { keyStyles } from '../feedback/margin-key.ts';
import { usePlayer } from '../player/player.ts';
import { useSession } from '../session/session.ts';
import { marginEntries } from './entries.ts';
import KindLine from './KindLine.vue';
import type { MarginEntry } from './entries.ts';
import MarginColumn from './MarginColumn.vue';
import ReplyBox from '../replies/ReplyBox.vue';
import ReplyThread from '../replies/ReplyThread.vue';
import RibbonFrame from './RibbonFrame.vue';
import WaveForm from '../player/WaveForm.vue';

useSession().person = { id: 'student', name: 'Student', teaches: false, learns: true };
// The simulated page has no fonts of its own to wait for.
Object.defineProperty(document, 'fonts', { value: { ready: Promise.resolve() } });
beforeEach(() => localStorage.clear());

describe('the margin key', () => {
  it('tells kinds apart without colour: by name, glyph and line', () => {
    for (const part of ['name', 'glyph'] as const)
      expect(new Set(DEFAULT_KEY.map((entry) => entry[part])).size).toBe(DEFAULT_KEY.length);
    const lines = DEFAULT_KEY.map(({ kind }) => mountInApp(KindLine, { kind }).html());
    expect(new Set(lines).size).toBe(DEFAULT_KEY.length);
    expect(keyStyles(DEFAULT_KEY)).toContain(
      '.kind-repair { --kind: rgb(var(--v-theme-vermilion)); --kind-line: wavy;',
    );
  });
});

describe('marginEntries', () => {
  it('stand in reading order, the whole work first', () => {
    const at = (id: string, start: number) =>
      remarkOf({
        id,
        anchor: { type: 'passage', start, end: start + 1, quote: { exact: 'x', prefix: '', suffix: '' } },
      });
    const folio = { text: 'x'.repeat(30), leaves: [] };
    const entries = marginEntries(folio, [at('b', 20), at('a', 3), remarkOf({ id: 'w', anchor: { type: 'whole' } })]);
    expect(entries.map(({ id }) => id)).toEqual(['w', 'a', 'b']);
  });
});

const passage = (start: number, end: number) => ({
  type: 'passage' as const,
  start,
  end,
  quote: { exact: 'x', prefix: '', suffix: '' },
});

const measured = async (): Promise<void> => {
  await new Promise(requestAnimationFrame);
  await nextTick();
};

describe('MarginColumn', () => {
  it('draws of hundreds those that are near, and those that were at hand', async () => {
    let see: (changes: { target: Element; isIntersecting: boolean }[]) => void = () => undefined;
    vi.stubGlobal(
      'IntersectionObserver',
      class {
        constructor(callback: typeof see) {
          see = callback;
        }
        observe = vi.fn();
        unobserve = vi.fn();
        disconnect = vi.fn();
      },
    );
    const entries = Array.from({ length: 200 }, (_, index) => ({
      id: `r${index}`,
      kind: 'next' as const,
      anchor: passage(index, index + 1),
    }));
    const folio = document.createElement('article');
    vi.spyOn(HTMLElement.prototype, 'getBoundingClientRect').mockReturnValue(new DOMRect(0, 0, 0, 60));
    const named: FunctionalComponent = (_, { attrs }) =>
      h(MarginColumn, attrs as never, { default: ({ entry }: { entry: MarginEntry }) => entry.id });
    const column = mountInApp(named, { entries, folio, focused: 'r7' });
    const drawn = (): string[] =>
      column
        .findAll('.entry')
        .map((one) => one.text())
        .filter((text) => text !== '');
    await measured();
    expect(drawn()).toEqual(['r7']);
    const places = column.findAll('.entry').map(({ element }) => element);
    // Like the one that was drawn.
    expect((places[0] as HTMLElement).style.height).toBe('60px');
    see(places.slice(0, 3).map((target) => ({ target, isIntersecting: true })));
    await nextTick();
    expect(drawn()).toEqual(['r0', 'r1', 'r2', 'r7']);
    await column.setProps({ focused: 'r1' });
    see(places.slice(0, 3).map((target) => ({ target, isIntersecting: false })));
    await nextTick();
    expect(drawn()).toEqual(['r1', 'r7']);
    await column.setProps({ entries: entries.slice(0, 5) });
    expect(drawn()).toEqual(['r0', 'r1', 'r2', 'r3', 'r4']);
    vi.unstubAllGlobals();
    vi.restoreAllMocks();
  });

  it('places entries level with the lines of their passages, below each other where they would overlap', async () => {
    const folio = document.createElement('article');
    folio.innerHTML =
      '<mark data-remarks="a">one</mark><mark data-remarks="a b">two</mark><mark data-remarks="b">three</mark>';
    const tops: Record<string, number> = { one: 100, two: 110, three: 300 };
    vi.spyOn(Element.prototype, 'getClientRects').mockImplementation(function (this: Element) {
      const top = tops[this.textContent!]!;
      return [{ top, bottom: top + 20, left: 0, right: 50 }] as unknown as DOMRectList;
    });
    vi.spyOn(HTMLElement.prototype, 'getBoundingClientRect').mockReturnValue(new DOMRect(0, 0, 0, 60));
    const entries = [
      { id: 'a', kind: 'next' as const, anchor: passage(0, 3) },
      { id: 'b', kind: 'repair' as const, anchor: passage(5, 8) },
    ];
    const column = mountInApp(MarginColumn, { entries, folio, focused: 'b' });
    await measured();
    const placed = column.findAll<HTMLElement>('.entry').map(({ element }) => element.style.marginTop);
    expect(placed).toEqual(['40px', '10px']);
    expect(column.findAll('path').map((path) => path.classes())).toEqual([['kind-next'], ['kind-repair', 'focused']]);
    vi.restoreAllMocks();
  });

  it('asks for room above where the ribbon in focus leaves those before it none', async () => {
    const folio = document.createElement('article');
    folio.innerHTML = '<mark data-remarks="a">one</mark><mark data-remarks="b">two</mark>';
    vi.spyOn(Element.prototype, 'getClientRects').mockImplementation(function (this: Element) {
      const top = this.textContent === 'one' ? 0 : 15;
      return [{ top, bottom: top + 20, left: 0, right: 50 }] as unknown as DOMRectList;
    });
    vi.spyOn(HTMLElement.prototype, 'getBoundingClientRect').mockReturnValue(new DOMRect(0, 0, 0, 60));
    const entries = [
      { id: 'a', kind: 'next' as const, anchor: passage(0, 3) },
      { id: 'b', kind: 'repair' as const, anchor: passage(5, 8) },
    ];
    const column = mountInApp(MarginColumn, { entries, folio, focused: 'b' });
    await measured();
    const placed = column.findAll<HTMLElement>('.entry').map(({ element }) => element.style.marginTop);
    expect(placed).toEqual(['-55px', '10px']);
    expect(column.emitted('lift')).toEqual([[55]]);
    await column.setProps({ focused: 'a' });
    expect(column.emitted('lift')).toEqual([[55], [0]]);
    vi.restoreAllMocks();
  });
});

describe('WaveForm', () => {
  it('is as high as the sound is loud, and coloured as far as it was played', () => {
    const wave = mountInApp(WaveForm, { peaks: [0, 0, 255, 255], duration: 10, position: 5 });
    const heights = wave.findAll('rect').map((bar) => Number(bar.attributes('height')));
    expect(Math.max(...heights.slice(0, 36))).toBeLessThan(2);
    expect(Math.min(...heights.slice(36))).toBe(30);
    expect(wave.findAll('.played')).toHaveLength(36);
  });

  it('goes to where it is clicked', async () => {
    const wave = mountInApp(WaveForm, { peaks: [1], duration: 8, position: 0 });
    wave.element.getBoundingClientRect = () => ({ left: 100, width: 200 }) as DOMRect;
    await wave.trigger('click', { clientX: 150 });
    expect(wave.emitted('seek')).toEqual([[2]]);
  });
});

describe('RibbonFrame', () => {
  it('has a name that says kind and words, and a play button that says what it plays', () => {
    const ribbon = mountInApp(RibbonFrame, { remark: remarkOf(), focused: false });
    expect(ribbon.attributes('aria-label')).toBe('Repair about “turned”');
    expect(ribbon.get('button').attributes('aria-label')).toBe('Play the remark about “turned”');
    expect(ribbon.text()).toContain('0:10');
    const whole = mountInApp(RibbonFrame, { remark: remarkOf({ anchor: { type: 'whole' } }), focused: true });
    expect(whole.attributes('aria-label')).toBe('Repair about the whole work');
    expect(whole.classes()).toContain('focused');
  });

  it('plays its own sound, and stands still while another one plays', async () => {
    const play = vi.spyOn(HTMLMediaElement.prototype, 'play').mockResolvedValue();
    const ribbon = mountInApp(RibbonFrame, { remark: remarkOf({ id: 'mine' }), focused: false });
    await ribbon.get('button').trigger('click');
    expect(play).toHaveBeenCalledOnce();
    const player = usePlayer();
    player.playing.value = true;
    await nextTick();
    expect(ribbon.get('button').attributes('aria-label')).toMatch(/^Pause/);
    player.current.value = 'another';
    await nextTick();
    expect(ribbon.get('button').attributes('aria-label')).toMatch(/^Play/);
    player.playing.value = false;
  });

  it('says so when a sound cannot be played', async () => {
    vi.spyOn(HTMLMediaElement.prototype, 'play').mockRejectedValue(new DOMException('', 'NotSupportedError'));
    const ribbon = mountInApp(RibbonFrame, { remark: remarkOf({ id: 'broken' }), focused: false });
    await ribbon.get('button').trigger('click');
    await vi.waitFor(() => expect(ribbon.get('[role=alert]').text()).toContain('cannot be played'));
  });
});

describe('ReplyThread', () => {
  it('tells who answered, in words and sound', () => {
    const reply = {
      id: 'r',
      author: { id: 's', name: 'Amaru' },
      at: '2026-01-01T10:00:00Z',
      text: 'Twenty?',
      recording: null,
    };
    const spoken = { ...reply, id: 'q', text: '', recording: remarkOf().recording };
    const thread = mountInApp(ReplyThread, { replies: [reply, spoken] });
    expect(thread.findAll('li').map((item) => item.text())).toEqual([
      expect.stringContaining('Twenty?'),
      expect.stringContaining('0:10'),
    ]);
    expect(thread.get('li button').attributes('aria-label')).toBe('Play the answer of Amaru');
    expect(mountInApp(ReplyThread, { replies: [] }).find('ol').exists()).toBe(false);
  });
});

describe('ReplyBox', () => {
  const box = (send = vi.fn(() => Promise.resolve())) => ({
    send,
    view: mountInApp(ReplyBox, { submission: 'work', remark: 'remark', send }),
  });

  it('offers to speak while nothing is written, and to send when something is', async () => {
    const { view, send } = box();
    expect(view.get('button').attributes('aria-label')).toBe('Speak an answer');
    await view.get('textarea').setValue('  Twenty.  ');
    expect(view.get('button').attributes('aria-label')).toBe('Send the answer');
    await view.get('button').trigger('click');
    expect(send).toHaveBeenCalledWith({ text: 'Twenty.', recording: null });
    await vi.waitFor(() => expect(view.get('textarea').element.value).toBe(''));
  });

  it('keeps what is written until it is safe', async () => {
    const { view } = box(vi.fn(() => Promise.reject(new Error('no room'))));
    view.vm.$.appContext.config.errorHandler = () => undefined;
    await view.get('textarea').setValue('Twenty.');
    await view.get('textarea').trigger('keydown', { key: 'Enter', ctrlKey: true });
    expect(view.get('textarea').element.value).toBe('Twenty.');
    await vi.waitFor(() => expect(localStorage.getItem('reply:student:remark')).toBe('Twenty.'));
    expect(box().view.get('textarea').element.value).toBe('Twenty.');
  });
});
