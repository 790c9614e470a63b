import {
  enter,
  expect,
  openDesk,
  pick,
  pickFromMenu,
  ribbonAbout,
  saved,
  select,
  speak,
  TEACHER,
  test,
} from './school.ts';

test.use({ school: 'transcripts', dictation: true });

test('what is said is written down by the server, and mended word by word', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  await openDesk(page, 'Farid Noorzai');
  await select(page, 'for three years');
  await speak(page, 4);
  const ribbon = ribbonAbout(page, 'for three years');
  await test.step('the desk does not wait for it', async () => {
    await expect(ribbon).toContainText('Listening for the words …');
  });
  await test.step('it comes as a draft', async () => {
    await expect(ribbon).toContainText('draft by PocketSphinx, not read yet', { timeout: 60_000 });
  });
  await test.step('it is mended with the keyboard alone', async () => {
    await ribbon.focus();
    await page.keyboard.press('w');
    const field = ribbon.getByRole('textbox', { name: 'Transcript' });
    await expect(field).toBeFocused();
    await page.keyboard.press('Control+a');
    await page.keyboard.type('These are not the words that were said.');
    await page.keyboard.press('Control+Enter');
    await expect(ribbon).toContainText('These are not the words');
    await expect(ribbon).not.toContainText('draft');
    await saved(page);
  });
  await test.step('and what a person wrote is still there after a reload', async () => {
    await page.reload();
    await expect(ribbon).toContainText('These are not the words');
  });
});

test('a recording is cut by striking its words, and words light up while they are said', async ({
  browser,
  server,
}) => {
  const page = await enter(browser, server, TEACHER);
  await openDesk(page, 'Dagny Holmqvist');
  const ribbon = ribbonAbout(page, 'nobody who planned');
  const header = { position: { x: 200, y: 18 } };
  await ribbon.click(header);
  await expect(ribbon.locator('.word').first()).toBeVisible({ timeout: 30_000 });
  await test.step('a click on a word plays from it', async () => {
    await ribbon.locator('.word', { hasText: 'thought?' }).click();
    await expect(ribbon.locator('.now')).toHaveText('thought?');
    await page.keyboard.press('p');
  });
  await test.step('struck words are gone from sound and transcript', async () => {
    await ribbon.click(header);
    await page.keyboard.press('e');
    await ribbon.getByRole('button', { name: 'Cut by words' }).click();
    await ribbon.getByRole('button', { name: 'There', exact: true }).click();
    await ribbon.getByRole('button', { name: 'see.', exact: true }).click({ modifiers: ['Shift'] });
    await expect(ribbon).toContainText('of 5.5 s are left');
    await ribbon.getByRole('button', { name: 'Keep' }).click();
    await expect(ribbon.getByRole('region', { name: 'Cut by words' })).toHaveCount(0);
    await saved(page);
    await expect(ribbon).not.toContainText('letter');
    await expect(ribbon).toContainText('How could you find out what they thought?');
    await expect(ribbon.locator('.clock')).toHaveText('0:02');
  });
  await test.step('and come back', async () => {
    await page.getByRole('article').focus();
    await page.keyboard.press('Control+z');
    await expect(ribbon.locator('.clock')).toHaveText(/0:0[56]/);
    await expect(ribbon).toContainText('There may be a plan, or a letter');
    await expect(ribbon.getByRole('button', { name: /^Play/ })).toBeVisible();
  });
});

test('a student reads the words in the language that they choose', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  await openDesk(page, 'Dagny Holmqvist');
  await page.getByRole('link', { name: 'Amaru Quispe: returned' }).click();
  const ribbon = ribbonAbout(page, 'the whole work');
  await ribbon.click({ position: { x: 200, y: 18 } });
  await ribbon.getByRole('button', { name: 'Languages and captions' }).click();
  await pick(ribbon, 'Add words in', 'Arabic');
  await ribbon.getByRole('textbox', { name: 'Arabic' }).fill('قرأت هذا بسرور كبير.');
  await ribbon.getByRole('textbox', { name: 'Arabic' }).blur();
  await saved(page);

  const student = await enter(browser, server, 'Amaru Quispe');
  await student.getByRole('link', { name: 'Open your feedback' }).first().click();
  const theirs = ribbonAbout(student, 'the whole work');
  await pickFromMenu(theirs, 'Words in', 'Arabic');
  const words = theirs.locator('[lang=ar]');
  await expect(words).toHaveText('قرأت هذا بسرور كبير.');
  expect(await words.evaluate((element) => getComputedStyle(element).direction)).toBe('rtl');
  await pickFromMenu(theirs, 'Words in', 'English');
  await expect(theirs).toContainText('with great pleasure');
});
