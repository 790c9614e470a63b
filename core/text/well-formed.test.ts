import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { wellFormed, wellFormedIn } from './index.ts';

describe('wellFormed', () => {
  it('replaces what is no character, and moves nothing', () => {
    expect(wellFormed('a\0b\uD83Dc\uDE00d\uD83D\uDE00')).toBe('a\uFFFDb\uFFFDc\uFFFDd\uD83D\uDE00');
  });

  it('agrees with String.prototype.toWellFormed (ECMA-262, 22.1.3.31) beside U+0000', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary' }), fc.nat(0xff_ff), (text, unit) => {
        const broken = text.slice(0, 3) + String.fromCharCode(unit) + text.slice(3);
        const expected = (broken as unknown as { toWellFormed(): string }).toWellFormed().replaceAll('\0', '\uFFFD');
        expect(wellFormed(broken)).toBe(expected);
        expect(wellFormed(broken)).toHaveLength(broken.length);
      }),
    );
  });

  it('goes through values as JSON has them', () => {
    const value = { 'a\0': ['\uDC00', 1, null, true, { b: 'ok' }] };
    expect(wellFormedIn(value)).toEqual({ 'a\uFFFD': ['\uFFFD', 1, null, true, { b: 'ok' }] });
  });
});
