import { readFile } from 'node:fs/promises';
import type { Locator, Page } from '@playwright/test';
import {
  enter,
  expect,
  openCourse,
  openDesk,
  pick,
  remarksOnServer,
  ribbonAbout,
  saved,
  select,
  speak,
  TEACHER,
  test,
  workIn,
} from './school.ts';
import type { Server } from './server.ts';

test.use({ school: 'bank-page' });

const COLLEAGUE = 'Ruari Castellane';
const found = (page: Page) => page.getByRole('list', { name: 'Banked remarks' }).getByRole('listitem');
const count = (page: Page, remarks: number) =>
  expect(page.getByText(`${remarks} remarks`, { exact: true })).toBeVisible();

/** Finds one on the bank's page and opens what can be done to it. */
async function openBanked(page: Page, server: Server, name: string): Promise<Locator> {
  await page.goto(`${server.address}/bank`);
  await page.getByLabel('Find by any words').fill(name);
  // What is found comes a moment later, and rows that are there already move.
  await expect(page.locator('tbody strong').first()).toHaveText(name);
  await page.getByRole('button', { name, expanded: false }).first().click();
  const details = page.locator('.details');
  await expect(details).toBeVisible();
  return details;
}

async function openBankAt(page: Page, server: Server, student: string, passage: string): Promise<void> {
  await page.goto(server.address);
  await openDesk(page, student);
  await select(page, passage);
  await page.keyboard.press('a');
  await expect(found(page).first()).toBeVisible();
}

test('a remark keeps the key that it is given, and a name is said in its middle', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  const details = await openBanked(page, server, 'Could something else explain it?');
  await pick(details, 'Key in the bank at the desk', '7');
  await expect(page.locator('kbd', { hasText: '7' })).toBeVisible();
  await details.getByRole('button', { name: 'Say the name in its middle' }).click();
  const words = details.getByRole('region', { name: 'Where a name is said' }).getByRole('button');
  const second = (await words.nth(1).innerText()).trim();
  await words.nth(1).click();
  await expect(words.nth(1)).toHaveAttribute('aria-pressed', 'true');

  const passage = 'Either the chart is wrong or the channel has filled up.';
  await openBankAt(page, server, 'Ines Bettencourt', passage);
  await page.getByLabel('Begin with your greeting to Ines').check();
  await page.getByRole('searchbox').press('7');
  await expect(ribbonAbout(page, passage)).toContainText(new RegExp(`\\S Hello Ines\\S* ${second}`));
  await saved(page);
});

test('many get a tag at once; two become one, and what gave way can be brought back', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  await page.goto(`${server.address}/bank`);
  await count(page, 46);
  const rows = page.getByRole('row').filter({ has: page.getByRole('button', { expanded: false }) });
  const boxes = rows.getByRole('checkbox');
  for (const index of [0, 1]) await boxes.nth(index).check();
  await page.getByLabel('A tag for all of them').fill('verbs of mine');
  await page.getByRole('button', { name: 'Add the tag' }).click();
  await expect(rows.filter({ hasText: 'verbs of mine' })).toHaveCount(2);

  const details = await openBanked(page, server, 'Take “obviously” out');
  const into = details.getByRole('combobox', { name: 'Merge it into another' });
  await into.click();
  await into.pressSequentially('where does this come', { delay: 30 });
  await page.getByRole('option', { name: 'Where does this come from?' }).click();
  await details.getByRole('button', { name: 'Merge', exact: true }).click();
  await expect(details).toBeHidden();
  await page.getByLabel('Find by any words').fill('');
  await count(page, 45);

  await page.getByLabel('Show what was put aside (1)').check();
  await page.getByRole('row').filter({ hasText: 'obviously' }).getByRole('checkbox').check();
  await page.getByRole('button', { name: 'Bring them back' }).click();
  await page.getByLabel('Show what was put aside (0)').click();
  await count(page, 46);
});

test('a colleague gets the words of what is shared, or the voice where its owner lends it', async ({
  browser,
  server,
}) => {
  const owner = await enter(browser, server, TEACHER);
  const details = await openBanked(owner, server, 'Put a number on it');
  await details.locator('.v-select').filter({ hasText: 'Shared with' }).click();
  await owner.getByRole('option', { name: COLLEAGUE }).click();
  await owner.keyboard.press('Escape');
  await expect(details.getByLabel('They may use it in my voice')).not.toBeChecked();

  const page = await enter(browser, server, COLLEAGUE);
  const [first, second] = [
    'I had expected a story about shipwrecked flour.',
    'nobody will learn anything from their names',
  ];
  await openBankAt(page, server, 'Ines Bettencourt', first);
  await expect(found(page)).toHaveCount(1);
  await page.getByRole('searchbox').press('1');
  await expect(ribbonAbout(page, first)).toContainText('Count it next time');
  await saved(page);
  expect((await remarksOnServer(page)).find(({ anchor }) => anchor.quote?.exact === first)!.recording).toBeNull();

  await details.getByLabel('They may use it in my voice').check();
  await expect(details.getByLabel('They may use it in my voice')).toBeChecked();
  await openBankAt(page, server, 'Ines Bettencourt', second);
  await page.getByRole('searchbox').press('1');
  await expect(ribbonAbout(page, second)).toContainText('Put a number on it');
  await saved(page);
  const spoken = (await remarksOnServer(page)).find(({ anchor }) => anchor.quote?.exact === second)!;
  expect(spoken.recording!.sound.duration).toBeGreaterThan(3);
});

test('the bank goes out as a file, and comes in elsewhere line by line', async ({ browser, server }, testInfo) => {
  const page = await enter(browser, server, TEACHER);
  await page.goto(`${server.address}/bank`);
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Save the bank as a file' }).click();
  const file = testInfo.outputPath('bank.zip');
  await (await download).saveAs(file);

  const other = await enter(browser, server, COLLEAGUE);
  await other.goto(`${server.address}/bank`);
  const chooser = other.getByLabel('A bank as a file, or a table');
  const whole = await readFile(file);
  const files = other.getByRole('region', { name: 'The bank as a file' });
  await chooser.setInputFiles({ name: 'cut.zip', mimeType: 'application/zip', buffer: whole.subarray(0, 9000) });
  await expect(files.getByRole('alert')).toBeVisible();
  await chooser.setInputFiles(file);
  await expect(files.getByRole('status')).toContainText('46 remarks would come in.');
  await expect(files.getByRole('row')).toHaveCount(47);
  await files.getByRole('button', { name: 'Bring in 46 remarks' }).click();
  await expect(files.getByRole('status')).toContainText('46 remarks came in.');
  await files.getByRole('button', { name: 'Close' }).click();
  await other.getByLabel('Find by any words').fill('obvious');
  await other.getByRole('button', { name: 'Play “Take “obviously” out”' }).first().click();
  await expect(other.getByRole('button', { name: 'Pause “Take “obviously” out”' })).toBeVisible();
});

test('what is said about one question is heard beside it', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  await openCourse(page, 'Reading the Shore');
  await page.getByRole('link', { name: 'Tide arithmetic' }).first().click();
  await page.getByRole('button', { name: 'Hold and speak about question 2' }).focus();
  await speak(page, 1.5);
  await expect(page.getByRole('group', { name: 'what is said about question 2' })).toBeVisible();
  await saved(page);

  const student = await enter(browser, server, 'Bashir Osman');
  await expect(workIn(student, 'Tide arithmetic')).toBeVisible();
  await expect(student.getByRole('group', { name: /question 2/ })).toBeVisible();
  await expect(student.getByRole('group', { name: /question 1/ })).toBeHidden();
});
