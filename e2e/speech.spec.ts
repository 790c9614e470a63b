import type { Page } from '@playwright/test';
import { simulateRecogniser } from './recogniser.ts';
import { enter, expect, openDesk, pick, play, ribbonAbout, saved, select, speak, TEACHER, test } from './school.ts';

test.use({ school: 'speech' });

const asked = (page: Page) =>
  page.evaluate(
    () => (window as { recogniserWasAsked?: { processLocally: boolean; phrases: string[] } }).recogniserWasAsked,
  );

test('a browser that listens on the device writes down what is said while it is said', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  await simulateRecogniser(page, { onDevice: true, hears: 'farid this is a claim' });
  await page.reload();
  await openDesk(page, 'Farid Noorzai');
  await select(page, 'for three years');
  await speak(page, 2);
  const ribbon = ribbonAbout(page, 'for three years');
  await expect(ribbon).toContainText('this is a claim');
  await expect(ribbon).toContainText('draft by this browser, not read yet');
  await test.step('with the names and words of the work as hints', async () => {
    const { processLocally, phrases } = (await asked(page))!;
    expect([processLocally, phrases]).toEqual([true, expect.arrayContaining(['Farid', 'Noorzai'])]);
  });
  await test.step('the server sets it into sentences and finds the time of each word', async () => {
    // The sound says something else, so a pause, and with it the end of a sentence, may fall between any two words.
    const sentences = /Farid\W+this\W+is\W+a\W+claim\./i;
    await expect(ribbon).toContainText(sentences, { timeout: 40_000 });
    await saved(page);
    await page.reload();
    await expect(ribbon).toContainText(sentences);
  });
});

test('one that sends the sound away is asked only after the teacher has agreed to it', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  await simulateRecogniser(page, { onDevice: false, hears: 'this went far away' });
  await page.reload();
  await openDesk(page, 'Eleni Marathou');
  await speak(page);
  await expect(ribbonAbout(page, 'the whole work')).toBeVisible();
  expect(await asked(page)).toBeUndefined();

  await test.step('agreeing is one sentence in the settings', async () => {
    await page.goto(`${server.address}/speech`);
    await page.getByRole('checkbox', { name: /I agree that, while I record/ }).check();
    await page.reload();
    await expect(page.getByRole('checkbox', { name: /I agree that, while I record/ })).toBeChecked();
  });
  await page.goto(server.address);
  await openDesk(page, 'Hoku Kalani');
  await page.waitForLoadState('networkidle');
  await speak(page, 2);
  await expect(ribbonAbout(page, 'the whole work')).toContainText(/this went far away/i);
  expect((await asked(page))!.processLocally).toBe(false);
});

test('speech settings say what is spoken, and whom the sound goes to', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  await page.getByRole('button', { name: TEACHER }).click();
  await page.getByRole('menuitem', { name: 'Voice and words' }).click();
  await pick(page, 'You, wherever you teach', 'Spanish');
  await pick(page, 'All teachers of Reading the Shore', 'French');
  await page.reload();
  await expect(page.getByRole('combobox', { name: 'You, wherever you teach' })).toHaveValue('Spanish');
  await expect(page.getByRole('combobox', { name: 'All teachers of Reading the Shore' })).toHaveValue('French');
  await expect(page.getByRole('row', { name: /Phrase list/ })).toContainText('this server, nowhere else');
  await test.step('a remark that is written down by hand is in that language', async () => {
    await page.goto(server.address);
    await openDesk(page, 'Jomo Wekesa');
    await speak(page);
    const ribbon = ribbonAbout(page, 'the whole work');
    await ribbon.getByRole('button', { name: /No transcript yet/ }).click();
    await ribbon.getByRole('textbox', { name: 'Transcript' }).fill('Bien hecho.');
    await page.keyboard.press('Control+Enter');
    await expect(ribbon.locator('[lang=es]')).toHaveText(/Bien\s+hecho\./);
    await saved(page);
  });
});

test('all remarks are found from one field, and a hit plays from its words', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  await page.getByRole('link', { name: 'Find remarks' }).click();
  const field = page.getByRole('searchbox', { name: 'Find remarks by their words' });
  await expect(field).toBeFocused();
  const hit = page.getByRole('article').filter({ hasText: 'Amaru Quispe' });
  // The server times the words of the sample school after it has started.
  await expect(async () => {
    await field.fill('');
    await expect(hit).toHaveCount(0);
    await field.fill('STOPS look');
    await expect(hit).toHaveCount(1);
    await expect(hit.locator('.word').first()).toBeVisible({ timeout: 100 });
  }).toPass();
  await expect(hit.locator('.found')).toHaveText(['stops', 'looking.']);
  await hit.getByRole('button', { name: /^Play from the words/ }).click();
  // The words before are never said.
  expect('When you write that a reason is obvious, the reader').not.toContain(
    (await hit.locator('.now').textContent())!,
  );
  await field.fill('no such remark anywhere');
  await expect(page.getByText('No remark has all of these words')).toBeVisible();

  await test.step('a student finds only what was returned to them', async () => {
    const student = await enter(browser, server, 'Amaru Quispe');
    await student.goto(`${server.address}/search?words=the`);
    await expect(student.getByRole('article').first()).toBeVisible();
    for (const name of await student.getByRole('article').getByRole('link').allTextContents())
      expect(name).toBe('Amaru Quispe');
  });

  await test.step('on the desk it stands beside the work, and opens another', async () => {
    await page.goto(server.address);
    await openDesk(page, 'Dagny Holmqvist');
    await page.keyboard.press('f');
    await page.getByRole('searchbox').fill('stops looking');
    await page.getByRole('article').getByRole('link', { name: 'Amaru Quispe' }).click();
    const ribbon = ribbonAbout(page, 'The reason is obvious');
    await expect(ribbon).toBeFocused();
    await play(ribbon);
    await page.getByRole('searchbox').fill('patches number');
    const other = page.getByRole('article').filter({ hasText: 'How many patches' });
    await other.getByRole('link', { name: 'Amaru Quispe' }).click();
    await expect(ribbonAbout(page, 'I did not lift enough')).toBeFocused();
  });
});

test('earlier words of a remark can be read, and put back', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  await openDesk(page, 'Dagny Holmqvist');
  const ribbon = ribbonAbout(page, 'nobody who planned');
  await ribbon.click({ position: { x: 200, y: 18 } });
  await page.keyboard.press('w');
  await ribbon.getByRole('textbox', { name: 'Transcript' }).fill('Who says so?');
  await page.keyboard.press('Control+Enter');
  await saved(page);
  await ribbon.getByRole('button', { name: 'Languages and captions' }).click();
  await ribbon.getByRole('button', { name: 'Earlier words' }).click();
  const before = ribbon.getByRole('list', { name: 'Earlier words' });
  await expect(before).toContainText('How could you find out what they thought?');
  await before.getByRole('button', { name: 'Put back' }).first().click();
  await expect(ribbon.locator('.words').first()).toContainText('How could you find out');
  await expect(before).toContainText('Who says so?');
  await page.getByRole('article').first().focus();
  await page.keyboard.press('Control+z');
  await expect(ribbon.locator('.words').first()).toContainText('Who says so?');
});
