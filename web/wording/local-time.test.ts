import { describe, expect, it } from 'vitest';
import { fromLocal, toLocal } from './local-time.ts';

describe('date and time by the clock on the wall', () => {
  it.each([
    ['Europe/Lisbon', '2026-07-01T09:30', '2026-07-01T08:30:00.000Z'],
    ['Asia/Kathmandu', '2026-07-01T09:30', '2026-07-01T03:45:00.000Z'],
    ['Pacific/Auckland', '2026-01-01T00:00', '2025-12-31T11:00:00.000Z'],
    ['UTC', '2026-02-28T23:59', '2026-02-28T23:59:00.000Z'],
  ])('there and back in %s', (zone, local, instant) => {
    expect(fromLocal(local, zone)).toBe(instant);
    expect(toLocal(instant, zone)).toBe(local);
  });

  // Directive 2000/84/EC: at 01:00 UTC on the last Sunday of March clocks go forward, on that of October back.
  it('an hour that does not exist is none, and of one that comes twice it is the first', () => {
    expect(fromLocal('2027-03-28T01:30', 'Europe/Lisbon')).toBeUndefined();
    expect(fromLocal('2027-03-28T02:30', 'Europe/Berlin')).toBeUndefined();
    expect(fromLocal('2027-03-28T02:00', 'Europe/Lisbon')).toBe('2027-03-28T01:00:00.000Z');
    expect(fromLocal('2026-10-25T01:30', 'Europe/Lisbon')).toBe('2026-10-25T00:30:00.000Z');
  });

  it('what is no time is none', () => {
    for (const text of ['', 'soon', '2026-13-01T00:00']) expect(fromLocal(text, 'UTC')).toBeUndefined();
  });
});
