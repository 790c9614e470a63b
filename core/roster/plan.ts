import { isMail, type Listed, type RosterLine } from './read-roster.ts';

/** Somebody whom the school knows. */
export interface Known extends Listed {
  id: string;
  /** Whether they learn in this course already. */
  here: boolean;
}

/** What comes of a line of a class list. */
export type Fate =
  | { fate: 'add' }
  /** The school knows them from elsewhere. */
  | { fate: 'join'; person: string }
  | { fate: 'known'; person: string }
  | { fate: 'refuse'; why: 'noName' | 'longName' | 'noMail' | 'twice' | 'otherName' | 'teaches' };

export type PlannedLine = RosterLine & Fate;

const LONGEST_NAME = 200;

const fold = (text: string): string => text.normalize('NFKC').toLowerCase();

/**
 * Says of each line what will come of it. People are told apart by number, then by mail; by their name only where a line has
 * neither, and only within the course.
 * @param known everybody of the school whom a line may mean
 * @param teachers ids of those who teach the course
 */
export function planRoster(
  lines: readonly RosterLine[],
  known: readonly Known[],
  teachers: ReadonlySet<string> = new Set(),
): PlannedLine[] {
  const seen = new Set<string>();
  return lines.map((line): PlannedLine => {
    const wrong = wrongWith(line);
    if (wrong) return { ...line, fate: 'refuse', why: wrong };
    const keys = keysOf(line);
    if (keys.some((key) => seen.has(key))) return { ...line, fate: 'refuse', why: 'twice' };
    for (const key of keys) seen.add(key);
    const person = meant(line, known);
    if (!person) return { ...line, fate: 'add' };
    if (teachers.has(person.id)) return { ...line, fate: 'refuse', why: 'teaches' };
    if (fold(person.name) !== fold(line.name) && !person.here) return { ...line, fate: 'refuse', why: 'otherName' };
    return { ...line, fate: person.here ? 'known' : 'join', person: person.id };
  });
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
      one.here &&
      fold(one.name) === fold(name) &&
      // Two of one name are told apart by what else is known of them.
      (number === '' || one.number === '') &&
      (mail === '' || one.mail === ''),
  ) ||
  undefined;
