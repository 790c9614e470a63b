import { formatHundredths, parseHundredths, weightProblem, type Rubric } from '#core/grading';
import { type PlainCriterion } from '#core/rubric-table';

/** A rubric while it is being written: points are what was typed. */
export interface LevelDraft {
  id: string;
  title: string;
  description: string;
  points: string;
}
export interface CriterionDraft {
  id: string;
  title: string;
  description: string;
  levels: LevelDraft[];
  /** Per cent; empty for none. */
  weight: string;
  bonus: boolean;
}

const MOST_POINTS = 100_000;
const USUAL = [
  { title: 'Not yet', points: '0' },
  { title: 'On the way', points: '1' },
  { title: 'Secure', points: '2' },
];

const id = (): string => crypto.randomUUID();

export const newLevel = (title = '', points = ''): LevelDraft => ({ id: id(), title, description: '', points });

/** Named and pointed like the one before it, where there is one. */
export const newCriterion = (before?: CriterionDraft): CriterionDraft => ({
  ...{ id: id(), title: '', description: '', weight: '', bonus: false },
  levels: (before?.levels ?? USUAL).map(({ title, points }) => newLevel(title, points)),
});

/** The same again, as a criterion of its own. */
export const duplicateOf = (one: CriterionDraft): CriterionDraft => ({
  ...one,
  id: id(),
  levels: one.levels.map((level) => ({ ...level, id: id() })),
});

export const draftOf = (rubric: Rubric): CriterionDraft[] =>
  rubric.map((criterion) => ({
    ...criterion,
    weight: criterion.weight === undefined ? '' : formatHundredths(criterion.weight),
    bonus: criterion.bonus ?? false,
    levels: criterion.levels.map((level) => ({ ...level, points: formatHundredths(level.points) })),
  }));

/** From a table or a shelf, under new identities. */
export const draftFrom = (rubric: readonly PlainCriterion[]): CriterionDraft[] =>
  draftOf(
    rubric.map((criterion) => ({
      ...criterion,
      id: id(),
      levels: criterion.levels.map((level) => ({ ...level, id: id() })),
    })),
  );

const pointsOf = (text: string): number | undefined => {
  const points = parseHundredths(text);
  return points !== undefined && points >= 0 && points <= MOST_POINTS ? points : undefined;
};

const weightOf = (text: string): number | undefined => {
  const weight = parseHundredths(text);
  return weight !== undefined && weight >= 0 && weight <= 100_00 ? weight : undefined;
};

/** What is wrong, as a sentence that says where; undefined where all is well. */
export function faultOf(draft: readonly CriterionDraft[], questions = 0): string | undefined {
  for (const [index, { title, levels, weight }] of draft.entries()) {
    const name = title.trim() ? `“${title.trim()}”` : `Criterion ${index + 1}`;
    if (title.trim() === '') return `${name} has no title yet.`;
    if (weight.trim() !== '' && weightOf(weight) === undefined)
      return `${name}: a weight is a number from 0 to 100 with up to two decimals, like 12.5.`;
    if (levels.length === 0) return `${name} has no level, so nobody can be scored by it. Add one.`;
    for (const [place, level] of levels.entries()) {
      const which = level.title.trim() ? `“${level.title.trim()}”` : `level ${place + 1}`;
      if (level.title.trim() === '') return `${name}: ${which} has no name yet.`;
      if (pointsOf(level.points) === undefined)
        return `${name}, ${which}: points are a number from 0 to 1000 with up to two decimals, like 7.5.`;
    }
  }
  return weightProblem(rubricOf(draft), questions);
}

/** Call where there is no fault. */
export const rubricOf = (draft: readonly CriterionDraft[]): Rubric =>
  draft.map(({ id, title, description, levels, weight, bonus }) => ({
    ...{ id, title: title.trim(), description: description.trim() },
    // What is extra has its points, and no share of the result.
    ...(bonus ? { bonus } : weight.trim() !== '' && { weight: weightOf(weight) ?? 0 }),
    levels: levels.map((level) => ({
      ...level,
      title: level.title.trim(),
      description: level.description.trim(),
      points: pointsOf(level.points) ?? 0,
    })),
  }));

/** The most that can be had, as far as it can be read. */
export const possibleOf = (draft: readonly CriterionDraft[]): number =>
  draft.reduce(
    (sum, { levels, bonus }) => (bonus ? sum : sum + Math.max(0, ...levels.map(({ points }) => pointsOf(points) ?? 0))),
    0,
  );
