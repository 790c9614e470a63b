// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { describe, expect, it, vi } from 'vitest';
import { ref } from 'vue';
import { mountInApp, remarkOf } from '../testing/mount.ts';
import { useMarginFilter } from '../margin/use-margin-filter.ts';
import { placeIn } from './class-place.ts';
import { draftOf, emptyDraft, linkOf, type Draft } from '../remark/draft.ts';
import RemarkForm from '../remark/RemarkForm.vue';
import { useSchool } from '../session/school.ts';

describe('linkOf', () => {
  it.each([
    ['', null],
    ['  ', null],
    ['example.org', 'https://example.org/'],
    ['example.org/a page?b=1', 'https://example.org/a%20page?b=1'],
    ['http://example.org:8080/x', 'http://example.org:8080/x'],
    ['javascript:alert(1)', undefined],
    ['data:text/html,x', undefined],
    ['not an address', undefined],
    ['word', undefined],
  ])('%s', (typed, link) => {
    expect(linkOf(typed)).toBe(link);
  });
});

describe('placeIn', () => {
  const students = [
    { student: 'a', name: 'A', submission: 's1', state: 'ready' as const },
    { student: 'b', name: 'B', submission: null, state: null },
    { student: 'c', name: 'C', submission: 's3', state: 'waiting' as const },
  ];

  it('counts and steps over those who did not hand in', () => {
    expect(placeIn({ students }, 'a')).toEqual({ position: 1, count: 2, previous: undefined, next: 's3' });
    expect(placeIn({ students }, 'c')).toEqual({ position: 2, count: 2, previous: 's1', next: undefined });
  });

  it('leads nowhere from somebody who left the class', () => {
    expect(placeIn({ students }, 'z')).toMatchObject({ previous: undefined, next: undefined });
  });
});

describe('useMarginFilter', () => {
  const work = ref('one');
  const remarks = [
    remarkOf({ id: 'a', kind: 'repair', tags: ['evidence'] }),
    remarkOf({ id: 'b', kind: 'strength', author: { id: 'other', name: 'Other' } }),
    remarkOf({ id: 'c', kind: 'strength' }),
  ];
  const filter = useMarginFilter(
    () => remarks,
    () => work.value,
  );
  const ids = () => filter.shown.value.map(({ id }) => id);

  it('by kind, author and tag, together', () => {
    expect(filter.counts.value).toEqual(
      new Map([
        ['repair', 1],
        ['strength', 2],
      ]),
    );
    filter.toggle('repair');
    expect(ids()).toEqual(['b', 'c']);
    filter.author.value = 'other';
    expect(ids()).toEqual(['b']);
    filter.clear();
    filter.tag.value = 'evidence';
    expect(ids()).toEqual(['a']);
    expect(filter.authors.value.map(({ name }) => name)).toEqual(['Teacher', 'Other']);
  });

  it('hides nothing on the next work', async () => {
    filter.toggle('strength');
    work.value = 'two';
    await Promise.resolve();
    expect(ids()).toEqual(['a', 'b', 'c']);
  });
});

describe('the form for a remark', () => {
  function open(draft: Draft, more: object = {}) {
    const wrapper = mountInApp(RemarkForm, { modelValue: draft, rubric: [], ...more });
    const follow = async () => {
      const [last] = wrapper.emitted('update:modelValue')?.at(-1) ?? [];
      if (last) await wrapper.setProps({ modelValue: last });
    };
    return { wrapper, follow };
  }
  const whole = emptyDraft({ type: 'whole' }, 'repair');

  it('keeps what is written with Control and Enter, and nothing empty', async () => {
    const { wrapper, follow } = open(whole);
    await wrapper.get('form').trigger('keydown', { key: 'Enter', ctrlKey: true });
    expect(wrapper.emitted('save')).toBeUndefined();
    expect(wrapper.get('.refused').text()).toContain('Write something first');
    await wrapper.get('textarea').setValue('Look again');
    await follow();
    await wrapper.get('form').trigger('keydown', { key: 'Enter', ctrlKey: true });
    expect(wrapper.emitted('save')).toHaveLength(1);
  });

  it('refuses an address that is none', async () => {
    const { wrapper, follow } = open({
      ...whole,
      content: { ...whole.content, text: 'x', link: 'https://example.org/' },
    });
    await wrapper.get('input[type=url]').setValue('javascript:alert(1)');
    await wrapper.get('form').trigger('submit');
    expect(wrapper.get('.refused').text()).toContain('not a web address');
    await wrapper.get('input[type=url]').setValue('example.org/tides');
    await wrapper.get('form').trigger('submit');
    await follow();
    expect(wrapper.emitted('save')).toHaveLength(1);
    expect((wrapper.props() as { modelValue: Draft }).modelValue.content.link).toBe('https://example.org/tides');
  });

  it('a suggestion must change something', async () => {
    const draft = { ...whole, content: { ...whole.content, suggestion: 'obvious' } };
    const { wrapper } = open(draft, { quote: 'obvious' });
    await wrapper.get('form').trigger('submit');
    expect(wrapper.get('.refused').text()).toContain('still the student’s words');
  });

  it('takes no file that the server would not, and none that is empty', async () => {
    useSchool().school = { name: 'S', zone: 'UTC', samplePeople: [], empty: false, limits: { fileBytes: 1024 * 1024 } };
    const { wrapper } = open(whole);
    const input = wrapper.get<HTMLInputElement>('input[type=file]');
    for (const [size, problem] of [
      [1024 * 1024 + 1, 'notes.pdf is larger than 1 MB.'],
      [0, 'notes.pdf is empty (0 bytes).'],
    ] as const) {
      const file = new File([new Uint8Array(size)], 'notes.pdf');
      Object.defineProperty(input.element, 'files', { value: [file], configurable: true });
      await input.trigger('change');
      await vi.waitFor(() => expect(wrapper.get('.refused').text()).toBe(problem));
    }
  });

  it('Escape leaves it', async () => {
    const { wrapper } = open(whole);
    await wrapper.get('form').trigger('keydown', { key: 'Escape' });
    expect(wrapper.emitted('cancel')).toHaveLength(1);
  });
});

describe('draftOf', () => {
  it('has all that can be written on a remark', () => {
    expect(draftOf(remarkOf({ text: 'a', tags: ['b'], private: true })).content).toMatchObject({
      text: 'a',
      tags: ['b'],
      private: true,
      link: null,
    });
  });
});
