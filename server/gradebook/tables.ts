import { courseGrader } from '#core/grading';
import { fileNameOf } from '#core/text';
import ExcelJS from 'exceljs';
import { PassThrough } from 'node:stream';
import { setImmediate } from 'node:timers/promises';
import Papa from 'papaparse';
import type { Gradebook } from '../../contract/gradebook.ts';
import type { Member } from '../../contract/roster.ts';

/** Numbers stay numbers in a spreadsheet. */
type Value = string | number | null;

const BYTE_ORDER_MARK = '\ufeff';
/** So many lines are written before others have a turn. */
const LINES_AT_ONCE = 100;

/** A line for each student, as an import takes it back: whole hundredths become points. */
function* linesOf({ columns, rows, scheme }: Gradebook, members: readonly Member[]): Generator<Value[]> {
  yield ['Student', 'Number', 'Mail', ...columns.map(({ title }) => title), 'Course grade', 'Course per cent'];
  const known = new Map(members.map((member) => [member.id, member]));
  const grader = courseGrader(columns, scheme);
  for (const { id, name, cells } of rows) {
    const { grade, percentage } = grader(cells.map((cell) => cell ?? undefined));
    yield [
      ...[name, known.get(id)?.number ?? '', known.get(id)?.mail ?? ''],
      ...cells.map((cell) => cell?.flag ?? (cell && cell.points !== null ? cell.points / 100 : null)),
      ...[grade ?? '', percentage === null ? null : percentage / 100],
    ];
  }
}

export const fileNameFor = ({ course }: Gradebook, ending: 'csv' | 'xlsx'): string =>
  `${fileNameOf(course.title, 'course')} grades.${ending}`;

/** As comma-separated values (RFC 4180). A cell that begins like a formula is none. */
export async function* gradesAsCsv(book: Gradebook, members: readonly Member[]): AsyncGenerator<string> {
  yield BYTE_ORDER_MARK;
  let written = 0;
  for (const line of linesOf(book, members)) {
    yield `${Papa.unparse([line], { escapeFormulae: true, newline: '\r\n' })}\r\n`;
    if (++written % LINES_AT_ONCE === 0) await setImmediate();
  }
}

/** As an Office Open XML workbook, line by line. Texts are kept as texts, so that none is a formula. */
export async function* gradesAsXlsx(book: Gradebook, members: readonly Member[]): AsyncGenerator<Uint8Array> {
  const stream = new PassThrough();
  const writing = (async () => {
    const workbook = new ExcelJS.stream.xlsx.WorkbookWriter({ stream, useStyles: false, useSharedStrings: false });
    const sheet = workbook.addWorksheet('Grades', { views: [{ state: 'frozen', xSplit: 1, ySplit: 1 }] });
    let written = 0;
    for (const line of linesOf(book, members)) {
      sheet.addRow(line).commit();
      if (++written % LINES_AT_ONCE === 0) await setImmediate();
    }
    sheet.commit();
    await workbook.commit();
  })();
  // What fails while it is written ends the file.
  writing.catch((error: Error) => stream.destroy(error));
  yield* stream as AsyncIterable<Uint8Array>;
  await writing;
}
