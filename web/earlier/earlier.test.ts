// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { flushPromises } from '@vue/test-utils';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { effectScope, ref } from 'vue';
import type { EarlierRemark, Work } from '#contract/submissions';
import { remarkOf, mountInApp } from '../testing/mount.ts';
import EarlierHead from './EarlierHead.vue';
import EarlierRibbon from './EarlierRibbon.vue';
import { useEarlier, type Earlier } from './use-earlier.ts';

const id = (digit: number): string => `6f0b3c0e-7d55-4f58-9a52-0d0f0a1b2c3${digit}`;
const passage = (exact: string) => ({
  type: 'passage' as const,
  start: 0,
  end: exact.length,
  quote: { exact, prefix: '', suffix: '' },
});
const author = { id: id(9), name: 'Teacher' };
const earlierOf = (change: Partial<EarlierRemark> = {}): EarlierRemark => ({
  remark: remarkOf({ id: id(1), author, anchor: passage('It does not turn.') }),
  submission: id(2),
  version: 1,
  status: 'changed',
  anchor: passage('It cannot turn.'),
  confidence: 0.8,
  placed: false,
  ...change,
});
const lost = earlierOf({
  remark: remarkOf({ id: id(3), author, anchor: passage('Gone.') }),
  status: 'lost',
  anchor: null,
});

const version = (number: number) => ({
  id: id(number),
  version: number,
  handedInAt: '2026-01-01T00:00:00Z',
  returnedAt: null,
});
const workOf = (number: number): Work =>
  ({ id: id(number), version: number, versions: [version(2), version(1)] }) as unknown as Work;

const server = vi.fn<(url: string, request?: RequestInit) => Promise<Response>>();
vi.stubGlobal('fetch', server);
beforeEach(() => {
  localStorage.clear();
  server.mockReset();
});

async function open(work: Work): Promise<Earlier> {
  const current = ref(work);
  const earlier = effectScope().run(() => useEarlier(() => current.value))!;
  await flushPromises();
  return earlier;
}

describe('useEarlier', () => {
  it('asks for nothing on a first version', async () => {
    const earlier = await open(workOf(1));
    expect([server.mock.calls.length, earlier.all.value]).toEqual([0, []]);
  });

  it('tells placed from lost, and hides the placed ones when they are not wanted', async () => {
    server.mockResolvedValue(Response.json([earlierOf(), lost]));
    const earlier = await open(workOf(2));
    expect(earlier.placed.value.map(({ remark }) => remark.id)).toEqual([id(1)]);
    expect(earlier.lost.value.map(({ remark }) => remark.id)).toEqual([id(3)]);
    earlier.toggle();
    expect([earlier.shown.value, earlier.placed.value]).toEqual([false, []]);
    expect(earlier.all.value).toHaveLength(2);
  });

  it('puts one where its teacher says, as the server answers', async () => {
    server.mockResolvedValueOnce(Response.json([lost]));
    const earlier = await open(workOf(2));
    const anchor = passage('Here.');
    server.mockResolvedValueOnce(Response.json({ ...lost, anchor, status: 'changed', placed: true }));
    await earlier.place(earlier.lost.value[0]!, anchor);
    expect(server.mock.calls[1]![0]).toBe(`/api/submissions/${id(2)}/earlier/${id(3)}`);
    expect(earlier.lost.value).toEqual([]);
    expect(earlier.placed.value[0]).toMatchObject({ placed: true, anchor });
  });

  it('says what went wrong, leaves everything, and can be asked again', async () => {
    server.mockRejectedValueOnce(new TypeError('away'));
    const earlier = await open(workOf(2));
    expect(earlier.error.value).toContain('cannot be reached');
    server.mockResolvedValueOnce(Response.json([lost]));
    await earlier.load();
    expect([earlier.error.value, earlier.all.value.length]).toEqual([undefined, 1]);
    server.mockRejectedValueOnce(new TypeError('away'));
    await earlier.place(lost, passage('Here.'));
    expect([earlier.error.value !== undefined, earlier.lost.value.length]).toEqual([true, 1]);
  });
});

describe('a remark of an earlier version', () => {
  it('says from which version it is and what became of its passage, and shows the change', async () => {
    const ribbon = mountInApp(EarlierRibbon, { earlier: earlierOf(), focused: false });
    expect(ribbon.get('.version').text()).toBe('version 1, changed');
    expect(ribbon.find('ins').exists()).toBe(false);
    await ribbon.get('.more').trigger('click');
    expect([ribbon.get('del').text(), ribbon.get('ins').text()]).toEqual(['does not', 'cannot']);
    await ribbon.get('.more').trigger('click');
    expect(ribbon.find('ins').exists()).toBe(false);
  });

  it.each([
    [{ status: 'same' as const, anchor: passage('It does not turn.') }, 'version 1, unchanged'],
    [{ status: 'moved' as const, anchor: passage('It does not turn.') }, 'version 1, moved'],
    [{ placed: true }, 'version 1, put here by hand'],
  ])('%o', (change, text) => {
    expect(
      mountInApp(EarlierRibbon, { earlier: earlierOf(change), focused: false })
        .get('.version')
        .text(),
    ).toBe(text);
  });

  it('can be put elsewhere while it is in focus, by a teacher', async () => {
    const ribbon = mountInApp(EarlierRibbon, { earlier: earlierOf(), focused: true, movable: true, target: '“here”' });
    const [here, away] = ribbon.findAll('.row button');
    expect(here!.text()).toBe('Put it at “here”');
    await here!.trigger('click');
    await away!.trigger('click');
    expect([ribbon.emitted('here'), ribbon.emitted('lost')]).toEqual([[[]], [[]]]);
    expect(mountInApp(EarlierRibbon, { earlier: earlierOf(), focused: true }).find('.row').exists()).toBe(false);
  });
});

describe('the head of the margin', () => {
  it('lists lost remarks with their old words, to be put back where something is selected', async () => {
    server.mockResolvedValue(Response.json([earlierOf(), lost]));
    const earlier = await open(workOf(2));
    const head = mountInApp(EarlierHead, { earlier, movable: true });
    expect(head.text()).toContain('Show 2 remarks on earlier versions');
    expect(head.get('.old').text()).toBe('“Gone.”');
    const button = head.get('li .v-btn:last-child');
    expect([button.text(), button.attributes('disabled')]).toEqual(['Select where it belongs', '']);
    await head.setProps({ target: '“here”' });
    await head.get('li > .v-btn').trigger('click');
    expect(head.emitted('here')).toEqual([[lost]]);
  });

  it('shows students what is lost without a way to move it, and is not there without earlier remarks', async () => {
    server.mockResolvedValue(Response.json([lost]));
    const head = mountInApp(EarlierHead, { earlier: await open(workOf(2)) });
    expect(head.find('li > .v-btn').exists()).toBe(false);
    expect(
      mountInApp(EarlierHead, { earlier: await open(workOf(1)) })
        .find('section')
        .exists(),
    ).toBe(false);
  });
});
