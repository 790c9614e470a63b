import type { Category as CoreCategory, CourseScheme as CoreScheme } from '#core/grading';
import { z } from 'zod';
import { WorkState } from './assignments.ts';
import { Hundredths, Id, Instant, Nothing } from './basics.ts';
import { address, endpoint } from './endpoint.ts';
import { Flag, Marking, Points } from './grading.ts';
import { NewScale } from './rubrics.ts';

const CategoryName = z.string().trim().max(60);
const Percent = Hundredths.min(0).max(100_00);

export const Category = z.object({
  name: CategoryName,
  weight: Percent.nullable(),
  drop: z.int().min(0).max(20),
  equal: z.boolean(),
}) satisfies z.ZodType<CoreCategory>;

export const CourseScheme = z.object({
  count: z.enum(['points', 'assignments', 'categories']),
  categories: z.array(Category).max(50),
  scale: NewScale,
  decimals: z.int().min(0).max(2),
  shown: z.boolean(),
}) satisfies z.ZodType<CoreScheme>;
export type CourseScheme = z.infer<typeof CourseScheme>;

/** An assignment as a column. */
export const GradeColumn = z.object({
  id: Id,
  title: z.string(),
  term: z.string().nullable(),
  category: z.string(),
  weight: Hundredths.nullable(),
  extra: z.boolean(),
  /** What it is out of; null where nobody has said. */
  possible: Hundredths.nullable(),
  shown: Marking.shape.shown,
  dueAt: Instant.nullable(),
  /** Students see it. */
  open: z.boolean(),
});
export type GradeColumn = z.infer<typeof GradeColumn>;

/** What is told of one student in one assignment, of the newest version of the work. */
export const GradeCell = z.object({
  submission: Id.nullable(),
  state: WorkState.nullable(),
  /** As it would be returned now, or was; null while there is none. */
  points: Hundredths.nullable(),
  possible: Hundredths.nullable(),
  grade: z.string().nullable(),
  flag: Flag.nullable(),
  late: z.boolean(),
  /** The result was typed here, without a work. */
  entered: z.boolean(),
  /** Its student sees the result. */
  returned: z.boolean(),
  /** Marked without names: whose it is, and so all about it, is not told before it is returned. */
  nameless: z.boolean(),
  /** A newer version than the one whose grade stands here is to be marked. */
  again: z.boolean(),
  /** Remarks to be heard by the student, how many were heard to the end, and answers that wait. */
  spoken: z.int(),
  heard: z.int(),
  unanswered: z.int(),
});
export type GradeCell = z.infer<typeof GradeCell>;

export const GradeRow = z.object({
  id: Id,
  name: z.string(),
  /** Is in the course no more. */
  left: z.boolean(),
  /** In the order of the columns; null where there is nothing to tell. */
  cells: z.array(GradeCell.nullable()),
});
export type GradeRow = z.infer<typeof GradeRow>;

export const Gradebook = z.object({
  course: z.object({ id: Id, title: z.string() }),
  terms: z.array(z.string()),
  scheme: CourseScheme,
  columns: z.array(GradeColumn),
  rows: z.array(GradeRow),
});
export type Gradebook = z.infer<typeof Gradebook>;

export const readGradebook = endpoint({ method: 'GET', path: '/courses/:course/gradebook', answer: Gradebook });

/** What of a cell can be changed, and is kept in its history. */
export const CellValue = z.object({
  points: Points.nullable(),
  flag: Flag.nullable(),
  returned: z.boolean(),
});
export type CellValue = z.infer<typeof CellValue>;

const Place = z.object({ assignment: Id, student: Id });

export const CellChange = Place.extend({
  /** What is not named stays. */
  to: z.object({ points: Points.nullable(), flag: Flag.nullable(), returned: z.boolean() }).partial(),
  /** What the person saw there; where another has put something else there by now, nothing is changed. */
  was: CellValue.optional(),
});
export type CellChange = z.infer<typeof CellChange>;

export const MOST_CHANGES = 2000;
export const CellChanges = z.object({
  changes: z.array(CellChange).min(1).max(MOST_CHANGES),
  why: z.string().trim().max(500).default(''),
});
export type CellChanges = z.infer<typeof CellChanges>;

export const PlacedCell = Place.extend({ cell: GradeCell.nullable() });
export type PlacedCell = z.infer<typeof PlacedCell>;

/** All of them, or none. */
export const changeCells = endpoint({
  method: 'PUT',
  path: '/courses/:course/gradebook',
  body: CellChanges,
  answer: z.object({ cells: z.array(PlacedCell) }),
});

/** How a cell came about. */
export const CellStory = z.object({
  /** The arithmetic, or why there is no result; empty where there is nothing to say. */
  explanation: z.string(),
  changes: z.array(
    z.object({ at: Instant, by: z.string().nullable(), was: CellValue, now: CellValue, why: z.string() }),
  ),
});
export type CellStory = z.infer<typeof CellStory>;

export const readCell = endpoint({
  method: 'GET',
  path: '/assignments/:assignment/students/:student/grade',
  answer: CellStory,
});

export const setScheme = endpoint({
  method: 'PUT',
  path: '/courses/:course/scheme',
  body: CourseScheme,
  answer: Nothing,
});

/** A student's own results, as far as they were returned. */
export const OwnGrades = z.object({
  course: z.object({ id: Id, title: z.string(), aside: z.boolean() }),
  /** Null where the teacher keeps the result of the course to themselves. */
  scheme: CourseScheme.nullable(),
  columns: z.array(GradeColumn.omit({ open: true })),
  cells: z.array(
    GradeCell.pick({
      submission: true,
      points: true,
      possible: true,
      grade: true,
      flag: true,
      late: true,
      state: true,
      spoken: true,
      heard: true,
    }).nullable(),
  ),
});
export type OwnGrades = z.infer<typeof OwnGrades>;
export const readOwnGrades = endpoint({ method: 'GET', path: '/own-grades', answer: z.array(OwnGrades) });

/** What a student has been given in a course, for a meeting: only what they see themselves. */
export const StudentReport = z.object({
  student: z.string(),
  course: z.object({ id: Id, title: z.string() }),
  scheme: CourseScheme,
  columns: z.array(GradeColumn),
  cells: z.array(GradeCell.nullable()),
  /** For each column. */
  details: z.array(
    z.object({
      explanation: z.string(),
      remarks: z.array(
        z.object({
          kind: z.string(),
          glyph: z.string(),
          /** The passage that it is about; empty where it is about something else. */
          passage: z.string(),
          criterion: z.string().nullable(),
          /** What was said and written. */
          words: z.string(),
          spoken: z.boolean(),
          heard: z.boolean(),
        }),
      ),
    }),
  ),
});
export type StudentReport = z.infer<typeof StudentReport>;
export const readReport = endpoint({
  method: 'GET',
  path: '/courses/:course/students/:student/report',
  answer: StudentReport,
});

/** A table out of a file, as it reads; nothing is done with it yet. */
export const readGradeTable = endpoint({
  method: 'POST',
  path: '/courses/:course/gradebook/table',
  upload: { files: 'one', largest: 'picture' },
  answer: z.object({ rows: z.array(z.array(z.string())) }),
});

/** All grades of a course for a spreadsheet. */
export const gradesCsv = address('/courses/:course/gradebook/csv');
export const gradesXlsx = address('/courses/:course/gradebook/xlsx');
