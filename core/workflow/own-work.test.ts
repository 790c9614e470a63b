import { describe, expect, it } from 'vitest';
import { ownWorkPlace, placedOwnWork, type OwnWorkFacts } from './index.ts';

const NOW = '2026-11-28T08:00:00Z';
const day = (ago: number): string => new Date(Date.parse(NOW) - ago * 86_400_000).toISOString();
const version = (change: Partial<OwnWorkFacts['versions'][number]> = {}): OwnWorkFacts['versions'][number] => ({
  ...{ handedInAt: day(3), returnedAt: null, withdrawnAt: null, spoken: 0, heard: 0 },
  ...change,
});
const work = (change: Partial<OwnWorkFacts> = {}): OwnWorkFacts => ({
  ...{ dueAt: null, aside: false, versions: [] },
  ...change,
});
const placeOf = (change: Partial<OwnWorkFacts>): string => ownWorkPlace(work(change), NOW);

describe('the place of a student’s work on their page', () => {
  it('is what it asks of them', () => {
    expect(placeOf({})).toBe('due');
    expect(placeOf({ versions: [version()] })).toBe('handedIn');
    expect(placeOf({ versions: [version({ returnedAt: day(1) })] })).toBe('back');
    expect(placeOf({ versions: [version(), version({ returnedAt: day(1) })] })).toBe('handedIn');
  });

  it('does not count what was withdrawn', () => {
    expect(placeOf({ versions: [version({ withdrawnAt: day(1) })] })).toBe('due');
    expect(placeOf({ versions: [version({ withdrawnAt: day(1) }), version({ returnedAt: day(2) })] })).toBe('back');
  });

  it('folds away what is long past, but nothing that was not heard', () => {
    expect(placeOf({ aside: true, versions: [version()] })).toBe('old');
    expect(placeOf({ dueAt: day(10) })).toBe('due');
    expect(placeOf({ dueAt: day(61) })).toBe('old');
    const back = (heard: number) => placeOf({ versions: [version({ returnedAt: day(31), spoken: 2, heard })] });
    expect([back(1), back(2)]).toEqual(['back', 'old']);
  });

  it('has the latest return first, then the nearest due date', () => {
    const works = {
      soon: work({ dueAt: day(-1) }),
      later: work({ dueAt: day(-5) }),
      never: work(),
      old: work({ versions: [version({ returnedAt: day(9) })] }),
      fresh: work({ versions: [version({ returnedAt: day(1) })] }),
    };
    const { back, due } = placedOwnWork([works.never, works.later, works.old, works.soon, works.fresh], NOW);
    expect(due).toEqual([works.soon, works.later, works.never]);
    expect(back).toEqual([works.fresh, works.old]);
  });

  it('has the latest handed in first, and counts no version that was withdrawn', () => {
    const works = {
      monday: work({ dueAt: day(-9), versions: [version({ handedInAt: day(5) })] }),
      friday: work({ dueAt: day(-2), versions: [version({ handedInAt: day(1) })] }),
      again: work({
        versions: [version({ handedInAt: day(0), withdrawnAt: day(0) }), version({ handedInAt: day(3) })],
      }),
    };
    expect(placedOwnWork([works.monday, works.friday, works.again], NOW).handedIn).toEqual([
      ...[works.friday, works.again, works.monday],
    ]);
    const back = (returned: number, handedIn: number) =>
      work({ versions: [version({ returnedAt: day(returned), handedInAt: day(handedIn) })] });
    const [late, early] = [back(1, 20), back(2, 3)];
    expect(placedOwnWork([early, late], NOW).back).toEqual([late, early]);
  });

  it('has what nobody handed in among the old by its due date', () => {
    const [older, newer] = [work({ dueAt: day(90) }), work({ dueAt: day(70) })];
    const over = work({ aside: true });
    expect(placedOwnWork([older, over, newer], NOW).old).toEqual([newer, older, over]);
    expect(placeOf({ dueAt: day(60) })).toBe('due');
    expect(placeOf({ dueAt: day(-3) })).toBe('due');
  });
});
