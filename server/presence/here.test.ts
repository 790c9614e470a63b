import { expect, it } from 'vitest';
import { presence } from './here.ts';

it('tells who else is at a work, until they have said nothing for a while', () => {
  const here = presence(30);
  expect(here.note('work', 'a', 'Tamsin', 0)).toEqual([]);
  expect(here.note('work', 'b', 'Ruari', 10)).toEqual(['Tamsin']);
  expect(here.note('other', 'c', 'Ines', 10)).toEqual([]);
  expect(here.note('work', 'a', 'Tamsin', 20)).toEqual(['Ruari']);
  expect(here.note('work', 'a', 'Tamsin', 40)).toEqual([]);
});
