import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { COLUMNS } from './files.ts';
import {
  planOneRoster,
  readOneRoster,
  writeOneRoster,
  type Incoming,
  type IncomingClass,
  type Outgoing,
  type OutgoingResult,
  type Own,
} from './index.ts';

const OUT: Outgoing = {
  now: '2026-11-28T20:00:00Z',
  zone: 'Pacific/Auckland',
  school: { id: 'o1', name: 'Fennick Tidal College' },
  course: { id: 'c1', title: 'Reading the Shore' },
  terms: ['Autumn', 'Winter'],
  people: [
    {
      id: 'p1',
      name: 'Amaru Quispe',
      login: 'amaru-quispe',
      mail: 'amaru@fennick.example',
      number: 'S1',
      teaches: false,
    },
    { id: 'p2', name: '=Nomvula', login: 'nomvula', mail: '', number: '', teaches: false },
    { id: 'p3', name: 'Tamsin Adeyemi', login: 'tamsin', mail: '', number: '', teaches: true },
  ],
  items: [
    { id: 'a1', title: 'First log', dueAt: '2026-10-05T17:30:00Z', category: 'Logs', term: 'Autumn', possible: 1000 },
    { id: 'a2', title: 'Reading, aloud', dueAt: null, category: '', term: null, possible: 500 },
    { id: 'a3', title: 'Nothing to get', dueAt: null, category: '', term: null, possible: null },
  ],
  results: [
    result({ student: 'p1', points: 750, grade: 'Merit', late: true, returned: true, givenAt: '2026-11-01T12:30:00Z' }),
    result({ student: 'p2', flag: 'excused', submitted: false }),
  ],
};
function result(some: Partial<OutgoingResult>): OutgoingResult {
  return {
    ...{ item: 'a1', student: 'p1', points: null, grade: null, flag: null, late: false, returned: false },
    ...{ submitted: true, givenAt: null, ...some },
  };
}
const rowsOf = (files: ReadonlyMap<string, string>, name: string): Record<string, string>[] =>
  Papa.parse<Record<string, string>>(files.get(`${name}.csv`)!.trim(), { header: true }).data;
const classOf = (incoming: Incoming): IncomingClass => {
  if ('problem' in incoming) throw new Error(incoming.problem);
  return incoming.classes[0]!;
};

describe('the files of a course', () => {
  const files = writeOneRoster(OUT);

  it('are named in the manifest, each with the columns of the standard in their order', () => {
    const manifest = new Map(Papa.parse<[string, string]>(files.get('manifest.csv')!.trim()).data);
    expect([manifest.get('manifest.version'), manifest.get('oneroster.version')]).toEqual(['1.0', '1.2']);
    for (const name of ['orgs', 'users', 'courses', 'classes', 'enrollments', 'academicSessions', 'roles'] as const) {
      expect(manifest.get(`file.${name}`)).toBe('bulk');
      expect(files.get(`${name}.csv`)!.split('\r\n')[0]).toBe(COLUMNS[name].join(','));
    }
    expect(manifest.get('file.demographics')).toBe('absent');
    // All that the manifest calls there is there, and nothing else.
    const there = [...manifest].filter(([, value]) => value === 'bulk').map(([name]) => `${name.slice(5)}.csv`);
    expect([...files.keys()].filter((name) => name !== 'manifest.csv').toSorted()).toEqual(there.toSorted());
  });

  it('refer to each other, and say what was given in the words of the standard', () => {
    const ids = (name: string): string[] => rowsOf(files, name).map((row) => row.sourcedId!);
    for (const [name, column, to] of [
      ...[
        ['courses', 'orgSourcedId', 'orgs'],
        ['classes', 'courseSourcedId', 'courses'],
      ],
      ...[
        ['classes', 'termSourcedIds', 'academicSessions'],
        ['enrollments', 'userSourcedId', 'users'],
      ],
      ...[
        ['enrollments', 'classSourcedId', 'classes'],
        ['lineItems', 'categorySourcedId', 'categories'],
      ],
      ...[
        ['lineItems', 'gradingPeriodSourcedId', 'academicSessions'],
        ['results', 'lineItemSourcedId', 'lineItems'],
      ],
      ...[
        ['results', 'studentSourcedId', 'users'],
        ['roles', 'userSourcedId', 'users'],
      ],
    ] as [string, string, string][])
      for (const row of rowsOf(files, name))
        expect([name, column, ids(to).includes(row[column]!)]).toEqual([name, column, true]);
    const [graded, excused] = rowsOf(files, 'results');
    expect(graded).toMatchObject({ scoreStatus: 'fully graded', score: '7.5', textScore: 'Merit', late: 'true' });
    expect(excused).toMatchObject({ scoreStatus: 'exempt', score: '', inProgress: 'false' });
    expect([graded!.scoreDate, excused!.scoreDate]).toEqual(['2026-11-02', '2026-11-29']);
    expect(rowsOf(files, 'users').map(({ givenName }) => givenName)).toContain("'=Nomvula");
    expect(rowsOf(files, 'enrollments').map(({ role }) => role)).toEqual(['student', 'student', 'teacher']);
  });

  it('name sessions of the type that each reference asks for, and the school by its own id', () => {
    const typeOf = new Map(rowsOf(files, 'academicSessions').map(({ sourcedId, type }) => [sourcedId, type]));
    expect(rowsOf(files, 'courses').map((row) => typeOf.get(row.schoolYearSourcedId))).toEqual(['schoolYear']);
    expect(rowsOf(files, 'classes').map((row) => typeOf.get(row.termSourcedIds))).toEqual(['term']);
    const items = rowsOf(files, 'lineItems');
    expect(items.map((row) => typeOf.get(row.gradingPeriodSourcedId))).toEqual(['gradingPeriod', 'gradingPeriod']);
    expect(items.map(({ resultValueMax }) => resultValueMax)).toEqual(['10', '5']);
    expect(
      new Set(
        [...rowsOf(files, 'orgs'), ...rowsOf(files, 'lineItems')].map((row) => row.schoolSourcedId ?? row.sourcedId),
      ),
    ).toEqual(new Set(['o1']));
  });

  it('say in the words of the standard how far a result is', () => {
    const statusOf = (some: Partial<OutgoingResult>): string | undefined =>
      rowsOf(writeOneRoster({ ...OUT, results: [result(some)] }), 'results')[0]!.scoreStatus;
    expect(statusOf({})).toBe('submitted');
    expect(statusOf({ submitted: false, flag: 'incomplete' })).toBe('not submitted');
    expect(statusOf({ submitted: false, flag: 'missing', points: 0, returned: true })).toBe('not submitted');
    expect(statusOf({ points: 500 })).toBe('partially graded');
    expect(statusOf({ points: 500, returned: true })).toBe('fully graded');
    expect(statusOf({ points: 500, returned: true, flag: 'excused' })).toBe('exempt');
  });

  it('guard against formulas without harming a number', () => {
    const numbered = (number: string) =>
      rowsOf(writeOneRoster({ ...OUT, people: [{ ...OUT.people[0]!, number }] }), 'users')[0]!.identifier;
    expect(['-17', '+4.5', '=1+1', '-1+1', '@x'].map(numbered)).toEqual(['-17', '+4.5', "'=1+1", "'-1+1", "'@x"]);
  });

  it('read as what was written', () => {
    const read = classOf(readOneRoster(files));
    expect(read.students.map(({ name, mail, number }) => [name, mail, number])).toEqual([
      ['Amaru Quispe', 'amaru@fennick.example', 'S1'],
      ['=Nomvula', '', ''],
    ]);
    expect(read.items.map(({ title, due, category, possible }) => [title, due, category, possible])).toEqual([
      ['First log', '2026-10-06', 'Logs', 1000],
      ['Reading, aloud', '2026-11-29', 'Assignments', 500],
    ]);
    expect(read.results.map(({ score, flag }) => [score, flag])).toEqual([
      ['7.5', null],
      ['', 'excused'],
    ]);
    expect([read.teachers, read.refused]).toEqual([1, []]);
  });
});

const MANIFEST = 'propertyName,value\nmanifest.version,1.0\noneroster.version,1.1\nfile.users,bulk\n';
/** As another system might write them: other columns, in another order, a mark at the beginning. */
const others = (more: Record<string, string> = {}): Map<string, string> =>
  new Map(
    Object.entries({
      manifest: MANIFEST,
      users:
        '\ufeffsourcedId,status,role,username,familyName,givenName,email,identifier\nu1,,student,ana,Lund,Ana,ana@lund.example,17\nu2,,teacher,bo,Berg,Bo,,\n',
      classes: 'sourcedId,title\nk1,Shore\nk2,Tide\n',
      enrollments:
        'sourcedId,classSourcedId,userSourcedId,role\ne1,k1,u1,student\ne2,k1,u2,teacher\ne3,k1,u9,student\ne4,k2,u1,student\n',
      lineItems: 'sourcedId,title,classSourcedId,resultValueMax\nl1,Log,k1,10\nl2,Wrong,k1,many\nl3,Elsewhere,k2,5\n',
      results:
        'sourcedId,lineItemSourcedId,studentSourcedId,score,missing\nr1,l1,u1,8,false\nr2,l9,u1,3,\nr3,l3,u1,3,\n',
      ...more,
    }).map(([name, text]) => [`${name}.csv`, text]),
  );

describe('files of another system', () => {
  it('are read by what their columns are called; lines that are wrong are told, and the others taken', () => {
    const read = readOneRoster(others());
    const shore = classOf(read);
    expect('classes' in read && read.classes.map(({ title }) => title)).toEqual(['Shore', 'Tide']);
    expect(shore.students.map(({ name, number }) => [name, number])).toEqual([['Ana Lund', '17']]);
    expect(shore.items.map(({ title }) => title)).toEqual(['Log']);
    expect(shore.results).toEqual([{ line: 2, student: 'u1', item: 'l1', score: '8', flag: null }]);
    expect(shore.refused.map(({ file, line, why }) => [file, line, why])).toEqual([
      ['enrollments.csv', 4, 'There is no such user in users.csv.'],
      ['lineItems.csv', 3, '“many” is no number of points above 0.'],
      ['results.csv', 3, 'There is no such line item in lineItems.csv.'],
    ]);
  });

  it('with an id twice, without one, or marked for deletion have those lines refused', () => {
    const users =
      'sourcedId,status,givenName,familyName\nu1,,Ana,Lund\nu1,,Ole,Dahl\n,,No,Id\nu3,tobedeleted,Eva,Gone\n';
    expect(
      classOf(readOneRoster(others({ users })))
        .refused.map(({ line, why }) => [line, why])
        .slice(0, 3),
    ).toEqual([
      [3, 'Its sourcedId “u1” is there twice.'],
      [4, 'sourcedId is empty.'],
      [5, 'It is marked for deletion. Nothing is deleted from here.'],
    ]);
  });

  it('that are no OneRoster, or lack what is needed, are refused as a whole with a sentence', () => {
    const problemOf = (files: Map<string, string>): string => {
      const read = readOneRoster(files);
      return 'problem' in read ? read.problem : '';
    };
    expect(problemOf(new Map([['grades.csv', 'a,b']]))).toContain('There is no manifest.csv');
    expect(problemOf(others({ manifest: MANIFEST.replace('1.1', '0.9') }))).toContain('“0.9”');
    expect(problemOf(others({ classes: 'sourcedId;title\nk1;Shore\n' }))).toBe(
      'classes.csv lacks the column sourcedId, title.',
    );
    const without = others();
    without.delete('enrollments.csv');
    expect(problemOf(without)).toBe('enrollments.csv is missing in this file.');
    expect(problemOf(others({ classes: 'sourcedId,title\n' }))).toBe('There is no class in this file.');
  });
});

describe('what a class out of a file would change', () => {
  const own: Own = {
    known: [
      { id: 'p1', name: 'Ana Lund', number: '17', mail: '', here: 'student', staff: false, own: true },
      { id: 'p5', name: 'Somebody Else', number: '', mail: 'ole@dahl.example', here: null, staff: false, own: false },
    ],
    columns: [{ id: 'a1', title: 'log', possible: 1000 }],
    cellOf: () => ({ points: 400, flag: null, locked: undefined }),
  };
  const incoming = (more: Partial<IncomingClass> = {}): IncomingClass => ({
    ...{ id: 'k1', title: 'Shore', teachers: 0, refused: [] },
    students: [{ id: 'u1', line: 2, name: 'Ana Lund', mail: '', number: '17' }],
    items: [{ id: 'l1', line: 2, title: 'Log', due: null, category: '', possible: 1000 }],
    results: [{ line: 2, student: 'u1', item: 'l1', score: '8.25', flag: null }],
    ...more,
  });
  const fates = (plan: ReturnType<typeof planOneRoster>) =>
    plan.lines.map(({ file, line, fate, from, to, why }) => [file, line, fate, from, to, ...(why ? [why] : [])]);

  it('knows students by number and assignments by title, and changes only what is another', () => {
    const plan = planOneRoster(incoming(), own);
    expect(fates(plan)).toEqual([
      ['users.csv', 2, 'unchanged', '', 'in the course'],
      ['lineItems.csv', 2, 'unchanged', '', 'an assignment out of 10'],
      ['results.csv', 2, 'changed', '4', '8.25'],
    ]);
    expect(plan.cells).toEqual([{ student: 'u1', item: 'l1', to: { points: 825 } }]);
    const same = incoming({ results: [{ line: 2, student: 'u1', item: 'l1', score: '4.0', flag: null }] });
    expect(planOneRoster(same, own).cells).toEqual([]);
  });

  it('is new where nobody and nothing is known, and grades what it brings along', () => {
    const plan = planOneRoster(incoming(), { ...own, known: [], columns: [] });
    expect(fates(plan).map(([, , fate]) => fate)).toEqual(['new', 'new', 'new']);
    expect(plan.students[0]).toMatchObject({ person: null, fate: 'add' });
    expect(plan.items[0]).toMatchObject({ assignment: null });
  });

  it('refuses what would be misread, and says why', () => {
    const result = (line: number, score: string, student = 'u1', item = 'l1') => ({
      line,
      student,
      item,
      score,
      flag: null,
    });
    const plan = planOneRoster(
      incoming({
        students: [
          ...incoming().students,
          { id: 'u2', line: 3, name: 'Ole Dahl', mail: 'ole@dahl.example', number: '' },
        ],
        items: [...incoming().items, { id: 'l2', line: 3, title: 'LOG', due: null, category: '', possible: 1000 }],
        results: [
          ...[result(2, 'eight'), result(3, '5'), result(4, 'm', 'u1', 'l2'), result(5, '1', 'u2')],
          result(6, '-1', 'u1', 'l2'),
        ],
      }),
      own,
    );
    expect(
      fates(plan).flatMap(([file, line, fate, , , why]) => (fate === 'refused' ? [[file, line, why]] : [])),
    ).toEqual([
      ['users.csv', 3, 'The school knows this number or mail address under another name.'],
      ['lineItems.csv', 3, 'Another line item is called the same.'],
      ['results.csv', 2, '“eight” is no grade. Type points like 7.5, a share like 80%, or m, e or i.'],
      ['results.csv', 3, 'There is a result of this student in this assignment already.'],
      ['results.csv', 4, 'Its assignment is not taken.'],
      ['results.csv', 5, 'Its student is not taken.'],
      ['results.csv', 6, 'Its assignment is not taken.'],
    ]);
    const other = { ...own, columns: [{ id: 'a1', title: 'Log', possible: 2000 }] };
    expect(fates(planOneRoster(incoming(), other))[1]![5]).toContain('Here it is out of 20.');
    const locked: Own = { ...own, cellOf: () => ({ points: 400, flag: null, locked: 'It has been returned.' }) };
    expect(fates(planOneRoster(incoming(), locked))[2]![5]).toBe('It has been returned.');
  });
});
