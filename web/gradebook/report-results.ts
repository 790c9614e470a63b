import type { GradeCell, GradeColumn, StudentReport } from '#contract/gradebook';

type Result = StudentReport['details'][number] & { column: GradeColumn; cell: GradeCell };

/** What has been given, each with what was said about it; assignments without a result are left out. */
export const resultsIn = ({ columns, cells, details }: StudentReport): Result[] =>
  columns.flatMap((column, at) => {
    const cell = cells[at];
    return cell ? [{ column, cell, ...details[at]! }] : [];
  });
