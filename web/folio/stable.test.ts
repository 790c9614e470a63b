import { describe, expect, it } from 'vitest';
import { shallowSame, stable } from './stable.ts';

describe('stable', () => {
  const before = [{ id: 1 }, { id: 2 }];

  it('is the old list where nothing has changed', () => {
    expect(stable(before, [{ id: 1 }, { id: 2 }], shallowSame)).toBe(before);
  });

  it('keeps what is the same, wherever it has moved to', () => {
    const now = stable(before, [{ id: 3 }, { id: 1 }, { id: 2 }], shallowSame);
    expect(now).toEqual([{ id: 3 }, { id: 1 }, { id: 2 }]);
    expect(now[1]).toBe(before[0]);
    expect(now[2]).toBe(before[1]);
    expect(stable(before, [{ id: 2 }], shallowSame)[0]).toBe(before[1]);
  });

  it('is the new list where there was none', () => {
    const now = [{ id: 1 }];
    expect(stable(undefined, now, shallowSame)).toBe(now);
  });

  it('compares every property', () => {
    expect(shallowSame({ a: 1, b: 2 }, { a: 1, b: 3 })).toBe(false);
    expect(shallowSame<object>({ a: 1 }, { a: 1, b: undefined })).toBe(false);
  });
});
