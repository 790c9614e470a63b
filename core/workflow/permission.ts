interface InCourse {
  /** Teaches the course. */
  teacher: boolean;
  /** Learns in the course. */
  student: boolean;
}

interface InAssignment extends InCourse {
  /** Works of another assignment are marked a second time in it. */
  second: boolean;
}

interface ToWork {
  /** Teaches the course. */
  teacher: boolean;
  /** Handed in this very work. */
  author: boolean;
  /** The feedback on this work has been returned. */
  returned: boolean;
  /** Its student does not see the remarks, though it has been returned. */
  silent: boolean;
  /** A teacher has opened it. */
  opened: boolean;
  /** It is here to be marked a second time. */
  second: boolean;
  /** And that has been handed over. */
  closed: boolean;
  /** Would be its teacher, but marks it a second time and must not see what was given. */
  blind: boolean;
}

/**
 * How a person can stand to each sort of object. Whoever comes to an object in another way (by a link, as the steward of a
 * school) is one more field here and one more column of its query in `server/access/standing.ts`.
 */
export interface Standings {
  course: InCourse;
  assignment: InAssignment;
  submission: ToWork;
  remark: ToWork;
  /** The work is the one that what holds the recording is about; in the bank and as a greeting there is none, and it is its owner's; a note
   * is as a work of everybody who learns in its course, and always returned. */
  recording: ToWork & { holder: 'remark' | 'reply' | 'bank' | 'note'; owner: boolean };
  /** `shared`: it is theirs, or its owner shares it with them. */
  banked: { owner: boolean; shared: boolean };
  note: InCourse;
  /** `teacher` of the course of its works; `marker`: the second one, who has not handed it over. */
  moderation: { teacher: boolean; marker: boolean; finished: boolean };
  /** A student is one who has been given it. */
  handout: InCourse;
  /** `steward`: whoever asks looks after the people of the school; `other`: and this is nobody who does; `own`: was entered in a course
   * of theirs and has to do with nobody else's. */
  person: { steward: boolean; other: boolean; own: boolean };
  stamp: { owner: boolean };
  upload: { owner: boolean };
}
export type ObjectKind = keyof Standings;

const teaches = ({ teacher }: { teacher: boolean }): boolean => teacher;
const sets = ({ teacher, second }: InAssignment): boolean => teacher && !second;
const marks = ({ teacher, returned, closed }: ToWork): boolean => teacher && !returned && !closed;
const returns = ({ teacher, second }: ToWork): boolean => teacher && !second;
const readsWork = ({ teacher, author }: ToWork): boolean => teacher || author;
const readsFeedback = ({ teacher, author, returned }: ToWork): boolean => teacher || (author && returned);
const isAnswered = ({ author, returned, silent }: ToWork): boolean => author && returned && !silent;
const readsRemark = (standing: ToWork): boolean => standing.teacher || isAnswered(standing);
const talks = (standing: ToWork): boolean => standing.returned && readsRemark(standing);
/** Whoever stands to a recording in the bank at all may hear it. */
const hears = (standing: ToWork & { holder: string }): boolean => standing.holder === 'bank' || readsRemark(standing);
const looksAfter = ({ steward, other, own }: Standings['person']): boolean => own || (steward && other);
const owns = ({ owner }: { owner: boolean }): boolean => owner;

/** What an action is about, and who may. */
interface Rule<Kind extends ObjectKind> {
  about: Kind;
  may: (standing: Standings[Kind]) => boolean;
}
const on = <Kind extends ObjectKind>(about: Kind, may: Rule<Kind>['may']): Rule<Kind> => ({ about, may });

/** Who may do what, and when. The one place where this is decided. */
export const permissions = {
  'course.set': on('course', teaches),
  'course.read': on('course', ({ teacher, student }) => teacher || student),
  'assignment.oversee': on('assignment', teaches),
  'assignment.set': on('assignment', sets),
  'assignment.handIn': on('assignment', ({ student }) => student),
  'work.read': on('submission', readsWork),
  'work.receipt': on('submission', ({ author }) => author),
  'work.class': on('submission', teaches),
  'work.ask': on('submission', isAnswered),
  'work.marked': on('submission', readsRemark),
  'work.withdraw': on('submission', ({ author, opened, returned }) => author && !opened && !returned),
  'feedback.read': on('submission', readsFeedback),
  'feedback.return': on('submission', returns),
  'feedback.preview': on('submission', teaches),
  'assignment.return': on('assignment', sets),
  'standing.set': on('assignment', sets),
  'moderation.start': on('assignment', sets),
  'moderation.read': on('moderation', ({ teacher, marker }) => teacher || marker),
  'moderation.finish': on('moderation', ({ marker, finished }) => marker && !finished),
  'moderation.callOff': on('moderation', ({ teacher, marker, finished }) => teacher && !marker && !finished),
  'moderation.settle': on('moderation', ({ teacher, finished }) => teacher && finished),
  'result.adjust': on('submission', marks),
  'score.choose': on('submission', marks),
  'points.give': on('submission', marks),
  'remark.make': on('submission', marks),
  'remark.reattach': on('submission', teaches),
  'remark.change': on('remark', marks),
  'remark.putAside': on('remark', marks),
  'remark.bank': on('remark', teaches),
  'remark.drop': on('submission', marks),
  'bank.read': on('banked', ({ shared }) => shared),
  'bank.use': on('banked', ({ shared }) => shared),
  'bank.change': on('banked', owns),
  'greeting.keep': on('course', teaches),
  'note.make': on('course', teaches),
  'note.putAside': on('note', teaches),
  'remark.read': on('remark', readsRemark),
  'suggestion.take': on('remark', isAnswered),
  'remark.dealWith': on('remark', isAnswered),
  'reply.make': on('remark', talks),
  'thread.settle': on('remark', talks),
  'recording.hear': on('recording', hears),
  'recording.reportHeard': on('recording', (standing) =>
    standing.holder === 'reply' ? talks(standing) && !standing.owner : isAnswered(standing),
  ),
  'recording.change': on(
    'recording',
    (standing) => standing.holder !== 'reply' && (standing.holder === 'note' ? teaches(standing) : marks(standing)),
  ),
  'recording.readOriginal': on('recording', teaches),
  'recording.mend': on(
    'recording',
    (standing) => standing.teacher || (standing.holder === 'reply' && standing.owner && isAnswered(standing)),
  ),
  'handout.read': on('handout', ({ teacher, student }) => teacher || student),
  'handout.change': on('handout', teaches),
  'person.change': on('person', looksAfter),
  'person.merge': on('person', looksAfter),
  'person.giveSlip': on('person', looksAfter),
  'person.administer': on('person', ({ steward, other }) => steward && other),
  'person.reset': on('person', ({ steward, other }) => steward && other),
  'person.export': on('person', ({ steward, other }) => steward && other),
  'person.erase': on('person', ({ steward, other }) => steward && other),
  'stamp.read': on('stamp', owns),
  'stamp.remove': on('stamp', owns),
  'upload.send': on('upload', owns),
  'upload.use': on('upload', owns),
} satisfies Record<string, { [Kind in ObjectKind]: Rule<Kind> }[ObjectKind]>;

export type Action = keyof typeof permissions;
export type ObjectOf<A extends Action> = (typeof permissions)[A]['about'];
export type StandingFor<A extends Action> = Standings[ObjectOf<A>];

export const objectOf = <A extends Action>(action: A): ObjectOf<A> => permissions[action].about;

export const may = <A extends Action>(standing: StandingFor<A>, action: A): boolean =>
  permissions[action].may(standing as never);

/** Who learns that there is such an object at all; for everybody else it does not exist. */
const seen: { [Kind in ObjectKind]: (standing: Standings[Kind]) => boolean } = {
  course: ({ teacher, student }) => teacher || student,
  assignment: ({ teacher, student }) => teacher || student,
  submission: readsFeedback,
  remark: readsRemark,
  recording: hears,
  banked: ({ shared }) => shared,
  note: ({ teacher, student }) => teacher || student,
  moderation: ({ teacher, marker }) => teacher || marker,
  handout: ({ teacher, student }) => teacher || student,
  person: ({ steward }) => steward,
  stamp: owns,
  upload: owns,
};

/** Why somebody may not. */
export type Refusal = 'unseen' | 'opened' | 'returned' | 'notReturned' | 'blind' | 'closed' | 'notAllowed';

/** Why a standing does not allow an action; undefined where it does. */
export function refusal<A extends Action>(standing: StandingFor<A>, action: A): Refusal | undefined {
  if (may(standing, action)) return undefined;
  if (action === 'work.withdraw' && 'author' in standing && standing.author) return 'opened';
  if ('blind' in standing && standing.blind && may({ ...standing, teacher: true }, action)) return 'blind';
  if ('closed' in standing && standing.closed && may({ ...standing, closed: false }, action)) return 'closed';
  if (!seen[objectOf(action)](standing as never)) return 'unseen';
  if (!('returned' in standing) || !may({ ...standing, returned: !standing.returned }, action)) return 'notAllowed';
  return standing.returned ? 'returned' : 'notReturned';
}
