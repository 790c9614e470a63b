import { enter, expect, openDesk, ribbonAbout, saved, select, speak, TEACHER, test } from './school.ts';

test.use({ school: 'class' });

test('the whole job by keyboard alone: from what waits to the next student', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);

  await test.step('to the desk', async () => {
    const link = page.getByRole('link', { name: /^Eleni Marathou/ }).first();
    for (let presses = 0; presses < 60 && !(await link.evaluate((one) => one === document.activeElement)); presses++)
      await page.keyboard.press('Tab');
    await page.keyboard.press('Enter');
    // The desk opens with the keyboard in the work.
    await expect(page.getByRole('article')).toBeFocused();
  });

  await test.step('select a sentence, speak, set the kind, hear it', async () => {
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('ArrowDown');
    const words = (await page.evaluate(() => getSelection()!.toString())).slice(0, 20);
    await speak(page, 1.5);
    const ribbon = ribbonAbout(page, words);
    await expect(ribbon).toBeFocused();
    await page.keyboard.press('2');
    await expect(ribbon).toContainText('Question');
    await page.keyboard.press('p');
    await expect(ribbon.getByRole('button', { name: /^Pause/ })).toBeVisible();
    await page.keyboard.press('p');
  });

  await test.step('write, and undo it', async () => {
    await page.getByRole('article').focus();
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('t');
    await page.keyboard.type('Say how you know.');
    await page.keyboard.press('Control+Enter');
    await expect(page.getByText('Say how you know.')).toBeVisible();
    await page.keyboard.press('Control+z');
    await expect(page.getByText('Undone: new remark.')).toBeVisible();
    await expect(page.getByRole('region', { name: 'Margin' }).getByText('Say how you know.')).toBeHidden();
    await page.keyboard.press('Control+Shift+z');
    await expect(page.getByRole('region', { name: 'Margin' }).getByText('Say how you know.')).toBeVisible();
  });

  await test.step('score with the arrow keys', async () => {
    const first = page.getByRole('group', { name: 'Observation' }).getByRole('radio').first();
    for (let presses = 0; presses < 80 && !(await first.evaluate((one) => one === document.activeElement)); presses++)
      await page.keyboard.press('Tab');
    for (const name of ['Observation', 'Evidence', 'Line of thought']) {
      const group = page.getByRole('group', { name });
      await page.keyboard.press('Space');
      await page.keyboard.press('ArrowDown');
      await expect(group.getByRole('radio').nth(1)).toBeChecked();
      const inGroup = () => group.evaluate((one) => one.contains(document.activeElement));
      for (let presses = 0; presses < 8 && (await inGroup()); presses++) await page.keyboard.press('Tab');
    }
    await saved(page);
    await page.keyboard.press('d');
    await expect(page.getByRole('link', { name: 'Eleni Marathou: ready' })).toBeVisible();
  });

  await test.step('and on to the next student', async () => {
    await page.keyboard.press('n');
    await expect(page.getByText('5 of 10')).toBeVisible();
    await expect(page.getByRole('article')).toBeFocused();
    await expect(page.getByText(/^1 done in 0 min, \d+ left: about/)).toBeVisible();
    await page.keyboard.press('Shift+N');
    await expect(page.getByText('4 of 10')).toBeVisible();
  });
});

test('the class strip shows everybody and leads to their work', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  await openDesk(page, 'Dagny Holmqvist');
  const strip = page.getByRole('navigation', { name: 'Class' });
  await expect(strip.getByRole('listitem')).toHaveCount(30);
  await expect(strip.getByRole('link', { name: 'Amaru Quispe: returned' })).toBeVisible();
  await expect(strip.getByRole('link', { name: 'Bronagh Tully: back again' })).toBeVisible();
  await expect(strip.getByRole('link', { name: 'Dagny Holmqvist: begun' })).toHaveAttribute('aria-current', 'true');
  await expect(strip.getByText('Zofia Krol: not handed in')).toBeAttached();
  await strip.getByRole('link', { name: /^Farid Noorzai/ }).click();
  await expect(page.getByRole('heading', { level: 2 }).first()).toBeVisible();
  await expect(page.locator('.student strong')).toHaveText('Farid Noorzai');
});

test('what was done for one student is undone from the desk of the next', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  await openDesk(page, 'Farid Noorzai');
  await select(page, 'for three years');
  await speak(page, 1.2);
  await expect(ribbonAbout(page, 'for three years')).toBeVisible();
  await page.keyboard.press('n');
  await expect(page.locator('.student strong')).toHaveText('Hoku Kalani');
  await page.keyboard.press('Control+z');
  await expect(page.locator('.student strong')).toHaveText('Farid Noorzai');
  await expect(page.getByText('Undone: new remark.')).toBeVisible();
  await expect(ribbonAbout(page, 'for three years')).toHaveCount(0);
  await expect(page.getByText('Put aside: 1')).toBeVisible();
});
