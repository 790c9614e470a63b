import ExcelJS from 'exceljs';
import { strToU8, zipSync } from 'fflate';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { PLAIN_MARKING } from '#core/grading';
import { planImport } from '#core/gradebook';
import type { Gradebook } from '../../contract/gradebook.ts';
import { updateMember } from '../roster/queries.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import type { TestAnswer } from '../testing/client.ts';
import { essay, startTestSchool, type TestSchool } from '../testing/school.ts';

describe.each(bodies)('grades as a file, on $name', ({ open }) => {
  let test: TestDatabase;
  let school: TestSchool;
  beforeAll(async () => {
    test = await open();
    school = await startTestSchool(test.db);
    const { author, classmate } = school.ids;
    await updateMember(test.db, author, { name: '=1+1 Quispe', number: 'A7' });
    await school.as.teacher.send('PATCH', `/assignments/${school.assignment}`, {
      body: { title: 'Essay, the first', marking: { ...PLAIN_MARKING } },
    });
    await school.as.teacher.send('PUT', `/courses/${school.course}/gradebook`, {
      body: {
        changes: [
          { assignment: school.assignment, student: author, to: { points: 350 } },
          { assignment: school.assignment, student: classmate, to: { flag: 'excused' } },
        ],
      },
    });
  });
  afterAll(async () => {
    await school.stop();
    await test.remove();
  });

  const file = async (ending: string): Promise<Buffer> =>
    Buffer.from(await (await school.as.teacher.fetch(`/courses/${school.course}/gradebook/${ending}`)).arrayBuffer());
  const table = (bytes: Buffer, fileName: string, who: 'teacher' | 'author' = 'teacher'): Promise<TestAnswer> =>
    school.as[who].send('POST', `/courses/${school.course}/gradebook/table`, { file: bytes, fileName });
  const rowsOf = async (bytes: Buffer, fileName: string): Promise<string[][]> =>
    ((await table(bytes, fileName)).json as { rows: string[][] }).rows;

  it('goes out as CSV, in which no name becomes a formula', async () => {
    expect((await file('csv')).toString('utf8')).toBe(
      [
        '\ufeffStudent,Number,Mail,"Essay, the first",Course grade,Course per cent\r\n',
        '"\'=1+1 Quispe",A7,,3.5,,70\r\n',
        'The classmate,,,excused,,\r\n',
      ].join(''),
    );
  });

  it('goes out as a workbook that another library reads: numbers as numbers, texts as texts', async () => {
    const workbook = new ExcelJS.Workbook();
    await workbook.xlsx.load((await file('xlsx')) as unknown as ArrayBuffer);
    const sheet = workbook.worksheets[0]!;
    expect([sheet.getCell('A2').value, sheet.getCell('A2').type, sheet.getCell('A2').formula]).toEqual([
      ...['=1+1 Quispe', ExcelJS.ValueType.String, undefined],
    ]);
    expect(sheet.getCell('D2').value).toBe(3.5);
    expect(sheet.getCell('D3').value).toBe('excused');
  });

  it.each(['csv', 'xlsx'])('comes back in from %s without changing anything', async (ending) => {
    const { columns, rows } = (await school.as.teacher.send('GET', `/courses/${school.course}/gradebook`))
      .json as Gradebook;
    const read = await rowsOf(await file(ending), `grades.${ending}`);
    const students = rows.map(({ id, name }) => ({ id, name, number: id === school.ids.author ? 'A7' : '', mail: '' }));
    const plan = planImport(read, { students, columns }, (student) => {
      const [cell] = rows.find(({ id }) => id === student)!.cells;
      return { points: cell!.points, flag: cell!.flag, locked: undefined };
    });
    expect(plan.cells.map(({ fate }) => fate)).toEqual(['unchanged', 'unchanged']);
    expect(plan.passedOver).toEqual([]);
  });

  it('comes in in any encoding, with a mark or without, however columns are parted', async () => {
    const latin = Buffer.from('Student;Essay;Log\nZo\xeb P\xe9rez;3,5;\nAna;4;5,5\n', 'latin1');
    expect(await rowsOf(latin, 'grades.csv')).toEqual([
      ['Student', 'Essay', 'Log'],
      ['Zoë Pérez', '3,5', ''],
      ['Ana', '4', '5,5'],
    ]);
    const marked = Buffer.from('\ufeffStudent\tEssay\nZoë\t3.5\n', 'utf16le');
    expect(await rowsOf(marked, 'grades.csv')).toEqual([
      ['Student', 'Essay'],
      ['Zoë', '3.5'],
    ]);
  });

  it('computes no formula: what was computed counts, and what runs in a circle is no grade', async () => {
    const workbook = new ExcelJS.Workbook();
    const sheet = workbook.addWorksheet('Grades');
    sheet.addRow(['Student', 'Essay', 'Other']);
    sheet.addRow(['Zoë', { formula: 'C2', result: undefined }, { formula: 'B2' }]);
    sheet.addRow(['Ana', { formula: '1+2', result: 3 }, 4]);
    const rows = await rowsOf(Buffer.from(await workbook.xlsx.writeBuffer()), 'grades.xlsx');
    expect(rows[2]).toEqual(['Ana', '3', '4']);
    expect(rows[1]![1]).not.toMatch(/^\d/u);
  });

  it('refuses what is no table, what is broken, and what would fill the memory', async () => {
    expect((await table(await essay(), 'essay.docx')).status).toBe(422);
    expect((await table(Buffer.from('PK\u0003\u0004 nothing'), 'grades.xlsx')).status).toBe(422);
    const bomb = zipSync({
      'xl/worksheets/sheet1.xml': new Uint8Array(300 * 1024 * 1024),
      '[Content_Types].xml': strToU8('<Types/>'),
    });
    const answer = await table(Buffer.from(bomb), 'grades.xlsx');
    expect([answer.status, answer.text.length]).toEqual([422, expect.any(Number) as number]);
    const long = Buffer.from(`Student,Essay\n${'Zoë,1\n'.repeat(6000)}`);
    expect((await table(long, 'grades.csv')).status).toBe(422);
  });

  it('is nobody’s but the teachers’', async () => {
    expect((await school.as.author.fetch(`/courses/${school.course}/gradebook/csv`)).status).toBe(403);
    expect((await school.as.colleague.fetch(`/courses/${school.course}/gradebook/xlsx`)).status).toBe(404);
    expect((await table(Buffer.from('a,b'), 'a.csv', 'author')).status).toBe(403);
  });
});
