import { meetingOf, type Standing } from './identity.ts';
import { isMail, type Listed, type RosterLine } from './read-roster.ts';

/** Somebody whom the school knows. */
export interface Known extends Listed, Standing {
  id: string;
}

/** What comes of a line of a class list. */
export type Fate =
  | { fate: 'add' }
  /** The school knows them, and they come in at once. */
  | { fate: 'join'; person: string }
  /** The school knows them, and they are asked. */
  | { fate: 'invite'; person: string }
  | { fate: 'known'; person: string }
  | { fate: 'refuse'; why: 'noName' | 'longName' | 'noMail' | 'twice' | 'otherName' | 'teaches' };

export type PlannedLine = RosterLine & Fate;

const LONGEST_NAME = 200;

const fold = (text: string): string => text.normalize('NFKC').toLowerCase();

/**
 * Says of each line what will come of it. People are told apart by number, then by mail; by their name only where a line has
 * neither, and only within the course.
 * @param known everybody of the school whom a line may mean
 */
export function planRoster(lines: readonly RosterLine[], known: readonly Known[]): PlannedLine[] {
  const seen = new Set<string>();
  return lines.map((line): PlannedLine => {
    const wrong = wrongWith(line);
    if (wrong) return { ...line, fate: 'refuse', why: wrong };
    const keys = keysOf(line);
    if (keys.some((key) => seen.has(key))) return { ...line, fate: 'refuse', why: 'twice' };
    for (const key of keys) seen.add(key);
    const person = meant(line, known);
    if (!person) return { ...line, fate: 'add' };
    if (fold(person.name) !== fold(line.name) && person.here === null)
      return { ...line, fate: 'refuse', why: 'otherName' };
    return { ...line, ...fateOf(person) };
  });
}

/** What comes of a line that means somebody whom the school knows. */
export function fateOf(person: Known): Fate {
  const meeting = meetingOf(person);
  return meeting === 'teaches' ? { fate: 'refuse', why: 'teaches' } : { fate: meeting, person: person.id };
}

function wrongWith({ name, mail }: Listed): 'noName' | 'longName' | 'noMail' | undefined {
  if (!/\p{L}/u.test(name)) return 'noName';
  if (name.length > LONGEST_NAME) return 'longName';
  return mail !== '' && !isMail(mail) ? 'noMail' : undefined;
}

/** What nobody else in a list may have. */
const keysOf = ({ name, mail, number }: Listed): string[] => {
  const own = [...(number ? [`number ${fold(number)}`] : []), ...(mail ? [`mail ${fold(mail)}`] : [])];
  return own.length > 0 ? own : [`name ${fold(name)}`];
};

const meant = ({ name, mail, number }: Listed, known: readonly Known[]): Known | undefined =>
  (number && known.find((one) => fold(one.number) === fold(number))) ||
  (mail && known.find((one) => fold(one.mail) === fold(mail))) ||
  known.find(
    (one) =>
      one.here !== null &&
      fold(one.name) === fold(name) &&
      // Two of one name are told apart by what else is known of them.
      (number === '' || one.number === '') &&
      (mail === '' || one.mail === ''),
  ) ||
  undefined;
