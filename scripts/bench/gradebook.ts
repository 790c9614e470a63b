import { courseGrader, PLAIN_SCHEME, type CourseCell, type CourseItem } from '#core/grading';
import { chromium, type Page } from '@playwright/test';
import { fileURLToPath } from 'node:url';
import type { CellChange, Gradebook } from '../../contract/gradebook.ts';
import { enter, TEACHER } from '../../e2e/school.ts';
import { Server } from '../../e2e/server.ts';
import config from '../../playwright.config.ts';
import { openDatabase } from '../../server/db/open.ts';
import { fromRoot } from '../../server/root.ts';
import type { Client } from '../../server/testing/client.ts';
import { signedIn, timed } from './answers.ts';
import { figure, medianTimes } from './figure.ts';

const RUNS = 7;
const CLASS = { title: 'A class of 30', students: 30, assignments: 40 };
const CROWD = { title: 'A crowd of 1000', students: 1000, assignments: 60 };
const SCROLLED = 4000;
const FRAME = 16;

/** How soon a gradebook is there, how soon a cell is on screen and saved, and how it goes with a thousand students. */
export async function benchGradebook(): Promise<object> {
  const server = await Server.start('bench-gradebook');
  const browser = await chromium.launch(config.use!.launchOptions);
  try {
    await server.whileStopped(addCourses);
    const teacher = await signedIn(server.address, TEACHER);
    const page = await enter(browser, server, TEACHER);
    const small = await courseOf(teacher, CLASS.title);
    const opened: number[] = [];
    for (let run = 0; run <= RUNS; run++) opened.push(await opening(page, server.address, small));
    const { drawn, saved } = await edits(page);
    const large = await courseOf(teacher, CROWD.title);
    const filled = await fills(teacher, large);
    const openedLarge = await opening(page, server.address, large);
    return {
      opened: figure(
        'ms',
        opened.slice(1),
        `500 or less, from the press on its link, ${CLASS.students} × ${CLASS.assignments}`,
      ),
      editDrawn: figure('ms', drawn, '50 or less, from Enter to the frame that shows it'),
      editSaved: figure('ms', saved, '300 or less, from Enter to the answer of the server'),
      fillOf1000: figure('ms', filled, '1000 or less, saved'),
      openedCrowd: figure('ms', [openedLarge], `${CROWD.students} × ${CROWD.assignments}, for comparison`),
      longestTaskWhileScrolling: figure(
        'ms',
        [await scrolling(page, 100), await scrolling(page, 100), await scrolling(page, 100)],
        'none over 50 (0: none was), 100 px a frame down and across, three times',
      ),
      longestTaskWhileJumping: figure(
        'ms',
        [await scrolling(page, 400)],
        'a whole screen anew in nearly each frame, for comparison',
      ),
      computedInCore: figure('ms', computed(), `100 or less, ${CROWD.students} × ${CROWD.assignments}`),
    };
  } finally {
    await browser.close();
    await server.remove();
  }
}

/** A class with works in every state, half of them returned; and a crowd whose grades were typed. */
async function addCourses(dataFolder: string): Promise<void> {
  const cacheFolder = fileURLToPath(fromRoot('.cache'));
  const db = await openDatabase({ databaseUrl: undefined, dataFolder, cacheFolder });
  for (const { title, students, assignments } of [CLASS, CROWD])
    await db.script(`
      insert into courses (id, title) values (gen_random_uuid(), '${title}');
      insert into enrolments (course, person, role) select c.id, p.id, 'teacher' from courses c, people p
        where c.title = '${title}' and p.name = '${TEACHER}';
      insert into people (id, name, login, password_hash)
        select gen_random_uuid(), 'Student ' || n, 'bench-${students}-' || n, '' from generate_series(1, ${students}) n;
      insert into enrolments (course, person, role) select c.id, p.id, 'student' from courses c, people p
        where c.title = '${title}' and p.login like 'bench-${students}-%';
      insert into assignments (id, course, title, brief, due_at, category, possible)
        select gen_random_uuid(), c.id, 'Assignment ' || n, '', now() - interval '1 day' * (100 - n), 'Category ' || n % 4, 20
        from courses c, generate_series(1, ${assignments}) n where c.title = '${title}'`);
  await db.script(`
    insert into criteria (id, assignment, position, title, description)
      select gen_random_uuid(), a.id, n, 'Criterion ' || n, '' from assignments a join courses c on c.id = a.course, generate_series(0, 2) n
      where c.title = '${CLASS.title}';
    insert into levels (id, criterion, position, title, description, points)
      select gen_random_uuid(), k.id, n, 'Level ' || n, '', n from criteria k join assignments a on a.id = k.assignment
      join courses c on c.id = a.course and c.title = '${CLASS.title}', generate_series(0, 3) n;
    insert into submissions (id, assignment, student, version, folio, handed_in_at, returned_at, points, possible, percentage)
      select gen_random_uuid(), a.id, e.person, 1, (select folio from submissions order by length(folio::text) limit 1), a.due_at,
        x.returned, case when x.returned is not null then 6 end, case when x.returned is not null then 9 end,
        case when x.returned is not null then 66.67 end
      from assignments a join courses c on c.id = a.course and c.title = '${CLASS.title}'
      join enrolments e on e.course = c.id and e.role = 'student',
      lateral (select case when hashtext(a.id::text || e.person::text) % 2 = 0 then now() end as returned) x;
    insert into scores (submission, criterion, level, chosen_by)
      select s.id, k.id, l.id, (select person from enrolments where role = 'teacher' limit 1)
      from submissions s join assignments a on a.id = s.assignment join courses c on c.id = a.course and c.title = '${CLASS.title}'
      join criteria k on k.assignment = a.id join levels l on l.criterion = k.id and l.position = 2;
    insert into remarks (id, submission, author, kind, anchor, content)
      select gen_random_uuid(), s.id, (select person from enrolments where role = 'teacher' limit 1), 'next', '{"type": "whole"}', r.content || '{"text": "Well seen."}'
      from submissions s join assignments a on a.id = s.assignment join courses c on c.id = a.course and c.title = '${CLASS.title}',
      (select content from remarks limit 1) r, generate_series(1, 4);
    insert into entered_grades (assignment, student, points, entered_by)
      select a.id, e.person, abs(hashtext(a.id::text || e.person::text)) % 40 / 2.0, (select person from enrolments where role = 'teacher' limit 1)
      from assignments a join courses c on c.id = a.course and c.title = '${CROWD.title}'
      join enrolments e on e.course = c.id and e.role = 'student' where a.title <> 'Assignment 60'`);
  await db.close();
}

async function courseOf(teacher: Client, title: string): Promise<string> {
  const courses = (await teacher.send('GET', '/courses')).json as { id: string; title: string }[];
  return courses.find((course) => course.title === title)!.id;
}

/** From the press on its link until cells are painted. */
async function opening(page: Page, address: string, course: string): Promise<number> {
  await page.goto(`${address}/courses/${course}`);
  await page.getByRole('link', { name: 'Gradebook' }).waitFor();
  await page.waitForTimeout(300);
  return page.evaluate(`(async () => {
    const begun = performance.now();
    [...document.querySelectorAll('a')].find(({ textContent }) => textContent.trim() === 'Gradebook').click();
    while (!document.querySelector('.grid .column .result') && performance.now() - begun < 60000)
      await new Promise(requestAnimationFrame);
    await new Promise((painted) => requestAnimationFrame(() => setTimeout(painted)));
    return performance.now() - begun;
  })()`);
}

async function edits(page: Page): Promise<{ drawn: number[]; saved: number[] }> {
  const drawn: number[] = [];
  const saved: number[] = [];
  const cell = page.locator('.grid .body .column:has(.draft)').first();
  for (let run = 0; run <= RUNS; run++) {
    await cell.click();
    await page.keyboard.type(String(run + 3));
    const times: { drawn: number; saved: number } = await page.evaluate(`(async () => {
      const input = document.querySelector('.grid .edit');
      const box = input.closest('.column');
      const answered = new Promise((resolve) => new PerformanceObserver((list) => {
        if (list.getEntries().some(({ name }) => name.endsWith('/gradebook'))) resolve(performance.now());
      }).observe({ type: 'resource' }));
      const begun = performance.now();
      input.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true }));
      while (box.querySelector('.result')?.textContent !== '${run + 3}') await new Promise(requestAnimationFrame);
      await new Promise((painted) => requestAnimationFrame(() => setTimeout(painted)));
      const drawn = performance.now() - begun;
      return { drawn, saved: (await answered) - begun };
    })()`);
    drawn.push(times.drawn);
    saved.push(times.saved);
    await page.waitForTimeout(300);
  }
  return { drawn: drawn.slice(1), saved: saved.slice(1) };
}

async function fills(teacher: Client, course: string): Promise<number[]> {
  const { columns, rows } = (await teacher.send('GET', `/courses/${course}/gradebook`)).json as Gradebook;
  const { id: assignment } = columns.at(-1)!;
  const times: number[] = [];
  for (let run = 0; run < 3; run++) {
    const changes = rows.map(({ id: student }): CellChange => ({
      assignment,
      student,
      to: { points: (run + 1) * 100 },
    }));
    times.push(await timed(() => teacher.send('PUT', `/courses/${course}/gradebook`, { body: { changes } })));
  }
  return times;
}

/** The longest task while somebody scrolls down and across; 0 where the browser reports none, so none over 50 ms. */
async function scrolling(page: Page, pixels: number): Promise<number> {
  await page.evaluate(`document.querySelector('.grid').scrollTo(0, 0)`);
  await page.waitForTimeout(1500);
  await page.evaluate(`(() => {
    window.longest = 0;
    new PerformanceObserver((list) => {
      for (const { duration } of list.getEntries()) window.longest = Math.max(window.longest, duration);
    }).observe({ type: 'longtask' });
  })()`);
  await page.locator('.grid').hover();
  const until = performance.now() + SCROLLED;
  for (let step = 0; performance.now() < until; step++) {
    await (step % 50 < 10 ? page.mouse.wheel(pixels, 0) : page.mouse.wheel(0, pixels));
    await page.waitForTimeout(FRAME);
  }
  await page.waitForTimeout(500);
  return page.evaluate('window.longest');
}

function computed(): number[] {
  const items = Array.from({ length: CROWD.assignments }, (_, at): CourseItem => ({
    ...{ title: `${at}`, category: `Category ${at % 4}`, weight: null, extra: false, possible: 20_00 + (at % 7) * 500 },
  }));
  const rows = Array.from({ length: CROWD.students }, (_, student) =>
    items.map(({ possible }, at): CourseCell => ({
      points: (student * 37 + at * 113) % (possible! + 1),
      possible,
      flag: null,
    })),
  );
  const categories = [0, 1, 2, 3].map((at) => ({
    name: `Category ${at}`,
    weight: 25_00,
    drop: 1,
    equal: at % 2 === 0,
  }));
  const scale = [50_00, 70_00, 85_00].map((from) => ({ grade: `from ${from}`, from }));
  const [time] = medianTimes(RUNS, () =>
    rows.forEach(courseGrader(items, { ...PLAIN_SCHEME, count: 'categories', categories, scale })),
  );
  return [time];
}
