import type { Page } from '@playwright/test';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { enter, expect, openCourse, saved, TEACHER, test } from './school.ts';

test.use({ school: 'gradebook' });

const COURSE = 'Letters from the Tideline';

async function openGradebook(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Courses' }).click();
  await page.getByRole('menuitem', { name: COURSE }).click();
  await page.getByRole('link', { name: 'Gradebook' }).click();
  await expect(page.getByRole('grid')).toBeVisible();
}

const cellOf = (page: Page, student: string, assignment: string) =>
  page.getByRole('gridcell', { name: `${student}, ${assignment}: ` });

test('grades are typed, filled, pasted and taken back, and the course grade follows', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  await openGradebook(page);
  const grid = page.getByRole('grid');

  // What a filter hides is counted, and one press away.
  await page.getByLabel('Due from').fill('2099-01-01');
  await expect(page.getByText('All 12 assignments are hidden by the dates.')).toBeVisible();
  await page.getByRole('button', { name: 'Show all assignments' }).click();
  await expect(page.getByText('hidden by')).toBeHidden();

  const log = 'Seminar: one object';
  await cellOf(page, 'Catrin Pryce', log).click();
  await page.keyboard.type('6,5');
  await page.keyboard.press('Enter');
  await expect(cellOf(page, 'Catrin Pryce', log)).toHaveText(/6\.5/u);
  // Enter leads to the next student; letters are no number, and nothing is changed.
  await page.keyboard.type('7o');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('“7o” is no grade.');
  await page.keyboard.press('Escape');
  await page.keyboard.press('m');
  await expect(cellOf(page, 'Dagny Holmqvist', log)).toContainText('missing');
  await saved(page);

  await page.getByRole('button', { name: 'How it came about' }).click();
  await expect(page.getByRole('cell', { name: 'Tamsin Adeyemi' }).first()).toBeVisible();
  await expect(page.getByRole('cell', { name: 'missing', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(cellOf(page, 'Dagny Holmqvist', log)).not.toContainText('missing');
  await saved(page);

  // A block from a spreadsheet; one wrong cell in it, and nothing of it is taken.
  const paste = (text: string) =>
    grid.evaluate((element, content) => {
      const data = new DataTransfer();
      data.setData('text/plain', content);
      element.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
    }, text);
  await cellOf(page, 'Aroha Ngata', log).click();
  await paste('1\n2\nx\n');
  await expect(page.getByRole('alert')).toContainText(
    'Nothing was pasted. Dagny Holmqvist, Seminar: one object: “x” is no grade.',
  );
  await paste('1\r\n2\r\n3\r\n');
  for (const [student, points] of [
    ['Aroha Ngata', '1'],
    ['Catrin Pryce', '2'],
    ['Dagny Holmqvist', '3'],
  ] as const)
    await expect(cellOf(page, student, log).locator('.result')).toHaveText(points);
  await paste('9\n'.repeat(100_000));
  await expect(page.getByRole('alert')).toContainText('That is too much');
  await saved(page);

  // A whole column, and what was returned stays.
  await page.getByRole('button', { name: /^A letter in winter/ }).click();
  await page.getByLabel('Give out of 25').fill('80%');
  await page.getByRole('button', { name: 'to the 22 empty ones', exact: true }).click();
  await expect(cellOf(page, 'Aroha Ngata', 'A letter in winter').locator('.result')).toHaveText('20');
  await saved(page);
  await page.reload();
  await expect(grid).toBeVisible();
  await cellOf(page, 'Aroha Ngata', 'Words for mud').click();
  await page.keyboard.type('1');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('it has been returned');
  await page.keyboard.press('Escape');
});

test('a cell leads to the desk and back to itself; what if changes nothing', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  await openGradebook(page);
  await cellOf(page, 'Jomo Wekesa', 'Three maps of one bay').click();
  await page.keyboard.press('o');
  await expect(page).toHaveURL(/\/desk\//u);
  await expect(page.getByText('Jomo Wekesa').first()).toBeVisible();
  await page.goBack();
  await expect(page.getByLabel('The cell', { exact: true })).toContainText('Jomo Wekesa · Three maps of one bay');

  await page.keyboard.press('Home');
  const cell = page.getByLabel('The cell', { exact: true });
  await expect(cell).toContainText('Logs, 40 %:');
  const before = await cell.textContent();
  await page.getByRole('button', { name: 'What if' }).click();
  await cellOf(page, 'Jomo Wekesa', 'Seminar: one object').click();
  await page.keyboard.type('0');
  await page.keyboard.press('Enter');
  await expect(page.getByText('1 supposed')).toBeVisible();
  await cellOf(page, 'Jomo Wekesa', 'Seminar: one object').click();
  await page.keyboard.press('Home');
  await expect(cell).not.toHaveText(before!);
  await page.getByRole('button', { name: 'Back to what is' }).click();
  await expect(cell).toHaveText(before!);
});

test('two teachers type into one cell: the second one chooses', async ({ browser, server }) => {
  const first = await enter(browser, server, TEACHER);
  const second = await enter(browser, server, 'Ruari Castellane');
  await openGradebook(first);
  await openGradebook(second);
  const at = ['Thandiwe Moyo', 'Beach clean'] as const;
  for (const [page, points] of [
    [first, '1'],
    [second, '2'],
  ] as const) {
    await page.getByRole('textbox', { name: 'Find a student' }).fill('Thandiwe');
    await cellOf(page, ...at).click();
    await page.keyboard.type(points);
    await page.keyboard.press('Enter');
    if (page === first) await saved(page);
  }
  await second.getByRole('button', { name: 'Compare' }).click();
  const both = second.getByRole('dialog', { name: 'Changed by two people' });
  await expect(both).toContainText('Thandiwe Moyo, Beach clean, as it is now1');
  await both.getByRole('button', { name: 'Put in what I had' }).click();
  await saved(second);
  await expect(cellOf(second, ...at).locator('.result')).toHaveText('2');
  await first.reload();
  await expect(cellOf(first, ...at).locator('.result')).toHaveText('2');
});

test('a file of grades is shown before it comes in, and can be taken back', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  await openGradebook(page);
  await page.getByRole('button', { name: 'Files' }).click();
  const csv = [
    'Student;Beach clean;Seminar: reading aloud;Notes',
    'Oyuna Batbayar;2;9,5;',
    'Piotr Wysocki;x1;;',
    'Nobody At All;1;;',
  ].join('\n');
  await page
    .getByLabel('Grades as a file', { exact: true })
    .and(page.locator('input'))
    .setInputFiles({ name: 'grades.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) });
  await expect(page.getByText('Passed over: Notes.')).toBeVisible();
  await expect(page.getByRole('cell', { name: /Nobody At All/u })).toContainText('Nobody in this course is called so.');
  await expect(page.getByRole('cell', { name: /Piotr Wysocki, Beach clean/u })).toContainText('“x1” is no grade');
  await page.getByRole('button', { name: /^Take over \d grades?$/u }).click();
  await expect(page.getByText(/came in, as drafts/u)).toBeVisible();
  await saved(page);
  await page.getByRole('textbox', { name: 'Find a student' }).fill('Oyuna');
  await expect(cellOf(page, 'Oyuna Batbayar', 'Seminar: reading aloud').locator('.result')).toHaveText('9.5');
  await page.getByRole('button', { name: 'Take it back' }).click();
  await expect(cellOf(page, 'Oyuna Batbayar', 'Seminar: reading aloud').locator('.result')).not.toHaveText('9.5');
  await saved(page);
});

test('a course goes out as OneRoster, and into another one, which can be taken back', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  await openGradebook(page);
  await page.getByRole('button', { name: 'Files' }).click();
  const saving = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Save as OneRoster (.zip)' }).click();
  const download = await saving;
  expect(download.suggestedFilename()).toBe('Letters from the Tideline OneRoster.zip');

  await openCourse(page, 'Counting the Tide');
  await page.getByRole('link', { name: 'Gradebook' }).click();
  await expect(page.getByRole('grid')).toBeVisible();
  const before = Number(await page.getByRole('grid').getAttribute('aria-colcount'));
  await page.getByRole('button', { name: 'Files' }).click();
  await page.getByLabel('A OneRoster file').setInputFiles((await download.path())!);
  // Whoever has an account is invited, and their results wait until they have accepted.
  await expect(page.getByText(/\d+ new, 0 changed, \d+ not taken\./u)).toBeVisible();
  await expect(page.getByText('invited to the course').first()).toBeVisible();
  await page.getByRole('button', { name: /^Take over \d+ lines$/u }).click();
  await expect(page.getByText(/12 assignments and \d+ grades came in\./u)).toBeVisible();
  await expect(page.getByRole('grid')).toHaveAttribute('aria-colcount', String(before + 12));
  await page.getByRole('button', { name: 'Take it back' }).click();
  await expect(page.getByText('It has been taken back.')).toBeVisible();
  await expect(page.getByRole('grid')).toHaveAttribute('aria-colcount', String(before));
});

test('a student’s report is printed with how the grade adds up and the words of what was said', async ({
  browser,
  server,
}) => {
  const page = await enter(browser, server, TEACHER);
  await openGradebook(page);
  await page.getByRole('textbox', { name: 'Find a student' }).fill('Dagny');
  await page.getByRole('gridcell').first().click();
  await page.getByRole('link', { name: 'Report to print of Dagny Holmqvist' }).click();
  await expect(page.getByRole('heading', { level: 2, name: 'Dagny Holmqvist' })).toBeVisible();
  const remark = page.getByRole('region', { name: 'Words for mud' }).getByRole('listitem').first();
  const words = (await remark.locator('.words').innerText()).split(' ').slice(0, 4).join(' ');
  const folder = mkdtempSync(join(tmpdir(), 'report-'));
  await page.pdf({ path: join(folder, 'report.pdf'), format: 'A4' });
  const text = execFileSync('pdftotext', ['-layout', join(folder, 'report.pdf'), '-'], { encoding: 'utf8' });
  expect(text).toContain('Dagny Holmqvist');
  expect(text).toContain(words);
  expect(text).toMatch(/Words for mud\s+\d/u);
  // Controls are not for paper.
  expect(text).not.toContain('Print or save');
  expect(text).not.toContain('What waits');
  rmSync(folder, { recursive: true });
});

test('reports of a whole class come one after another, a leaf for each', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  await openGradebook(page);
  await page.getByRole('button', { name: 'Files' }).click();
  // The line breaks in the middle, once; what was there stays.
  let asked = 0;
  await page.route('**/report', (route) => (++asked === 5 ? route.abort() : route.continue()));
  await page.getByRole('link', { name: 'Reports of the class, to print' }).click();
  await expect(page.getByText(/^4 of \d+ reports$/u)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Print or save as PDF' })).toBeDisabled();
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByRole('button', { name: 'Print or save as PDF' })).toBeEnabled();
  const names = await page.getByRole('article').getByRole('heading', { level: 2 }).allInnerTexts();
  expect(names.length).toBeGreaterThan(15);
  expect(new Set(names).size).toBe(names.length);
  expect(asked).toBeLessThan(names.length + 8);
  const folder = mkdtempSync(join(tmpdir(), 'reports-'));
  await page.pdf({ path: join(folder, 'reports.pdf'), format: 'A4' });
  const leaves = execFileSync('pdftotext', ['-layout', join(folder, 'reports.pdf'), '-'], { encoding: 'utf8' }).split(
    '\f',
  );
  // Each begins on a leaf of its own, and no leaf has two.
  for (const name of names) expect(leaves.filter((leaf) => leaf.trimStart().startsWith(name))).toHaveLength(1);
  expect(leaves[0]).not.toContain('Reports of the class');
  rmSync(folder, { recursive: true });
});

test('charts say what they show, as drawings and as tables, and lead to the works', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  await openGradebook(page);
  await page.getByRole('link', { name: 'Charts' }).click();
  const spread = page.getByRole('region', { name: 'How results are spread' });
  await expect(spread).toContainText(/\d+ results: median [\d.]+ %/u);
  const bricks = await spread.getByRole('link').count();
  expect(bricks).toBeGreaterThan(15);
  await spread.getByRole('button', { name: 'As a table' }).click();
  await expect(spread.getByRole('rowheader')).toHaveCount(bricks);

  const voice = page.getByRole('region', { name: 'Who hears how much, and of what' });
  await expect(voice).toContainText('hear nothing but “Repair”.');
  await voice.getByRole('button', { name: 'As a table' }).click();
  await expect(voice.getByRole('row')).toHaveCount(23);

  const order = page.getByRole('region', { name: 'Was I stricter later on?' });
  await order.getByRole('link').first().focus();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/desk\//u);
});
