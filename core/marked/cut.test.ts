import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cutIntoSheets } from './cut.ts';

describe('something tall on sheets of paper', () => {
  const lines = fc
    .array(fc.tuple(fc.integer({ min: 4, max: 30 }), fc.integer({ min: 0, max: 200 })), { maxLength: 40 })
    .map((all) => {
      let at = 10;
      return all.map(([height, gap]) => {
        const line = { top: at + gap, bottom: at + gap + height };
        at = line.bottom;
        return line;
      });
    });

  it('is cut without a gap, never higher than a sheet, and never through a line', () => {
    fc.assert(
      fc.property(lines, fc.integer({ min: 60, max: 400 }), (all, tallest) => {
        const bottom = (all.at(-1)?.bottom ?? 100) + 20;
        const sheets = cutIntoSheets({ top: 0, bottom }, all, tallest);
        expect([sheets[0]!.top, sheets.at(-1)!.bottom]).toEqual([0, bottom]);
        sheets.forEach((sheet, index) => {
          expect(sheet.bottom - sheet.top).toBeLessThanOrEqual(tallest);
          if (index > 0) expect(sheet.top).toBe(sheets[index - 1]!.bottom);
          if (index > 0) expect(all.some((line) => line.top < sheet.top && line.bottom > sheet.top)).toBe(false);
        });
      }),
    );
  });

  it('is cut all the same through what is higher than a sheet', () => {
    const sheets = cutIntoSheets({ top: 0, bottom: 300 }, [{ top: 0, bottom: 300 }], 100);
    expect(sheets.map(({ bottom }) => bottom)).toEqual([100, 200, 300]);
  });
});
