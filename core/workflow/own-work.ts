/** A student's work in one assignment, as far as it says where on their page it belongs. Instants are ISO 8601. */
export interface OwnWorkFacts {
  dueAt: string | null;
  /** The course is over. */
  aside: boolean;
  /** The newest first; one that was withdrawn counts for nothing. */
  versions: readonly {
    handedInAt: string;
    returnedAt: string | null;
    withdrawnAt: string | null;
    spoken: number;
    heard: number;
  }[];
}

/** `back`: returned, and to be heard; `due`: to be done; `handedIn`: with the teacher; `old`: asks for nothing any more. */
export type OwnWorkPlace = 'back' | 'due' | 'handedIn' | 'old';
export const OWN_WORK_PLACES = ['back', 'due', 'handedIn', 'old'] as const satisfies readonly OwnWorkPlace[];

const DAY = 24 * 60 * 60 * 1000;
/** So long what came back stays in view once all of it was heard, and what nobody handed in once it was due, in days. */
const KEPT_DAYS = { back: 30, due: 60 };

const isLongAgo = (instant: string, days: number, now: string): boolean =>
  Date.parse(now) - Date.parse(instant) > days * DAY;

export function ownWorkPlace({ dueAt, aside, versions }: OwnWorkFacts, now: string): OwnWorkPlace {
  const newest = versions.find(({ withdrawnAt }) => withdrawnAt === null);
  if (aside) return 'old';
  if (!newest) return dueAt !== null && isLongAgo(dueAt, KEPT_DAYS.due, now) ? 'old' : 'due';
  if (newest.returnedAt === null) return 'handedIn';
  const done = newest.heard >= newest.spoken && isLongAgo(newest.returnedAt, KEPT_DAYS.back, now);
  return done ? 'old' : 'back';
}

const NEVER = '9999';

/** What one has to know first stands first: the latest return, the nearest due date, the latest work. */
function order({ dueAt, versions }: OwnWorkFacts, place: OwnWorkPlace): string {
  if (place === 'due') return dueAt ?? NEVER;
  const newest = versions.find(({ withdrawnAt }) => withdrawnAt === null);
  return (place === 'back' ? newest?.returnedAt : newest?.handedInAt) ?? dueAt ?? '';
}

/** All of a student's work, each in its place, in order. */
export function placedOwnWork<Work extends OwnWorkFacts>(
  works: readonly Work[],
  now: string,
): Record<OwnWorkPlace, Work[]> {
  const at = (place: OwnWorkPlace): Work[] => {
    const here = works.filter((work) => ownWorkPlace(work, now) === place);
    const sorted = here.toSorted((a, b) => order(a, place).localeCompare(order(b, place)));
    return place === 'due' ? sorted : sorted.reverse();
  };
  return { back: at('back'), due: at('due'), handedIn: at('handedIn'), old: at('old') };
}
