import { describe, expect, it } from 'vitest';
import { answersFile, folioOf, isAnswer, type Question } from './index.ts';

const question = (id: string, kind: Question['kind'], choices: string[] = []): Question => ({
  id,
  kind,
  prompt: `Prompt of ${id}`,
  choices,
  points: 100,
});

describe('isAnswer', () => {
  it.each([
    ['4', true],
    ['4.1', true],
    ['-4,1', true],
    ['+.5', true],
    ['12 000', true],
    ['1e-3', true],
    ['', true],
    ['   ', true],
    ['about 4', false],
    ['4 m', false],
    ['4.1.2', false],
    ['--4', false],
  ])('takes %o for a number or not', (text, taken) => {
    expect(isAnswer(question('a', 'number'), text)).toBe(taken);
  });

  it('takes of choices only what is offered, and of words everything', () => {
    const choice = question('a', 'choice', ['ebb', 'flood']);
    expect([isAnswer(choice, 'ebb'), isAnswer(choice, 'slack'), isAnswer(choice, '')]).toEqual([true, false, true]);
    expect(isAnswer(question('a', 'short'), 'anything')).toBe(true);
    expect(isAnswer(question('a', 'long'), 'any\nthing')).toBe(true);
  });
});

describe('answersFile', () => {
  const questions = [question('a', 'short'), question('b', 'long'), question('c', 'number')];

  it('has a leaf for each question in order, also for those without an answer', () => {
    const folio = folioOf([answersFile('Tides', questions, { b: 'one\n\ntwo\r\nthree\n', a: 'slack' })]);
    expect(folio.title).toBe('Tides');
    expect(folio.text).toBe('slack\none\n\ntwo\nthree\n');
    expect(folio.leaves.map((leaf) => [leaf.label, leaf.start, leaf.end])).toEqual([
      ['Question 1', 0, 6],
      ['Question 2', 6, 21],
      ['Question 3', 21, 21],
    ]);
  });
});
