import { namedIn } from '#core/transcript';

/** A draft of feedback, as far as it is looked through before it goes out. */
export interface Draft {
  student: string;
  remarks: DraftRemark[];
  /** What is not scored yet, by name, of so many parts. */
  unscored: string[];
  parts: number;
}

export interface DraftRemark {
  id: string;
  /** About the work as a whole. */
  whole: boolean;
  spoken: boolean;
  /** What it says; of a spoken one its transcript. */
  text: string;
  /** Its transcript is the machine's, and nobody has read it. */
  unread: boolean;
}

/** What a teacher may want to mend before a work goes out. None of them stands in the way. */
export type Finding =
  | { type: 'nothingSaid' }
  | { type: 'noOverall' }
  | { type: 'unscored'; titles: string[] }
  | { type: 'unread'; remarks: string[] }
  | { type: 'wordless'; remarks: string[] }
  | { type: 'otherName'; remark: string; name: string }
  | { type: 'few'; remarks: number; usual: number };

/** Somebody has far fewer remarks than the others if they have less than this share of what is usual. */
const FAR_FEWER = 0.5;
/** Below this nobody can say what is usual. */
const ENOUGH_WORKS = 4;

/** Looks through drafts that go out together; answers in their order. */
export function findingsIn(drafts: readonly Draft[]): Finding[][] {
  const usual = medianOf(drafts.map(({ remarks }) => remarks.length).filter((count) => count > 0));
  const names = drafts.map(({ student }) => student);
  return drafts.map((draft) => findingsOf(draft, names, drafts.length >= ENOUGH_WORKS ? usual : 0));
}

function findingsOf({ student, remarks, unscored, parts }: Draft, names: readonly string[], usual: number): Finding[] {
  const ids = (which: (remark: DraftRemark) => boolean): string[] => remarks.filter(which).map(({ id }) => id);
  const unread = ids((remark) => remark.unread && remark.text !== '');
  const wordless = ids(({ spoken, text }) => spoken && text === '');
  // That it is not begun says all.
  if (remarks.length === 0 && unscored.length === parts) return [{ type: 'nothingSaid' }];
  const findings: (Finding | false)[] = [
    remarks.length === 0 && { type: 'nothingSaid' },
    remarks.length > 0 && !remarks.some(({ whole }) => whole) && { type: 'noOverall' },
    unscored.length > 0 && { type: 'unscored', titles: unscored },
    unread.length > 0 && { type: 'unread', remarks: unread },
    wordless.length > 0 && { type: 'wordless', remarks: wordless },
    ...otherNames(student, remarks, names),
    remarks.length > 0 && remarks.length < usual * FAR_FEWER && { type: 'few', remarks: remarks.length, usual },
  ];
  return findings.filter((finding) => finding !== false);
}

/** A remark that was meant for somebody else, or names them. What two share as a name says nothing. */
function otherNames(student: string, remarks: readonly DraftRemark[], names: readonly string[]): Finding[] {
  const own = new Set(student.split(/[\s-]+/u).map((part) => part.toLowerCase()));
  const others = names.filter((name) => name !== student);
  return remarks.flatMap(({ id, text }) => {
    const words = text.split(/\s+/u);
    // Names are written large; "mark" and "will" are not.
    const named = namedIn(words, others)
      .map((index) => words[index]!.replace(/[^\p{L}\p{M}'’-]+/gu, ''))
      .find((word) => /^\p{Lu}/u.test(word) && !own.has(word.replace(/['’]s?$/u, '').toLowerCase()));
    return named ? [{ type: 'otherName' as const, remark: id, name: named }] : [];
  });
}

function medianOf(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)] ?? 0;
}
