// @vitest-environment happy-dom
import { expect, it } from 'vitest';
import { mountInApp } from '../testing/mount.ts';
import NumberField from './NumberField.vue';

const type = async (
  input: { element: Element; trigger: (event: string) => Promise<void> },
  text: string,
): Promise<void> => {
  (input.element as HTMLInputElement).value = text;
  await input.trigger('input');
};
const fieldOf = (modelValue: number) => mountInApp(NumberField, { modelValue, precision: 2, min: 0, max: 10 });

it('counts once, when it is typed to its end', async () => {
  const field = fieldOf(3.3241);
  const input = field.get('input');
  await type(input, '1');
  await type(input, '1.5');
  expect(field.emitted('update:modelValue')).toBeUndefined();
  await input.trigger('change');
  await field.setProps({ modelValue: 1.5 });
  await input.trigger('blur');
  expect(field.emitted('update:modelValue')).toEqual([[1.5]]);
});

it('being looked at and left changes nothing, though it shows fewer places than there are', async () => {
  const field = fieldOf(3.3241);
  const input = field.get('input');
  await input.trigger('focus');
  await input.trigger('blur');
  expect((input.element as HTMLInputElement).value).toBe('3.32');
  expect(field.emitted('update:modelValue')).toBeUndefined();
});

it('what is out of bounds comes to the nearest bound', async () => {
  const field = fieldOf(3);
  const input = field.get('input');
  await type(input, '44');
  await input.trigger('change');
  await input.trigger('blur');
  expect(field.emitted('update:modelValue')).toEqual([[10]]);
});

it('shows the same places while it is being typed into: what was selected stays selected', async () => {
  const field = fieldOf(3.4);
  const input = field.get('input');
  expect((input.element as HTMLInputElement).value).toBe('3.40');
  await input.trigger('focus');
  expect((input.element as HTMLInputElement).value).toBe('3.40');
});
