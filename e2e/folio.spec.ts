import { readFileSync } from 'node:fs';
import type { Locator, Page } from '@playwright/test';
import { enter, expect, openDesk, play, ribbonAbout, saved, select, speak, TEACHER, test, workIn } from './school.ts';

test.use({ school: 'folio' });

/** Drags from one point of an element to another, both as shares of its size. */
async function drag(page: Page, on: Locator, from: [number, number], to: [number, number]): Promise<void> {
  const box = (await on.boundingBox())!;
  const at = ([x, y]: [number, number]) => [box.x + x * box.width, box.y + y * box.height] as const;
  await page.mouse.move(...at(from));
  await page.mouse.down();
  await page.mouse.move(...at(to), { steps: 6 });
  await page.mouse.up();
}

/** Ribbons glide to their places. */
const isLevel = (ribbon: Locator, drawn: Locator): Promise<void> =>
  expect(async () => {
    const [one, other] = [(await ribbon.boundingBox())!, (await drawn.boundingBox())!];
    expect(Math.abs(one.y - other.y)).toBeLessThan(8);
  }).toPass();

test('words of a PDF page are selected, spoken about, and marked at their place, at any zoom', async ({
  browser,
  server,
}) => {
  const page = await enter(browser, server, TEACHER);
  await openDesk(page, 'Sione Tuipulotu');
  const canvas = page.locator('.leaf.page canvas').first();
  await expect
    .poll(() => canvas.evaluate((element: HTMLCanvasElement) => element.width), { message: 'the page is drawn' })
    .toBeGreaterThan(300);
  await select(page, 'Late passengers blame the council.');
  await speak(page);
  const ribbon = ribbonAbout(page, 'Late passengers blame');
  const mark = page.locator('mark', { hasText: 'Late passengers blame' });
  await isLevel(ribbon, mark);
  await play(ribbon);

  // The mark lies over the line as the page draws it: there is ink below it.
  const ink = await mark.evaluate((element) => {
    const [box, canvas] = [element.getBoundingClientRect(), element.closest('.page')!.querySelector('canvas')!];
    const frame = canvas.getBoundingClientRect();
    const scale = canvas.width / frame.width;
    const { data } = canvas
      .getContext('2d')!
      .getImageData(
        (box.left - frame.left) * scale,
        (box.top - frame.top) * scale,
        box.width * scale,
        box.height * scale,
      );
    return data.filter((value, index) => index % 4 === 0 && value < 100).length / (data.length / 4);
  });
  expect(ink).toBeGreaterThan(0.04);

  const before = (await mark.boundingBox())!;
  await page.getByRole('button', { name: 'Show it larger' }).click();
  await expect.poll(async () => (await mark.boundingBox())!.width / before.width).toBeCloseTo(1.25, 1);
  await isLevel(ribbon, mark);
  await page.getByRole('button', { name: 'Fit the page' }).click();
  await isLevel(ribbon, mark);
  await page.getByRole('button', { name: 'Fit the width' }).click();
  await page.getByLabel('Page that is shown').fill('2');
  await page.keyboard.press('Enter');
  await expect(page.locator('[data-leaf="1"]')).toBeInViewport();
});

test('a box is drawn on a picture with the mouse, and on a slide with the keys', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  await openDesk(page, 'Piotr Wysocki');
  await drag(page, page.locator('.picture .layer'), [0.2, 0.1], [0.6, 0.3]);
  await expect(page.getByText('speak about a part of the picture')).toBeVisible();
  await speak(page);
  const ribbon = ribbonAbout(page, 'a part of the picture');
  await isLevel(ribbon, page.locator('.box[data-remarks]'));
  await saved(page);
  await page.reload();
  const box = (await page.locator('.box[data-remarks]').boundingBox())!;
  const picture = (await page.locator('.picture .layer').boundingBox())!;
  expect(box.width / picture.width).toBeCloseTo(0.4, 1);
  // Upright: higher than wide, though the file lies on its side.
  expect(picture.height).toBeGreaterThan(picture.width);

  await page.goto(server.address);
  await openDesk(page, 'Nomvula Dlangamandla');
  await page.getByRole('article').focus();
  await page.keyboard.press('m');
  await expect(page.locator('.box.chosen')).toBeFocused();
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('Shift+ArrowDown');
  await speak(page);
  await expect(ribbonAbout(page, 'a part of slide 1')).toBeVisible();
});

test('a stretch of a recording, cells of a table and an answer are spoken about', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  await openDesk(page, 'Zofia Krol');
  await expect(page.getByText('Drawing the recording')).toBeHidden();
  await drag(page, page.locator('.wave .layer'), [0.25, 0.5], [0.5, 0.5]);
  await speak(page);
  const span = ribbonAbout(page, 'of the recording');
  await expect(span).toBeVisible();
  await page.getByRole('button', { name: 'Play the student’s recording' }).click();
  await expect(page.getByRole('button', { name: 'Pause the student’s recording' })).toBeVisible();

  await page.goto(server.address);
  await openDesk(page, 'Yusuf Demirkan');
  await drag(page, page.getByRole('grid'), [0.35, 0.35], [0.6, 0.5]);
  await speak(page);
  await expect(page.getByRole('region', { name: /about cells/ })).toBeVisible();

  await page.goto(server.address);
  await openDesk(page, 'Giulia Ferrante');
  await page.getByRole('button', { name: /Question 3/ }).click();
  await speak(page);
  await expect(ribbonAbout(page, 'the answer to question 3')).toBeVisible();
  const scores = page.getByRole('complementary', { name: 'Scores' });
  await scores.getByLabel('Points for question 4').fill('7');
  await scores.getByLabel('Points for question 4').press('Enter');
  await expect(scores.getByRole('alert')).toContainText('from 0 to 6');
  await scores.getByLabel('Points for question 4').fill('4,5');
  await scores.getByLabel('Points for question 4').press('Enter');
  await expect(scores).toContainText('8.5 of 10 points');
  await saved(page);
});

test('a second version has the remarks of the first, shows what changed, and a lost one is put back', async ({
  browser,
  server,
}) => {
  const student = await enter(browser, server, 'Amaru Quispe');
  const revised = `What the Drift Line Knows

The reason is plain enough, if one looks twice.

The three lines are therefore a calendar, and the oldest day stands at the very top.
`;
  await student.getByRole('link', { name: 'Revise it' }).first().click();
  await student.getByRole('button', { name: 'Send files' }).click();
  await student
    .locator('input[type=file]')
    .setInputFiles({ name: 'second.txt', mimeType: 'text/plain', buffer: Buffer.from(revised) });
  await student.getByRole('button', { name: 'Hand in the new version' }).click();
  await expect(student.getByText('second.txt has been handed in')).toBeVisible();

  const page = await enter(browser, server, TEACHER);
  await page.getByRole('link', { name: /^Amaru Quispe ?A walk along the shore ?version 2/ }).click();
  await expect(page.getByRole('button', { name: 'version 2 of 2' })).toBeVisible();
  const calendar = ribbonAbout(page, 'The three lines are therefore a calendar');
  await expect(calendar).toContainText('version 1, changed');
  await calendar.getByRole('button', { name: 'Show what changed' }).click();
  await expect(calendar.locator('ins')).toContainText('very');

  const head = page.getByRole('region', { name: 'Remarks on earlier versions' });
  await expect(head.getByRole('heading', { name: /No place in this version/ })).toContainText('5');
  const lost = head.getByRole('listitem').filter({ hasText: 'forty turnstones' });
  await expect(lost.getByRole('button', { name: 'Select where it belongs' })).toBeDisabled();
  await select(page, 'if one looks twice');
  await lost.getByRole('button', { name: /Put it at “if one looks twice”/ }).click();
  await expect(page.locator('mark', { hasText: 'if one looks twice' })).toBeVisible();
  await expect(head.getByRole('heading', { name: /No place in this version/ })).toContainText('4');

  await page.getByRole('button', { name: 'version 2 of 2' }).click();
  await page.getByText('Version 1', { exact: true }).click();
  await expect(page.getByText('forty turnstones')).toBeVisible();
  await expect(ribbonAbout(page, 'The reason is obvious')).toBeVisible();
});

test('answers are typed, kept while they are typed, and handed in', async ({ browser, server }) => {
  const page = await enter(browser, server, 'Hoku Kalani');
  const work = workIn(page, 'Tide arithmetic');
  await work.getByLabel('Answer to question 1').fill('about four');
  await expect(work.getByText('written like 3.5')).toBeVisible();
  await work.getByLabel('Answer to question 1').fill('4.1');
  await work.getByLabel('in the third').check();
  await page.reload();
  await expect(work.getByLabel('Answer to question 1')).toHaveValue('4.1');
  await expect(work.getByText('Everything you wrote is saved.')).toBeVisible();
  await work.getByRole('button', { name: 'Hand in', exact: true }).click();
  await expect(work.getByText('Your answers have been handed in.')).toBeVisible();
  await work.getByRole('button', { name: 'Withdraw' }).click();
  await expect(work.getByText('withdrawn; it is kept for 30 days')).toBeVisible();
  await work.getByRole('button', { name: 'Bring it back' }).click();
  await expect(work.getByText('with your teacher')).toBeVisible();
});

test('at 640 pixels and with letters twice as large everything can still be read and reached', async ({
  browser,
  server,
}) => {
  const page = await enter(browser, server, TEACHER);
  await openDesk(page, 'Dagny Holmqvist');
  for (let step = 0; step < 6; step++) await page.getByRole('button', { name: 'Show it larger' }).click();
  const size = await page.locator('.folio').evaluate((folio) => parseFloat(getComputedStyle(folio).fontSize));
  expect(size).toBe(34);
  await isLevel(
    ribbonAbout(page, 'on the sand there is a hiss'),
    page.locator('mark', { hasText: 'on the sand' }).first(),
  );
  await page.setViewportSize({ width: 640, height: 800 });
  const overflow = await page.evaluate(
    () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
  );
  expect(overflow).toBe(0);
  await expect(page.getByRole('button', { name: 'Record a remark' })).toBeInViewport({ ratio: 1 });
  await page.getByRole('button', { name: 'Scores', exact: true }).click();
  await expect(page.getByRole('complementary', { name: 'Scores' })).toBeInViewport();
});

test('a work of a hostile file shows its words and nothing else', async ({ browser, server }) => {
  const student = await enter(browser, server, 'Ines Bettencourt');
  const work = workIn(student, 'A place I know better than others');
  const html = readFileSync(new URL('../demo/documents/wanja-gitau.html', import.meta.url), 'utf8');
  const hostile = html.replace(
    '</body>',
    '<p>Unharmed.</p><img src="http://127.0.0.1:9/x.png" onerror="document.title=\'broken\'"></body>',
  );
  await work
    .locator('input[type=file]')
    .setInputFiles({ name: 'a.html', mimeType: 'text/html', buffer: Buffer.from(hostile) });
  await work.getByRole('button', { name: 'Hand in', exact: true }).click();
  await expect(work.getByText('has been handed in')).toBeVisible();
  const foreign: string[] = [];
  student.on('request', (request) => {
    if (!request.url().startsWith(server.address)) foreign.push(request.url());
  });
  await work.getByRole('link', { name: 'Read it' }).click();
  await expect(student.getByText('Unharmed.')).toBeVisible();
  await expect(student).toHaveTitle('Vivid Margin');
  expect(foreign).toEqual([]);
});
