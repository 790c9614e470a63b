import { describe, expect, it } from 'vitest';
import { byteSize, counted, dayAndTime, languageName, listOf, percent, seconds } from './format.ts';

describe('dates and numbers', () => {
  it('are read as people read them, in the language of the interface', () => {
    expect(dayAndTime('2026-11-24T14:05:00')).toBe('Tue 24 Nov, 14:05');
    expect([percent(0.414), percent(1)]).toEqual(['41%', '100%']);
    expect(seconds(2.46)).toBe('2.5 s');
    expect([counted(1, 'remark'), counted(3, 'remark'), counted(2, 'reply', 'replies')]).toEqual([
      '1 remark',
      '3 remarks',
      '2 replies',
    ]);
    expect(listOf(['English', 'French'])).toBe('English and French');
    expect([languageName('ar'), languageName('not a tag')]).toEqual(['Arabic', 'not a tag']);
  });

  it.each([
    [0, '0 B'],
    [1023, '1023 B'],
    [3000, '2.9 kB'],
    [60_000, '59 kB'],
    [1024 * 1024, '1 MB'],
    [1.4 * 1024 * 1024, '1.4 MB'],
    [25 * 1024 * 1024, '25 MB'],
  ])('%d bytes are %s', (bytes, size) => {
    expect(byteSize(bytes)).toBe(size);
  });
});
