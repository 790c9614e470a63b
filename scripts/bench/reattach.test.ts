import { describe, expect, it } from 'vitest';
import { accuracy, licence } from './reattach.ts';

/** Two light revisions and a heavy one, of those that `vivid bench reattach` goes through. */
describe.each([
  ['LGPL-2.0-only', 'LGPL-2.1-only'],
  ['MPL-1.0', 'MPL-1.1'],
  ['GPL-2.0-only', 'GPL-3.0-only'],
])('passages of %s in %s, two published versions of one text', (old, next) => {
  it('are found where they are, and lost where they were taken out', () => {
    const { kept, edited, removed } = accuracy(old, licence(old), licence(next));
    expect(kept.passages).toBeGreaterThan(40);
    expect(kept.right / kept.passages).toBeGreaterThanOrEqual(0.98);
    expect(edited.right / edited.passages).toBeGreaterThanOrEqual(0.9);
    expect([kept.wrong, removed.wrong]).toEqual([0, 0]);
  });
});
