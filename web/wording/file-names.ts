import type { Work } from '#contract/submissions';
import { fileNameOf } from '#core/text';

/** What files made of a work are called: by its student, or what they are called where marking is anonymous, and its assignment. */
export const nameOfWork = ({ student, assignment }: Pick<Work, 'student' | 'assignment'>): string =>
  fileNameOf(`${student.name}, ${assignment.title}`, 'Work');
