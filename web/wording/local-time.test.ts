import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { fromLocal, toLocal, zoneName } from './local-time.ts';

describe('date and time by the clock on the wall', () => {
  const before = process.env.TZ;
  beforeEach(() => void (process.env.TZ = 'Europe/Lisbon'));
  afterEach(() => void (process.env.TZ = before));

  it('there and back', () => {
    expect(fromLocal('2026-07-01T09:30')).toBe('2026-07-01T08:30:00.000Z');
    expect(toLocal('2026-07-01T08:30:00.000Z')).toBe('2026-07-01T09:30');
    expect(zoneName()).toBe('Europe/Lisbon');
  });

  // Directive 2000/84/EC: at 01:00 UTC on the last Sunday of March clocks go forward, on that of October back.
  it('an hour that does not exist is none, and of one that comes twice it is the first', () => {
    expect(fromLocal('2027-03-28T01:30')).toBeUndefined();
    expect(fromLocal('2026-10-25T01:30')).toBe('2026-10-25T00:30:00.000Z');
    expect(fromLocal('soon')).toBeUndefined();
  });
});
