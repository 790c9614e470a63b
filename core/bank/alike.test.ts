import { describe, expect, it } from 'vitest';
import { alikeGroups, likeness } from './index.ts';

const english = (texts: readonly string[]) => texts.map((text) => ({ text, language: 'en' }));

describe('alikeGroups', () => {
  it('finds what was said before, though words were heard wrongly', () => {
    const texts = [
      'Tell us where this number comes from, so that we can check it.',
      'Your ending repeats the beginning; go one step further.',
      'tell us wear this number comes from so that wee can check hit',
      'Tell them where that number came from and we will check it.',
      'I like the picture of the creek at dusk.',
    ];
    expect(alikeGroups(english(texts))).toEqual([[0, 2, 3]]);
  });

  it('frequent words make nothing alike', () => {
    const texts = ['And it is that you are there with the tide.', 'And it is that you are there with the comma.'];
    expect(alikeGroups(english(texts))).toEqual([]);
  });

  it('one that is like two different ones does not make one of them', () => {
    const [a, b] = ['number source page year author count', 'ending beginning surprise promise reader question'];
    const between = `${a!.split(' ').slice(0, 4).join(' ')} ${b!.split(' ').slice(0, 4).join(' ')}`;
    const groups = alikeGroups(english([a!, a!, b!, b!, between]));
    expect(groups.some((group) => group.includes(0) && group.includes(2))).toBe(false);
  });

  it('has nothing to say to nothing', () => {
    expect(alikeGroups([])).toEqual([]);
    expect(alikeGroups(english(['', '', '!']))).toEqual([]);
  });
});

describe('likeness', () => {
  it('is 1 with itself and 0 with what shares no word', () => {
    const like = likeness(english(['The comma is missing.', 'Two turnstones walked.', 'Missing commas!']));
    expect(like(0, 0)).toBeCloseTo(1);
    expect(like(0, 1)).toBe(0);
    expect(like(0, 2)).toBeCloseTo(1);
  });
});
