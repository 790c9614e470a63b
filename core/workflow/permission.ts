/** How a person stands to a submitted work, or to the assignment it belongs to. */
export interface Standing {
  /** Teaches the course. */
  teacher: boolean;
  /** Learns in the course. */
  student: boolean;
  /** Handed in this very work. */
  author: boolean;
  /** The feedback on this work has been returned. */
  returned: boolean;
  /** A teacher has opened it. */
  opened: boolean;
}

const teacher = ({ teacher }: Standing): boolean => teacher;
const draftOfTeacher = ({ teacher, returned }: Standing): boolean => teacher && !returned;
const readerOfWork = ({ teacher, author }: Standing): boolean => teacher || author;
const readerOfFeedback = ({ teacher, author, returned }: Standing): boolean => teacher || (author && returned);
const listener = ({ author, returned }: Standing): boolean => author && returned;
const talker = ({ teacher, author, returned }: Standing): boolean => returned && (teacher || author);

/** Who may do what, and when. The one place where this is decided. */
export const permissions = {
  'assignment.oversee': teacher,
  'assignment.set': teacher,
  'course.set': teacher,
  'assignment.handIn': ({ student }: Standing): boolean => student,
  'work.read': readerOfWork,
  'work.class': teacher,
  'work.withdraw': ({ author, opened, returned }: Standing): boolean => author && !opened && !returned,
  'feedback.read': readerOfFeedback,
  'feedback.return': teacher,
  'score.choose': draftOfTeacher,
  'points.give': draftOfTeacher,
  'remark.make': draftOfTeacher,
  'remark.change': draftOfTeacher,
  'remark.putAside': draftOfTeacher,
  'remark.reattach': teacher,
  'remark.readOriginal': teacher,
  'suggestion.take': listener,
  'transcript.mend': teacher,
  'remark.listen': readerOfFeedback,
  'remark.reportHeard': listener,
  'reply.make': talker,
  'reply.listen': readerOfFeedback,
} satisfies Record<string, (standing: Standing) => boolean>;

export type Action = keyof typeof permissions;

export const may = (standing: Standing, action: Action): boolean => permissions[action](standing);
