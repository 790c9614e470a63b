// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import { describe, expect, it, vi } from 'vitest';
import FileInput from './FileInput.vue';

const opened = mount(FileInput, {
  props: { label: 'A list as a file', accept: '.csv' },
  slots: { default: '<template #default="{ open }"><button @click="open">Choose</button></template>' },
});
const input = opened.get('input');

describe('an input for files', () => {
  it('is opened by a button, and can be given the same file again', async () => {
    const click = vi.spyOn(input.element, 'click');
    await opened.get('button').trigger('click');
    expect(click).toHaveBeenCalledOnce();
    const file = new File(['a'], 'a.csv');
    for (let times = 1; times <= 2; times++) {
      Object.defineProperty(input.element, 'files', { configurable: true, value: [file] });
      await input.trigger('change');
      expect(opened.emitted('choose')).toHaveLength(times);
      expect(input.element.value).toBe('');
    }
    expect(opened.emitted('choose')![0]).toEqual([[file]]);
  });

  it('says nothing where nothing was chosen', async () => {
    Object.defineProperty(input.element, 'files', { configurable: true, value: [] });
    await input.trigger('change');
    expect(opened.emitted('choose')).toHaveLength(2);
  });
});
