import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { AssignmentCharts } from '../../contract/charts.ts';
import type { CellStory, CellValue, Gradebook, OwnGrades } from '../../contract/gradebook.ts';
import type { ReturnRow } from '../../contract/returning.ts';
import type { Feedback } from '../../contract/submissions.ts';
import { PLAIN_MARKING } from '#core/grading';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { addTestAssignment, handInFile, startTestSchool, type TestSchool } from '../testing/school.ts';

/** What a teacher and a student may do to a grade, in any order. */
type Step =
  | { type: 'handIn' }
  | { type: 'score'; criterion: number; level: number | null }
  | { type: 'adjust'; extra: number | null; total: number | null }
  | { type: 'flag'; flag: 'missing' | 'incomplete' | 'excused' | null }
  | { type: 'return'; bulk: boolean }
  | { type: 'takeBack'; bulk: boolean }
  | { type: 'type'; points: number | null };

const points = fc.integer({ min: 0, max: 700 });
const step: fc.Arbitrary<Step> = fc.oneof(
  fc.constant<Step>({ type: 'handIn' }),
  fc.record({
    type: fc.constant('score' as const),
    criterion: fc.nat(1),
    level: fc.option(fc.nat(1), { nil: null, freq: 6 }),
  }),
  fc.record({
    type: fc.constant('adjust' as const),
    extra: fc.option(fc.integer({ min: -700, max: 300 }), { nil: null }),
    total: fc.option(points, { nil: null, freq: 1 }),
  }),
  fc.record({
    type: fc.constant('flag' as const),
    flag: fc.constantFrom<(Step & { type: 'flag' })['flag']>('missing', 'incomplete', 'excused', null, null),
  }),
  fc.record({ type: fc.constant('return' as const), bulk: fc.boolean() }),
  fc.record({ type: fc.constant('takeBack' as const), bulk: fc.boolean() }),
  fc.record({ type: fc.constant('type' as const), points: fc.option(points, { nil: null }) }),
);
const late = fc.option(
  fc.record({
    ...{ grace: fc.constantFrom(0, 60), unit: fc.constantFrom('hour' as const, 'day' as const) },
    ...{ percent: fc.constantFrom(333, 1000), of: fc.constantFrom('earned' as const, 'possible' as const) },
    floor: fc.constantFrom(0, 2500),
  }),
  { nil: null },
);
const marking = fc.record({
  ...{ shown: fc.constantFrom('level' as const, 'points' as const, 'percent' as const), late },
  ...{ decimals: fc.nat(2), halfSteps: fc.boolean() },
});

const NOTHING: CellValue = { points: null, flag: null, returned: false };
/** Where there is no grade, there is none to be returned: a work that goes out without one leaves the cell empty. */
const settled = (value: CellValue): CellValue => (value.points === null && value.flag === null ? NOTHING : value);

describe.each(bodies)('a grade that is shown is the grade that is kept, on $name', ({ name, open }) => {
  let test: TestDatabase;
  let school: TestSchool;
  beforeAll(async () => {
    test = await open();
    school = await startTestSchool(test.db);
  });
  afterAll(async () => {
    await school.stop();
    await test.remove();
  });

  /** One assignment with one student's works, and everything that tells a grade of theirs. */
  async function begin(how: typeof PLAIN_MARKING | object) {
    const { assignment, criteria } = await addTestAssignment(test.db, school.course);
    const own: TestSchool = { ...school, assignment, criteria };
    const { teacher, author } = school.as;
    const student = school.ids.author;
    await teacher.send('PATCH', `/assignments/${assignment}`, {
      body: { open: true, marking: { ...PLAIN_MARKING, ...how } },
    });
    const works: string[] = [];
    const json = async <T>(as: 'teacher' | 'author', path: string): Promise<T> =>
      (await school.as[as].send('GET', path)).json as T;

    const change = (to: object) =>
      teacher.send('PUT', `/courses/${school.course}/gradebook`, {
        body: { changes: [{ assignment, student, to }], why: '' },
      });
    async function act(done: Step): Promise<void> {
      const work = works.at(-1);
      if (done.type === 'handIn')
        works.push(await handInFile(own, 'work.txt', Buffer.from(`Version ${works.length + 1}\n${Math.random()}`)));
      if (done.type === 'flag') await change({ flag: done.flag });
      if (done.type === 'type') await change({ points: done.points });
      if (work === undefined) return;
      const put = (path: string, body: object) => teacher.send('PUT', `/submissions/${work}/${path}`, { body });
      if (done.type === 'score') {
        const { id, levels } = criteria[done.criterion % criteria.length]!;
        await put(`scores/${id}`, { score: done.level === null ? null : { level: levels[done.level] } });
      }
      if (done.type === 'adjust')
        await put('adjustment', {
          adjustment:
            done.extra === null && done.total === null ? null : { extra: done.extra, total: done.total, reason: '' },
        });
      const [path, all] = done.type === 'return' ? [true, 'returned'] : [false, 'taken-back'];
      if (done.type !== 'return' && done.type !== 'takeBack') return;
      if (!done.bulk) await put('returned', { returned: path });
      else
        await teacher.send('POST', `/assignments/${assignment}/${all}`, {
          body: { works: [work], ...(path && { held: null }) },
        });
    }

    async function agree(): Promise<void> {
      const book = await json<Gradebook>('teacher', `/courses/${school.course}/gradebook`);
      const cell = book.rows.find(({ id }) => id === student)!.cells[
        book.columns.findIndex(({ id }) => id === assignment)
      ];
      const { changes } = await json<CellStory>('teacher', `/assignments/${assignment}/students/${student}/grade`);
      const [grades] = await json<OwnGrades[]>('author', '/own-grades');
      const theirs = grades!.cells[grades!.columns.findIndex(({ id }) => id === assignment)];
      const { works: drawn } = await json<AssignmentCharts>('teacher', `/assignments/${assignment}/charts`);
      const { rows } = await json<{ rows: ReturnRow[] }>('teacher', `/assignments/${assignment}/returning`);
      const sheet = (await teacher.send('GET', `/courses/${school.course}/gradebook/csv`)).text;
      const told = settled({
        points: cell?.points ?? null,
        flag: cell?.flag ?? null,
        returned: cell?.returned ?? false,
      });

      // Of a new version, the history says what it comes to, while the grade of the one before stands in the cell.
      if (!cell?.again) expect(settled(changes[0]?.now ?? NOTHING)).toEqual(told);
      for (const [index, { was }] of changes.entries())
        expect(settled(was)).toEqual(settled(changes[index + 1]?.now ?? NOTHING));
      expect(theirs?.points ?? null).toBe(told.returned ? told.points : null);
      if (told.returned) expect([theirs?.grade, theirs?.flag]).toEqual([cell!.grade, cell!.flag]);
      expect(sheet.length).toBeGreaterThan(0);
      for (const work of works) {
        const [kept, seen] = [
          await json<Feedback>('teacher', `/submissions/${work}/feedback`),
          await author.send('GET', `/submissions/${work}/feedback`),
        ];
        const row = rows.find(({ submission }) => submission === work);
        if (kept.returnedAt !== null && row) expect(row.grade).toEqual(kept.grade);
        if (seen.status === 200) expect((seen.json as Feedback).grade).toEqual(kept.grade);
        const chart = drawn.find(({ submission }) => submission === work);
        if (chart && kept.returnedAt !== null) expect(chart.points).toBe(kept.grade?.points ?? null);
      }
    }
    return { act, agree };
  }

  it('in every place that tells it, after each step of any history', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 3, maxLength: 14 }), marking, async (steps, how) => {
        const { act, agree } = await begin(how);
        for (const one of [{ type: 'handIn' } as const, ...steps]) {
          await act(one);
          await agree();
        }
      }),
      {
        numRuns: Number(process.env.HISTORIES ?? (name === 'PGlite' ? 4 : 2)),
        ...(process.env.SEED && { seed: Number(process.env.SEED) }),
      },
    );
  }, 600_000);
});
