/** What the outbox has to know about the changes of one subject. */
export interface Subject<Change = unknown> {
  /**
   * A change as it was kept, checked, and carried over from an earlier version of parcels.
   * @throws where it cannot be understood
   */
  read(kept: unknown, writtenIn: number): { change: Change; touches: string[] };
  /** Brings a change to the server and answers with what it made of it, for those who listen. */
  send(about: string, change: Change): Promise<unknown>;
  /** Where the server refuses a change because somebody else was there: what stands there now beside what it would put there. */
  compare?(change: Change, now: unknown): { what: string; now: string; mine: string }[];
  /** The change of somebody who has seen that and wants it all the same. */
  over?(change: Change, now: unknown): Change;
}

type Load = () => Promise<Subject>;

const subjects = new Map<string, Load>();

/** Says how the changes of a subject are read and sent. It is loaded when there are any. */
export const registerSubject = (name: string, load: Load): void => void subjects.set(name, load);

/** Loads all of them; one that does not come is asked for again when it is needed. */
export const loadSubjects = async (): Promise<void> =>
  void (await Promise.allSettled([...subjects.values(), () => import('tus-js-client')].map((load) => load())));

export async function subjectOf(name: string): Promise<Subject> {
  const load = subjects.get(name);
  if (!load) throw new Error(`Nobody knows how to send what is about ${name}`);
  return load();
}
