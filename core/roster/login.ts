import { withoutEnds } from '../text/index.ts';
const LONGEST = 60;

/**
 * What somebody types to sign in: their name in small letters, without accents, joined by hyphens; with a number where it is
 * taken. Letters of other scripts stay.
 */
export function loginFor(name: string, taken: ReadonlySet<string>): string {
  const joined = name
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .normalize('NFC')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .slice(0, LONGEST);
  const plain = withoutEnds(joined, /-/u) || 'student';
  if (!taken.has(plain)) return plain;
  let number = 2;
  while (taken.has(`${plain}-${number}`)) number++;
  return `${plain}-${number}`;
}
