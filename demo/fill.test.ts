import { agreementByCriterion } from '#core/moderation';
import { existsSync, readFileSync } from 'node:fs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { asStudent, asTeacher } from '../server/access/visible.ts';
import { selectClass, selectOverview } from '../server/class/queries.ts';
import { selectFeedback } from '../server/feedback/queries.ts';
import { selectOwnWork } from '../server/own-work/queries.ts';
import { queueOf, WHOLE_QUEUE, type QueueKind } from '#core/workflow';
import type { Waited } from '../contract/waiting.ts';
import { selectQueue, selectTaught, selectWaited } from '../server/waiting/queries.ts';
import { selectCompared, selectModeration } from '../server/moderation/queries.ts';
import { selectReturning } from '../server/returning/queries.ts';
import { Folio, Format } from '../contract/folio.ts';
import { selectEarlier } from '../server/earlier/queries.ts';
import { ASSIGNMENTS } from './assignment.ts';
import { bodies, type TestDatabase } from '../server/testing/databases.ts';
import { WRITTEN } from './written.ts';
import { fillSampleSchool } from './fill.ts';
import { SCHEME } from './fill-term.ts';
import { courseGrader } from '#core/grading';
import type { GradeCell } from '../contract/gradebook.ts';
import { selectGradebook } from '../server/gradebook/gradebook.ts';
import { NOT_IN_TERM, TERM, TERM_COURSE } from './term.ts';
import { loginOf, STUDENTS, TEACHERS } from './people.ts';
import { selectBanked, selectPage } from '../server/bank/queries.ts';
import { selectGreetings } from '../server/greetings/queries.ts';
import { BANK } from './bank.ts';
import { GREETINGS } from './greetings.ts';
import { FEEDBACK, spokenLines } from './remarks.ts';

const ANY = { owner: null, kind: null, criterion: null, language: null, tag: null, unused: false, aside: false };

describe.each(bodies)('the sample school on $name', ({ open }) => {
  let test: TestDatabase;
  const idOf = async (name: string): Promise<string> => {
    const [row] = await test.db.query('select id from people where login = $1', [loginOf(name)]);
    return String(row!.id);
  };
  const queueFor = async (teacher: string, ...kinds: QueueKind[]): Promise<Waited[]> =>
    selectWaited(test.db, queueOf(await selectQueue(test.db, teacher), { ...WHOLE_QUEUE, kinds }).shown, teacher);
  beforeAll(async () => {
    test = await open();
    await fillSampleSchool(test.db);
  });
  afterAll(() => test.remove());

  it('has two teachers and thirty students, and is filled once', async () => {
    await fillSampleSchool(test.db);
    const [people] = await test.db.query('select count(*) as count from people');
    expect(people).toEqual({ count: TEACHERS.length + STUDENTS.length });
    expect(STUDENTS).toHaveLength(30);
  });

  it('waits for both teachers alike, the longest waiting first', async () => {
    for (const name of TEACHERS) {
      const waiting = await queueFor(await idOf(name), 'new', 'back');
      // One of them teaches a second course alone.
      expect(waiting).toHaveLength(name === TEACHERS[0] ? 31 : 28);
      const walks = waiting.filter(({ assignment }) => assignment === ASSIGNMENTS[0]!.title);
      expect(walks.map(({ student }) => student)).toEqual([
        'Dagny Holmqvist',
        'Eleni Marathou',
        'Farid Noorzai',
        'Hoku Kalani',
        'Ines Bettencourt',
        'Jomo Wekesa',
        'Kateryna Bilyk',
        'Liang Meixiu',
        'Bronagh Tully',
      ]);
      expect(walks.filter(({ work }) => work!.late).map(({ student, work }) => [student, work!.version])).toEqual([
        // Liang has more time.
        ['Bronagh Tully', 2],
      ]);
      expect(walks.map(({ work }) => work!.state)).toEqual(['begun', ...Array<string>(7).fill('waiting'), 'back']);
    }
  });

  it('has replies that nobody answered, until somebody does', async () => {
    const teacher = await idOf(TEACHERS[0]!);
    const unanswered = await queueFor(teacher, 'reply');
    expect(unanswered.map(({ student, answer }) => [student, answer!.spoken]).sort()).toEqual([
      ['Amaru Quispe', false],
      ['Bronagh Tully', true],
    ]);
    const { remark } = unanswered[0]!.answer!;
    await test.db.query(
      "insert into replies (id, remark, author, text, made_at) values (gen_random_uuid(), $1, $2, 'Yes.', now() + interval '1 s')",
      [remark, teacher],
    );
    expect(await queueFor(teacher, 'reply')).toHaveLength(1);
  });

  it('counts its class', async () => {
    const [taught] = await selectTaught(test.db, await idOf(TEACHERS[0]!));
    expect(taught).toMatchObject({ students: 30, handedIn: 10, returned: 1 });
    const overview = (await selectOverview(test.db, taught!.id, asTeacher.person))!;
    expect(overview.rows.map(({ student }) => student.name)).toEqual([...STUDENTS].sort());
    const amaru = overview.rows.find(({ student }) => student.name === 'Amaru Quispe')!.submission!;
    expect(amaru).toMatchObject({
      state: 'returned',
      remarks: 8,
      spoken: 5,
      heard: 4,
      grade: { points: 1900, possible: 2500, percentage: 7600, grade: 'Merit' },
    });
    expect(overview.rows.filter(({ submission }) => submission === null)).toHaveLength(20);

    const { students } = await selectClass(test.db, amaru.id, amaru.id);
    expect(students).toHaveLength(30);
    expect(students[0]).toMatchObject({ name: 'Amaru Quispe', submission: amaru.id, state: 'returned' });
    expect(new Set(students.map(({ state }) => state))).toEqual(
      new Set(['returned', 'back', 'begun', 'waiting', null]),
    );
  });

  it('shows a student only their own', async () => {
    const own = (await selectOwnWork(test.db, await idOf('Dagny Holmqvist'))).find(
      ({ assignment }) => assignment.title === 'A walk along the shore',
    );
    expect(own!.versions).toMatchObject([{ version: 1, files: ['dagny-holmqvist.docx'], returnedAt: null }]);
    const [nothing] = await selectOwnWork(test.db, await idOf('Zofia Krol'));
    expect(nothing!.versions).toEqual([]);
    expect(await queueFor(await idOf('Zofia Krol'), 'new')).toEqual([]);
  });

  it('has remarks at the words they are about, with sounds as long as they say', async () => {
    for (const { student, remarks, fromBank = [] } of FEEDBACK) {
      const own = await selectOwnWork(test.db, await idOf(STUDENTS.find((name) => loginOf(name) === student)!));
      const work = own.find(({ assignment, versions }) => versions.length > 0 && assignment.course !== TERM_COURSE)!;
      const feedback = (await selectFeedback(test.db, work.versions.at(-1)!.submission, asTeacher))!;
      const written = WRITTEN.filter((one) => one.student === student);
      expect(feedback.remarks).toHaveLength(remarks.length + written.length + fromBank.length);
      for (const { passage, words } of written)
        expect(feedback.remarks).toContainEqual(
          expect.objectContaining({
            ...words,
            anchor: expect.objectContaining({ quote: expect.objectContaining({ exact: passage }) }),
          }),
        );
      for (const { passage, text, draft } of remarks) {
        const remark = feedback.remarks.find(
          ({ recording, anchor }) =>
            recording?.transcript?.text === text ||
            (draft && anchor.type === 'passage' && anchor.quote.exact === passage),
        )!;
        expect(remark.anchor.type === 'passage' ? remark.anchor.quote.exact : undefined).toBe(passage);
        expect(remark.recording!.transcript!.read).toBe(draft === undefined);
        expect(remark.recording!.sound.duration).toBeGreaterThan(1);
        expect(Math.max(...remark.recording!.sound.peaks)).toBeGreaterThan(50);
      }
    }
  });

  it('has a work of every kind of leaf and of every format', async () => {
    const rows = await test.db.query('select folio from submissions');
    const folios = rows.map(({ folio }) => Folio.parse(folio));
    const kinds = new Set(folios.flatMap(({ leaves }) => leaves.map(({ kind }) => kind)));
    expect([...kinds].sort()).toEqual(['answer', 'page', 'picture', 'sheet', 'slide', 'sound', 'text']);
    const formats = new Set(folios.flatMap(({ files }) => files.map(({ format }) => format)));
    // These are shown as others of their kind are.
    const alike = ['gif', 'tiff', 'heic', 'flac', 'aac', 'ods', 'epub'];
    expect([...formats].sort()).toEqual(Format.options.filter((format) => !alike.includes(format)).sort());
    expect(folios.some(({ files }) => files.length > 1)).toBe(true);
  });

  it('has a second version in which every remark on the first has its place', async () => {
    const [own] = await selectOwnWork(test.db, await idOf('Bronagh Tully'));
    const [newest] = own!.versions;
    const earlier = await selectEarlier(test.db, newest!.submission, asStudent);
    expect(earlier.map(({ status, version }) => [status, version]).sort()).toEqual([
      ['changed', 1],
      ['changed', 1],
      ['same', 1],
      ['same', 1],
      ['same', 1],
    ]);
  });

  it('has a course with a term behind it, whose gradebook is full', async () => {
    const [course] = await test.db.query('select id from courses where title = $1 and not second_marking', [
      TERM_COURSE,
    ]);
    const { columns, rows } = await selectGradebook(test.db, String(course!.id), asTeacher.person);
    expect(columns.map(({ title }) => title)).toEqual(TERM.map(({ title }) => title));
    expect(rows).toHaveLength(STUDENTS.length - NOT_IN_TERM.length);
    const cells = rows.flatMap((row) => row.cells.filter((cell) => cell !== null));
    expect(cells.filter(({ points }) => points !== null).length).toBeGreaterThan(rows.length * 9);
    expect(new Set(cells.map(({ flag }) => flag))).toEqual(new Set([null, 'missing', 'excused']));
    for (const some of [(cell: GradeCell) => cell.late, (cell: GradeCell) => !cell.returned && cell.entered])
      expect(cells.filter(some).length).toBeGreaterThan(5);
    expect(cells.reduce((sum, { spoken }) => sum + spoken, 0)).toBeGreaterThan(200);
    const grades = rows.map((row) => courseGrader(columns, SCHEME)(row.cells.map((cell) => cell ?? undefined)).grade);
    expect(new Set(grades).size).toBeGreaterThan(2);
  });

  it('has letters that were marked a second time, with differences to talk about, voices, and one that is settled', async () => {
    const [{ id }] = (await test.db.query('select id from moderations')) as [{ id: string }];
    const { rubric, works, finishedAt } = await selectModeration(test.db, id);
    const compared = await selectCompared(test.db, id);
    expect([works, compared.length, finishedAt !== null]).toEqual([8, 8, true]);
    const pairs = compared.map(({ first, secondScores }) => ({ first, second: secondScores }));
    expect(agreementByCriterion(rubric, pairs).some(({ exact }) => exact! < 100 && exact! > 30)).toBe(true);
    expect(compared.filter(({ settled }) => settled)).toHaveLength(1);
    const second = await selectFeedback(test.db, compared[0]!.second, asTeacher);
    expect(Object.keys(second!.scores)).toHaveLength(rubric.length);
    const [spoken] = await test.db.query(
      'select count(*)::int as all from remarks r join moderated_works w on w.second_work = r.submission where r.recording is not null',
    );
    expect(spoken!.all).toBe(8);
  });

  it('has two courses, and works in every state and with every flag', async () => {
    const teacher = await idOf(TEACHERS[0]!);
    const taught = await selectTaught(test.db, teacher);
    expect(new Set(taught.map(({ course }) => course))).toEqual(
      new Set(['Reading the Shore', 'Counting the Tide', TERM_COURSE]),
    );
    const overviews = await Promise.all(taught.map(({ id }) => selectOverview(test.db, id, asTeacher.person)));
    const rows = overviews.flatMap((overview) => overview!.rows);
    expect(new Set(rows.map(({ submission }) => submission?.state))).toEqual(
      new Set([undefined, 'waiting', 'back', 'begun', 'ready', 'returned']),
    );
    expect(new Set(rows.map(({ standing }) => standing.flag))).toEqual(
      new Set([null, 'missing', 'incomplete', 'excused']),
    );
    expect(rows.some(({ standing }) => standing.extendedUntil !== null)).toBe(true);
    expect(rows.some(({ submission }) => submission?.late)).toBe(true);
    expect(new Set(overviews.map((overview) => overview!.marking.shown))).toEqual(
      new Set(['level', 'percent', 'points']),
    );
    const fog = overviews.find((overview) => overview!.anonymous)!;
    const [begun] = await selectReturning(test.db, fog.id, asTeacher.person).then((all) =>
      all.filter(({ grade }) => grade !== null),
    );
    expect(begun).toMatchObject({
      grade: { points: 1700, possible: 2000 },
      student: expect.stringMatching(/^Student /),
    });
  });

  it('has a bank in use, and greetings', async () => {
    const teacher = await idOf(TEACHERS[0]!);
    const { ids, total } = await selectPage(test.db, teacher, ANY, { order: 'used', offset: 0, limit: 50 });
    expect(total).toBe(BANK.length);
    const banked = await selectBanked(test.db, teacher, ids);
    const uses = FEEDBACK.flatMap(({ fromBank = [] }) => fromBank);
    expect(banked.reduce((sum, one) => sum + one.uses, 0)).toBe(uses.length);
    expect(banked.filter(({ heard }) => heard > 0)).toHaveLength(1);
    for (const { title, text, tags } of BANK)
      expect(banked).toContainEqual(
        expect.objectContaining({
          ...{ name: title, tags },
          recording: expect.objectContaining({ transcript: expect.objectContaining({ text, read: true }) }),
        }),
      );
    const [course] = await test.db.query("select id from courses where title = 'Reading the Shore'");
    const greetings = await selectGreetings(test.db, String(course!.id), teacher);
    expect(greetings.filter(({ recording }) => recording)).toHaveLength(GREETINGS.length);
  });
});

describe('the voices', () => {
  it('are shipped for every line, as Ogg Opus (RFC 7845)', () => {
    for (const { name } of spokenLines()) {
      const file = new URL(`./voices/${name}.ogg`, import.meta.url);
      expect(existsSync(file), name).toBe(true);
      const bytes = readFileSync(file);
      expect(bytes.subarray(0, 4).toString()).toBe('OggS');
      expect(bytes.subarray(28, 36).toString()).toBe('OpusHead');
    }
  });
});

describe('loginOf', () => {
  it('leaves accents and spaces out', () => {
    expect(loginOf('Mirza Hadžić')).toBe('mirza-hadzic');
    expect(new Set(STUDENTS.map(loginOf)).size).toBe(STUDENTS.length);
  });
});
