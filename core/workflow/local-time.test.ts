import { describe, expect, it } from 'vitest';
import { dayOf, fromLocal, toLocal } from './index.ts';

// The clocks of these zones are those of the IANA time zone database, as Node brings it along (ICU).
describe('a time on the clock of a zone', () => {
  it.each([
    ['2026-11-27T20:15:00Z', 'UTC', '2026-11-27T20:15'],
    ['2026-11-27T20:15:00Z', 'Pacific/Auckland', '2026-11-28T09:15'],
    ['2026-07-01T00:30:00Z', 'America/New_York', '2026-06-30T20:30'],
    ['2026-01-01T00:00:00Z', 'Asia/Kathmandu', '2026-01-01T05:45'],
  ])('%s in %s is %s, and back', (instant, zone, local) => {
    expect(toLocal(instant, zone)).toBe(local);
    expect(fromLocal(local, zone)).toBe(new Date(instant).toISOString());
    expect(fromLocal(`${local}:30`, zone)).toBe(new Date(instant).toISOString());
    expect(dayOf(instant, zone)).toBe(local.slice(0, 10));
  });

  it('that comes twice is the first, and one that the clock jumps over is none', () => {
    expect(fromLocal('2026-10-25T02:30', 'Europe/Berlin')).toBe('2026-10-25T00:30:00.000Z');
    expect(fromLocal('2026-03-29T02:30', 'Europe/Berlin')).toBeUndefined();
    expect(fromLocal('2026-03-29T03:00', 'Europe/Berlin')).toBe('2026-03-29T01:00:00.000Z');
    expect(fromLocal('2026-03-29T01:59', 'Europe/Berlin')).toBe('2026-03-29T00:59:00.000Z');
  });

  it.each(['', 'today', '2026-13-01T10:00', '2026-11-31T25:00'])('%j is none', (text) => {
    expect(fromLocal(text, 'UTC')).toBeUndefined();
  });
});
