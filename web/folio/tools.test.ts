// @vitest-environment happy-dom
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { effectScope, nextTick, ref, shallowRef } from 'vue';
import { passageAnchor, type Anchor } from '#core/anchor';
import type { Leaf } from '#core/folio';
import { readFolio } from '../testing/folio.ts';
import { mountInApp } from '../testing/mount.ts';
import FolioTools from './FolioTools.vue';
import { useTarget } from './use-target.ts';
import { useZoom, type FolioZoom } from './use-zoom.ts';

beforeEach(() => localStorage.clear());

const zoomIn = (): FolioZoom => effectScope().run(() => useZoom(shallowRef(document.body), shallowRef(document.body)))!;

describe('zoom', () => {
  it('fits the width at first, goes by steps, and stops at both ends', async () => {
    const zoom = zoomIn();
    expect(zoom.leafWidth.value).toBe('100%');
    zoom.step(1, 'leaf');
    expect(zoom.leafWidth.value).toBe('125%');
    for (let step = 0; step < 20; step++) zoom.step(1, 'leaf');
    expect(zoom.leafWidth.value).toBe('300%');
    for (let step = 0; step < 20; step++) zoom.step(-1, 'leaf');
    expect(zoom.leafWidth.value).toBe('50%');
    zoom.fit('width');
    expect(zoom.leafWidth.value).toBe('100%');
  });

  it('makes letters up to twice as large, and is remembered', async () => {
    const zoom = zoomIn();
    for (let step = 0; step < 20; step++) zoom.step(1, 'text');
    zoom.step(1, 'leaf');
    await nextTick();
    const again = zoomIn();
    expect([again.textZoom.value, again.zoom.value]).toEqual([2, 1.25]);
  });

  it('takes nonsense in the storage for nothing', () => {
    localStorage.setItem('zoom', 'large');
    expect(zoomIn().zoom.value).toBe('width');
  });
});

describe('the tools above a work', () => {
  const place = { file: 0, start: 0, end: 0 };
  const page = (number: number): Leaf => ({
    kind: 'page',
    label: `Page ${number}`,
    page: number,
    width: 1,
    height: 1,
    texts: [],
    ...place,
  });
  const text: Leaf = { kind: 'text', label: 'Text', blocks: [], ...place };
  const tools = (leaves: Leaf[], more: Record<string, unknown> = {}) =>
    mountInApp(FolioTools, { leaves, zoom: zoomIn(), folio: null, choosing: true, boxing: false, ...more });

  it('count pages or slides, and go where one says', async () => {
    const folio = document.createElement('article');
    folio.innerHTML = '<section data-leaf="0"></section><section data-leaf="1"></section>';
    const gone: string[] = [];
    for (const leaf of folio.children) leaf.scrollIntoView = () => void gone.push((leaf as HTMLElement).dataset.leaf!);
    const bar = tools([page(1), page(2)], { folio });
    expect(bar.get('.go').text()).toMatch(/^Page\s+of 2$/);
    await vi.waitUntil(() => bar.find('input').exists());
    await bar.get('input').setValue('2');
    await bar.get('input').setValue('99');
    await bar.get('input').setValue('nothing');
    expect(gone).toEqual(['1', '1', '0']);
    expect(
      tools([page(1), text])
        .get('.go')
        .text(),
    ).toContain('Part');
    expect(tools([text]).find('.go').exists()).toBe(false);
  });

  it('offer boxes where there are pages and something can be said', async () => {
    const bar = tools([page(1)]);
    const box = bar.findAll('button').find((button) => button.text() === 'Box')!;
    await box.trigger('click');
    expect(bar.emitted('update:boxing')).toEqual([[true]]);
    const hasBox = (wrapper: ReturnType<typeof tools>): boolean => wrapper.text().includes('Box');
    expect([hasBox(tools([page(1)], { choosing: false })), hasBox(tools([text]))]).toEqual([false, false]);
  });

  it('zoom letters of flowing text, and pages by their width', async () => {
    const bar = tools([text]);
    await bar.get('[aria-label="Show it larger"]').trigger('click');
    expect(bar.get('.percent').text()).toBe('125%');
    const pages = tools([page(1)]);
    expect(pages.get('.percent').text()).toBe('width');
    await pages.get('[aria-label="Show it smaller"]').trigger('click');
    expect(pages.get('.percent').text()).toBe('80%');
    await pages.get('[aria-label="Fit the page"]').trigger('click');
    expect(pages.get('.percent').text()).toBe('page');
  });
});

describe('what is selected in a work', () => {
  it('is either words or something else, and never what was before', async () => {
    const folio = await readFolio('demo/documents/vahan-petrosyan.txt');
    const root = document.createElement('article');
    root.innerHTML = '<p><span data-start="0">THE WALL AND THE WEED</span></p>';
    document.body.append(root);
    const work = ref(folio);
    const target = effectScope().run(() =>
      useTarget(
        () => root,
        () => work.value,
      ),
    )!;
    const box: Anchor = { type: 'region', leaf: 0, x: 0, y: 0, width: 1, height: 1 };
    target.choose(box);
    expect([target.target.value, target.now()]).toEqual([box, box]);

    const range = document.createRange();
    range.setStart(root.querySelector('span')!.firstChild!, 4);
    range.setEnd(root.querySelector('span')!.firstChild!, 8);
    document.getSelection()!.removeAllRanges();
    document.getSelection()!.addRange(range);
    document.dispatchEvent(new Event('selectionchange'));
    expect(target.target.value).toEqual(passageAnchor(folio.text, 4, 8));
    expect(target.chosen.value).toBeUndefined();

    target.choose(box);
    expect([target.target.value, document.getSelection()!.isCollapsed]).toEqual([box, true]);
    target.clear();
    expect([target.target.value, target.now()]).toEqual([undefined, undefined]);
  });
});
