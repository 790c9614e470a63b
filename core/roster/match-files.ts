export interface Student {
  id: string;
  name: string;
  number?: string | undefined;
}

const wordsOf = (text: string): string[] =>
  text
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean);

/**
 * Whose work each file probably is: the student whose number stands in its name, or all of whose names do, or whose one name
 * does that nobody else has. Where two students fit equally well, nobody is chosen.
 * @returns the id of a student for each file, in order; undefined where a person has to say it
 */
export function matchFiles(fileNames: readonly string[], students: readonly Student[]): (string | undefined)[] {
  const named = students.map(({ id, name, number }) => ({
    id,
    words: wordsOf(name),
    number: wordsOf(number ?? '').join(''),
  }));
  const common = new Map<string, number>();
  for (const { words } of named) for (const word of new Set(words)) common.set(word, (common.get(word) ?? 0) + 1);
  return fileNames.map((fileName) => {
    const words = new Set(wordsOf(fileName.replace(/\.[^.]*$/u, '')));
    const joined = [...words].join('');
    const scores = named.map(({ id, words: own, number }) => {
      if (number && words.has(number)) return { id, score: 100 };
      const here = own.filter((word) => words.has(word));
      if (own.length > 0 && here.length === own.length) return { id, score: 10 + own.length };
      if (own.length > 1 && joined.includes(own.join(''))) return { id, score: 10 + own.length };
      return { id, score: here.some((word) => word.length > 1 && common.get(word) === 1) ? here.length : 0 };
    });
    const best = Math.max(0, ...scores.map(({ score }) => score));
    const fitting = scores.filter(({ score }) => score === best);
    return best > 0 && fitting.length === 1 ? fitting[0]!.id : undefined;
  });
}
