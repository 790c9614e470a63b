import { STARTERS } from '#core/rubric-table';
import { describe, expect, it } from 'vitest';
import {
  draftFrom,
  draftOf,
  duplicateOf,
  faultOf,
  newCriterion,
  newLevel,
  possibleOf,
  rubricOf,
  type CriterionDraft,
} from './rubric-draft.ts';

describe('a rubric while it is written', () => {
  it('comes back as it was, and counts what can be had', () => {
    const rubric = rubricOf(draftFrom(STARTERS[0]!.rubric));
    expect(rubricOf(draftOf(rubric))).toEqual(rubric);
    expect(possibleOf(draftOf(rubric))).toBe(2000);
    const ids = rubric.flatMap(({ id, levels }) => [id, ...levels.map((level) => level.id)]);
    expect(new Set(ids).size).toBe(ids.length);
  });

  it('a criterion begins with the levels of the one before, and a duplicate has an identity of its own', () => {
    const [first] = draftFrom(STARTERS[1]!.rubric);
    expect(newCriterion(first).levels.map(({ title, points }) => [title, points])).toEqual([
      ['On the way', '0'],
      ['Secure', '2'],
      ['Strong', '4'],
    ]);
    const twin = duplicateOf(first!);
    expect(twin.title).toBe(first!.title);
    expect(twin.id).not.toBe(first!.id);
    expect(twin.levels[0]!.id).not.toBe(first!.levels[0]!.id);
  });

  it.each<[Partial<CriterionDraft>, string]>([
    [{ title: ' ' }, 'Criterion 1 has no title yet.'],
    [{ weight: '101' }, '“Claim”: a weight is a number from 0 to 100 with up to two decimals, like 12.5.'],
    [{ weight: 'half' }, '“Claim”: a weight is a number from 0 to 100 with up to two decimals, like 12.5.'],
    [{ weight: '90' }, 'The weights add up to 90 %, not to 100 %.'],
    [{ levels: [] }, '“Claim” has no level, so nobody can be scored by it. Add one.'],
    [{ levels: [newLevel(' ', '1')] }, '“Claim”: level 1 has no name yet.'],
    ...['many', '-1', '1.234', '1001', '', 'NaN'].map((points): [Partial<CriterionDraft>, string] => [
      { levels: [newLevel('Good', points)] },
      '“Claim”, “Good”: points are a number from 0 to 1000 with up to two decimals, like 7.5.',
    ]),
  ])('says what is wrong: %j', (change, sentence) => {
    const one = { ...newCriterion(), title: 'Claim', ...change };
    expect(faultOf([one])).toBe(sentence);
    expect(faultOf([{ ...newCriterion(), title: 'Claim' }])).toBeUndefined();
  });
});
