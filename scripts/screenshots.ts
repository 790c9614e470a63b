/* Makes docs/screenshots from the sample school, at 1280 × 800. */
import { chromium, type Page } from '@playwright/test';
import { execFileSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { enter, linesOf, openCourse, openDesk, ribbonAbout, select, TEACHER, workIn } from '../e2e/school.ts';
import { Server } from '../e2e/server.ts';
import config from '../playwright.config.ts';

const FOLDER = fileURLToPath(new URL('../docs/screenshots/', import.meta.url));

/** As somebody may bring it along: a wrong number, a stranger, a column that is no assignment. */
const GRADES = [
  'Student;Beach clean;Seminar: reading aloud;Notes',
  'Oyuna Batbayar;2;9,5;late bus',
  'Piotr Wysocki;x1;8;',
  'Aroha Ngata;2;7,5;',
  'Catrin Pryce;1,5;10;',
  'Nobody At All;1;;',
].join('\n');

const server = await Server.start('screenshots');
const browser = await chromium.launch(config.use!.launchOptions);

/** Lets fonts come, pages be drawn and ribbons glide to their places. */
async function picture(page: Page, name: string): Promise<void> {
  await page.mouse.move(640, 790);
  await page.waitForTimeout(1500);
  await page.screenshot({ path: `${FOLDER}${name}.png` });
}

async function desk(page: Page, student: string): Promise<void> {
  await page.goto(server.address);
  await openDesk(page, student);
}

/** A wavy line, a loop, and an arrow with a word. */
async function drawOnTheText(page: Page): Promise<void> {
  const bar = page.getByRole('toolbar', { name: 'What you draw with' });
  const choose = (name: string): Promise<void> => bar.getByRole('button', { name, exact: true }).click();
  const draw = async (places: (readonly [number, number])[]): Promise<void> => {
    await page.mouse.move(...places[0]!);
    await page.mouse.down();
    for (const place of places) await page.mouse.move(...place);
    await page.mouse.up();
  };
  await page.getByRole('button', { name: 'Draw', exact: true }).click();
  const paragraph = page.locator('.folio p', { hasText: 'One stands on bare clay' });
  await paragraph.evaluate((element) => element.scrollIntoView({ block: 'center' }));
  const { x, y } = (await paragraph.boundingBox())!;
  await choose('Pen');
  await choose('Repair');
  await draw(Array.from({ length: 40 }, (_, step) => [x + 60 + step * 5, y + 51 + 2 * Math.sin(step)] as const));
  await choose('Ellipse');
  await choose('Question');
  await draw([
    [x + 6, y + 84],
    [x + 150, y + 112],
  ]);
  await choose('Arrow');
  await draw([
    [x + 300, y + 150],
    [x + 160, y + 112],
  ]);
  await choose('Words');
  await page.mouse.click(x + 304, y + 158);
  await page.keyboard.type('with what?');
  await page.keyboard.press('Enter');
}

/** A line under some words, by the pen that was used last. */
async function underline(page: Page, words: string): Promise<void> {
  const [line] = await linesOf(page, words);
  const { left, right, bottom } = line!;
  await page.mouse.move(left, bottom + 1);
  await page.mouse.down();
  for (let step = 1; step <= 30; step++) {
    await page.mouse.move(left + ((right - left) * step) / 30, bottom + 1 + 2 * Math.sin(step));
    await page.waitForTimeout(25);
  }
  await page.mouse.up();
}

/** A box, an arrow and some words, and a wave on the free paper beside it. */
async function drawOnThePicture(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Draw', exact: true }).click();
  const bar = page.getByRole('toolbar', { name: 'What you draw with' });
  const choose = (name: string): Promise<void> => bar.getByRole('button', { name, exact: true }).click();
  const draw = async (places: (readonly [number, number])[]): Promise<void> => {
    await page.mouse.move(...places[0]!);
    await page.mouse.down();
    for (const place of places) await page.mouse.move(...place);
    await page.mouse.up();
  };
  await choose('Free paper beside the work');
  const { x, y, width } = (await page.locator('.picture .layer').boundingBox())!;
  await choose('Rectangle');
  await choose('Strength');
  await draw([
    [x + 0.08 * width, y + 0.3 * width],
    [x + 0.5 * width, y + 0.42 * width],
  ]);
  await choose('Arrow');
  await choose('Question');
  await draw([
    [x + 0.86 * width, y + 0.62 * width],
    [x + 0.68 * width, y + 0.52 * width],
  ]);
  await choose('Words');
  await page.mouse.click(x + 0.74 * width, y + 0.7 * width);
  await page.keyboard.type('left foot?');
  await page.keyboard.press('Enter');
  await choose('Pen');
  await choose('Next step');
  await draw(
    Array.from(
      { length: 40 },
      (_, step) => [x + 1.04 * width + step * 3, y + 0.3 * width + 12 * Math.sin(step / 3)] as const,
    ),
  );
}

const teacher = await enter(browser, server, TEACHER);
await picture(teacher, 'to-mark');
await openCourse(teacher, 'Letters from the Tideline');
await teacher.getByRole('link', { name: 'Gradebook' }).click();
await teacher.getByLabel('Due from').fill('2026-09-01');
await teacher.getByRole('gridcell', { name: /^Jomo Wekesa, Three maps of one bay/ }).click();
await picture(teacher, 'gradebook');
await teacher.getByRole('button', { name: 'Show all assignments' }).click();
await teacher.getByRole('button', { name: 'Files' }).click();
await teacher
  .getByLabel('Grades as a file', { exact: true })
  .and(teacher.locator('input'))
  .setInputFiles({ name: 'grades.csv', mimeType: 'text/csv', buffer: Buffer.from(GRADES) });
await teacher.getByText('Passed over: Notes.').waitFor();
await picture(teacher, 'import-preview');
await teacher.getByRole('link', { name: 'Charts' }).click();
await teacher
  .getByRole('link', { name: /^Dagny Holmqvist: / })
  .first()
  .waitFor();
await picture(teacher, 'charts');
await openCourse(teacher, 'Letters from the Tideline');
await teacher.getByRole('link', { name: 'A letter that was never sent' }).first().click();
await teacher.getByRole('link', { name: 'Second marking', exact: true }).click();
await teacher.getByRole('link', { name: /^8 works with/ }).click();
await teacher
  .getByRole('button', { name: /difference/ })
  .first()
  .click();
await teacher.getByRole('button', { name: /^Play/ }).first().waitFor();
await teacher.getByRole('heading', { name: 'Works' }).evaluate((heading) => heading.scrollIntoView());
await picture(teacher, 'second-marking');
await desk(teacher, 'Dagny Holmqvist');
await teacher.locator('mark', { hasText: 'hiss' }).first().click();
await picture(teacher, 'desk');

await teacher.locator('mark', { hasText: 'hardly any sand' }).click();
await drawOnTheText(teacher);
await teacher.getByRole('button', { name: 'Done', exact: true }).click();
await teacher.getByRole('article').focus();
await teacher.keyboard.press('l');
await teacher.getByText('Talking it through').waitFor();
await teacher.waitForTimeout(1500);
await select(teacher, 'Mrs Anstey, who lives there');
await teacher.waitForTimeout(2500);
await teacher.keyboard.press('i');
await teacher.getByRole('button', { name: 'Pen', exact: true }).click();
await underline(teacher, 'as they do in other places');
await teacher.keyboard.press('i');
await teacher.keyboard.press('3');
await teacher.waitForTimeout(2500);
await select(teacher, 'I only notice that nobody');
await teacher.keyboard.press('2');
await teacher.waitForTimeout(2500);
await teacher.keyboard.press('l');
await teacher.getByRole('button', { name: 'Hear part 2' }).click();
await teacher.waitForTimeout(1800);
await teacher.screenshot({ path: `${FOLDER}talk-through.png` });
await teacher.getByRole('button', { name: 'Leave the talk-through' }).click();
await teacher.getByText('Saved', { exact: true }).waitFor();
await teacher.goto(`${teacher.url().replace(/#.*/, '')}/as-student`);
const saving = teacher.waitForEvent('download');
await teacher.getByRole('button', { name: 'Download as PDF' }).click();
const pdf = await (await saving).path();
execFileSync('pdftoppm', ['-r', '96', '-png', '-singlefile', '-f', '1', pdf, `${FOLDER}marked-pdf`]);
await teacher.goto(`${server.address}/search?words=the+reader`);
await teacher.getByRole('article').first().waitFor();
await picture(teacher, 'find-remarks');

await desk(teacher, 'Ines Bettencourt');
await select(teacher, 'Either the chart is wrong or the channel has filled up.');
await teacher.keyboard.press('a');
await teacher.getByRole('list', { name: 'Banked remarks' }).waitFor();
await picture(teacher, 'bank-at-the-desk');
await teacher.goto(`${server.address}/bank`);
await teacher
  .getByRole('button', { name: /How did you do it/ })
  .last()
  .click();
await teacher.getByRole('heading', { name: 'Where you said it' }).waitFor();
await picture(teacher, 'bank');
await openCourse(teacher, 'Reading the Shore');
await teacher.getByLabel('Title of a new assignment').fill('A letter to the harbour board');
await teacher.getByRole('button', { name: 'Make the assignment' }).click();
await teacher.getByRole('button', { name: 'Begin with …' }).click();
await teacher.getByRole('menuitem', { name: 'An essay that argues' }).click();
await teacher.getByRole('heading', { name: /^Rubric/ }).evaluate((heading) => heading.scrollIntoView());
await picture(teacher, 'rubric-editor');
await desk(teacher, 'Bronagh Tully');
const changed = ribbonAbout(teacher, 'It does not explain the lower ones');
await changed.scrollIntoViewIfNeeded();
await changed.getByRole('button', { name: 'Show what changed' }).click();
await picture(teacher, 'desk-second-version');

const student = await enter(browser, server, 'Amaru Quispe');
await picture(student, 'own-work');
await workIn(student, 'A walk along the shore').getByRole('link', { name: 'Open your feedback' }).click();
await student.locator('mark').first().click();
await student.keyboard.press('l');
await student.waitForTimeout(3500);
await student.screenshot({ path: `${FOLDER}returned.png` });
await student.keyboard.press('Escape');
await student.setViewportSize({ width: 390, height: 780 });
await student.getByRole('complementary', { name: 'The remark in hand' }).waitFor();
await picture(student, 'returned-on-a-phone');

await student.setViewportSize({ width: 1280, height: 800 });
await student.goto(server.address);
await student.getByRole('link', { name: 'Revise it' }).first().click();
const typed = student.getByRole('textbox', { name: 'Your text' });
await typed.click();
await student.keyboard.type(
  '# What the Strand Line Keeps\nThe three lines are a calendar. Every tide in the week before had been a little lower than the one before it, so each left its line a little further down.\n\nI counted what lay in each:\n',
);
await student.getByRole('button', { name: 'Table', exact: true }).click();
for (const cell of ['Line', 'Wrack', 'Whelk eggs', 'lowest', '9', '0', 'middle', '11', '2']) {
  await student.keyboard.type(cell);
  await student.keyboard.press('Tab');
}
await student.getByRole('checkbox', { name: 'Dealt with' }).nth(1).check();
await student.getByText('Everything you typed is saved.').waitFor();
await picture(student, 'revising');

await teacher.goto(server.address);
await teacher.getByRole('link', { name: 'A walk along the shore' }).last().click();
await teacher.getByRole('link', { name: 'Look through and return' }).click();
await teacher.getByRole('checkbox', { name: 'Tick Dagny Holmqvist' }).check();
await picture(teacher, 'return-check');

await desk(teacher, 'Piotr Wysocki');
await teacher.setViewportSize({ width: 820, height: 1180 });
await drawOnThePicture(teacher);
await picture(teacher, 'desk-on-a-tablet');

await browser.close();
await server.remove();
