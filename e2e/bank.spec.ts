import type { Page } from '@playwright/test';
import {
  enter,
  expect,
  openCourse,
  openDesk,
  remarksOnServer,
  ribbonAbout,
  saved,
  select,
  speak,
  TEACHER,
  test,
  workIn,
} from './school.ts';

test.use({ school: 'bank' });

const field = (page: Page) => page.getByRole('searchbox', { name: 'Find in your bank' });
const choices = (page: Page) => page.getByRole('list', { name: 'Banked remarks' }).getByRole('listitem');
const PASSAGE = 'I had expected a story about shipwrecked flour.';
const OTHER = 'Either the chart is wrong or the channel has filled up.';

test('a passage, a key, a digit: the banked remark is there, as a copy that is the work’s own', async ({
  browser,
  server,
}) => {
  const page = await enter(browser, server, TEACHER);
  await openDesk(page, 'Ines Bettencourt');
  await select(page, PASSAGE);
  await page.keyboard.press('a');
  const first = choices(page).first();
  await expect(first).toBeVisible();
  const name = await first.locator('.name').innerText();
  await page.keyboard.press('1');
  const ribbon = ribbonAbout(page, PASSAGE);
  await expect(ribbon.getByText(name.slice(2).trim())).toBeVisible();
  await saved(page);
  const [made] = await remarksOnServer(page);
  expect(made!.anchor.quote!.exact).toBe(PASSAGE);

  // Its words can be changed here without touching the bank.
  await page.goto(`${server.address}/bank`);
  const row = page.getByRole('row').filter({ hasText: name.slice(2).trim() });
  await expect(row.getByRole('cell').nth(4)).toHaveText('1');
  await page.goBack();
  await expect(ribbonAbout(page, PASSAGE)).toBeVisible();
  await page.keyboard.press('Escape');
});

test('what is found by other words begins with the student’s name, as loud as the rest', async ({
  browser,
  server,
}) => {
  const page = await enter(browser, server, TEACHER);
  await openDesk(page, 'Ines Bettencourt');
  await select(page, OTHER);
  await page.keyboard.press('a');
  await expect(field(page)).toBeFocused();
  await page.getByLabel('Begin with your greeting to Ines').check();
  await field(page).fill('explaned else');
  await expect(choices(page).first()).toContainText('Could something else explain it?');
  await field(page).press('Enter');
  const ribbon = ribbonAbout(page, OTHER);
  await expect(ribbon).toContainText('Hello Ines. That is one explanation.');
  await saved(page);
  const made = (await remarksOnServer(page)).find(({ anchor }) => anchor.quote?.exact === OTHER)!;
  expect(made.recording!.sound.duration).toBeGreaterThan(6.5);
  await page.reload();
  await expect(ribbonAbout(page, OTHER)).toContainText('Hello Ines. That is one explanation.');
});

test('what was just said is kept with one key, found on the next work, and taken back with Undo', async ({
  browser,
  server,
}) => {
  const page = await enter(browser, server, TEACHER);
  await openDesk(page, 'Jomo Wekesa');
  await select(page, 'That is what I first wrote');
  await speak(page, 2);
  const ribbon = ribbonAbout(page, 'That is what I first wrote');
  await expect(ribbon).toBeVisible();
  await page.keyboard.press('k');
  const panel = page.getByRole('complementary', { name: 'Keep in the bank' });
  await panel.getByLabel('Name').fill('The tide and the argument');
  await panel.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByText('“The tide and the argument” is in your bank')).toBeVisible();
  await saved(page);

  await openAnother(page, 'Kateryna Bilyk');
  await select(page, 'I stood still for the length of the slack.');
  await page.keyboard.press('a');
  await field(page).fill('tide argum');
  await expect(choices(page).first()).toContainText('The tide and the argument');
  await field(page).press('Enter');
  const copy = ribbonAbout(page, 'I stood still for the length of the slack.');
  await expect(copy.getByText('The tide and the argument')).toBeVisible();
  await saved(page);
  await page.keyboard.press('Control+z');
  await expect(copy).toBeHidden();
});

test('the roll of greetings: hold, say, let go, and the next name is there', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  await openCourse(page, 'Reading the Shore');
  await page.getByRole('link', { name: 'Speak a greeting to each' }).click();
  await expect(page.getByText('20 names left')).toBeVisible();
  await expect(page.locator('.who')).toHaveText('Aroha Ngata');
  await speak(page, 1.2);
  await expect(page.locator('.who')).toHaveText('Bashir Osman');
  await expect(page.getByText('19 names left')).toBeVisible();
  await saved(page);
  await page.reload();
  await expect(page.getByRole('button', { name: 'Play your greeting to Aroha Ngata' })).toBeVisible();
});

test('a message to the class is spoken once, heard above the returned work, and the teacher sees by whom', async ({
  browser,
  server,
}) => {
  const page = await enter(browser, server, TEACHER);
  await openCourse(page, 'Reading the Shore');
  await expect(page.getByRole('heading', { name: 'The class' })).toBeVisible();
  await page.getByRole('link', { name: 'A walk along the shore' }).first().click();
  const messages = page.getByRole('group', { name: 'the message to the class' });
  await expect(messages).toHaveCount(1);
  await page.getByRole('button', { name: 'Hold and speak a class message' }).focus();
  await speak(page, 1.5);
  await expect(messages).toHaveCount(2);
  await saved(page);

  const student = await enter(browser, server, 'Amaru Quispe');
  await workIn(student, 'A walk along the shore').getByRole('link', { name: 'Open your feedback' }).click();
  const first = student.getByRole('group', { name: 'the message to the class' }).first();
  await expect(first).toContainText('Good evening, all of you.');
  await first.getByRole('button', { name: /^Play/ }).click();
  await expect(first.getByRole('button', { name: /^Pause/ })).toBeVisible();
  await expect(first.getByRole('button', { name: /^Play/ })).toBeVisible();
  await student.waitForLoadState('networkidle');

  await page.reload();
  await messages.first().getByText('2 students have heard it').click();
  await expect(messages.first()).toContainText('Heard by Amaru Quispe and Bronagh Tully.');
});

async function openAnother(page: Page, student: string): Promise<void> {
  await page.goto(new URL('/', page.url()).href);
  await openDesk(page, student);
}
