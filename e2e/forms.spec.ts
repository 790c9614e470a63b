import { enter, expect, openDesk, pickFromMenu, ribbonAbout, saved, select, speak, TEACHER, test } from './school.ts';

test.use({ school: 'forms' });

const STUDENT = 'Hoku Kalani';

test('remarks of every form, from the desk to the student', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  await openDesk(page, STUDENT);

  await test.step('written, in three actions after the selection: T, the words, Control and Enter', async () => {
    await select(page, 'nearly all of the same size');
    await page.keyboard.press('3');
    await page.keyboard.press('t');
    await page.keyboard.type('How many grains did you measure?');
    await page.keyboard.press('Control+Enter');
    await expect(ribbonAbout(page, 'nearly all')).toContainText('How many grains did you measure?');
    await expect(ribbonAbout(page, 'nearly all')).toContainText('Repair');
  });

  await test.step('with a link, a file and tags', async () => {
    await select(page, 'jump at a magnet');
    await page.keyboard.press('t');
    const form = page.getByRole('form', { name: 'Remark' });
    await form.getByRole('textbox', { name: 'Write your remark' }).fill('Read about this.');
    await form.getByRole('button', { name: 'Add a link' }).click();
    await form.getByRole('textbox', { name: 'Link' }).fill('example.org/sand');
    await form.getByLabel('File', { exact: true }).setInputFiles({
      name: 'magnetite.txt',
      mimeType: 'text/plain',
      buffer: Buffer.from('Fe3O4'),
    });
    await form.getByRole('button', { name: 'Keep' }).click();
    const ribbon = ribbonAbout(page, 'jump at a magnet');
    await expect(ribbon.getByRole('link', { name: 'example.org' })).toHaveAttribute('href', 'https://example.org/sand');
    await expect(ribbon.getByRole('link', { name: 'magnetite.txt' })).toBeVisible();
  });

  await test.step('a suggestion is shown in the work, word by word', async () => {
    await select(page, 'I took three jam jars');
    await page.keyboard.press('g');
    const words = page.getByRole('textbox', { name: 'Your wording' });
    await expect(words).toHaveValue('I took three jam jars');
    await words.fill('I carried three jam jars');
    await page.keyboard.press('Control+Enter');
    await expect(page.getByRole('article').locator('mark.struck')).toHaveText('took');
    await expect(page.getByRole('article').locator('.put-in')).toHaveAttribute('data-text', 'carried');
  });

  await test.step('a reaction with one click', async () => {
    await select(page, 'it is hardly sand');
    await page.getByRole('button', { name: 'React with 👏' }).click();
    await expect(ribbonAbout(page, 'it is hardly sand')).toContainText('👏');
  });

  await test.step('a stamp, made larger and moved', async () => {
    await select(page, 'After shaking it');
    await page.keyboard.press('x');
    await page.getByRole('button', { name: 'Stamp: shell' }).click();
    const stamp = page.getByRole('article').locator('.stamp svg');
    await expect(stamp).toBeVisible();
    const before = (await stamp.boundingBox())!;
    await ribbonAbout(page, 'After shaking it').getByRole('button', { name: 'Larger stamp' }).click();
    await expect.poll(async () => (await stamp.boundingBox())!.width).toBeGreaterThan(before.width);
    await ribbonAbout(page, 'After shaking it').click();
    await select(page, 'They are shiny');
    await page.getByRole('button', { name: /^Move it to “They are shiny”/ }).click();
    await expect(ribbonAbout(page, 'They are shiny')).toBeVisible();
    await page.getByRole('button', { name: 'Close: Stamps' }).click();
  });

  await test.step('a private note', async () => {
    await select(page, 'Two days later');
    await page.getByRole('button', { name: 'Other kinds of remark' }).click();
    await page.getByText('Private note').click();
    await page.keyboard.type('Ask a colleague about this.');
    await page.keyboard.press('Control+Enter');
    await expect(ribbonAbout(page, 'Two days later')).toContainText('Private');
  });

  await test.step('voice and text together, with a name and a tag', async () => {
    await select(page, 'You would think that sand is sand');
    await speak(page, 1.2);
    const ribbon = ribbonAbout(page, 'You would think');
    await ribbon.getByRole('button', { name: 'Write on this remark' }).click();
    await ribbon.getByRole('textbox', { name: 'Write your remark' }).fill('In short: a good beginning.');
    await ribbon.getByRole('textbox', { name: 'Name of this remark' }).fill('Opening');
    await ribbon.getByRole('combobox', { name: 'Tags' }).fill('style');
    await page.keyboard.press('Enter');
    await ribbon.getByRole('button', { name: 'Keep' }).click();
    await expect(ribbon).toContainText('In short: a good beginning.');
    await expect(ribbon).toContainText('style');
    await expect(ribbon.getByRole('button', { name: /^Play/ })).toBeVisible();
  });

  await test.step('changed by two people at once, nobody’s words are lost', async () => {
    const remark = await page.evaluate(async () => {
      const work = location.pathname.split('/').at(-1)!;
      const { remarks } = (await (await fetch(`/api/submissions/${work}/feedback`)).json()) as {
        remarks: { id: string; text: string }[];
      };
      const { id } = remarks.find(({ text }) => text.startsWith('How many grains'))!;
      const body = JSON.stringify({ text: 'How many grains, and from where?' });
      await fetch(`/api/remarks/${id}`, { method: 'PATCH', body, headers: { 'Content-Type': 'application/json' } });
      return id;
    });
    expect(remark).toBeTruthy();
    const ribbon = ribbonAbout(page, 'nearly all');
    await ribbon.click();
    await ribbon.getByRole('button', { name: 'Write on this remark' }).click();
    await ribbon.getByRole('textbox', { name: 'Write your remark' }).fill('Which grains?');
    await ribbon.getByRole('button', { name: 'Keep' }).click();
    await page.getByRole('button', { name: 'Compare' }).click();
    const both = page.getByRole('dialog', { name: 'Changed by two people' });
    await expect(both).toContainText('How many grains, and from where?');
    await expect(both).toContainText('Which grains?');
    await both.getByRole('button', { name: 'Put in what I had' }).click();
    await expect(ribbon).toContainText('Which grains?');
    await saved(page);
  });

  await test.step('are filtered by kind and tag', async () => {
    const filter = page.getByRole('group', { name: 'Remarks shown' });
    await pickFromMenu(filter, 'Remarks with a tag', 'style');
    await expect(filter).toContainText('1 of 7 shown');
    await filter.getByRole('button', { name: 'Show all' }).click();
    await expect(ribbonAbout(page, 'nearly all')).toBeVisible();
  });

  await saved(page);
  await page.getByRole('button', { name: 'Return', exact: true }).click();
  await expect(page.getByRole('dialog')).toContainText('1 private note stays among the teachers');
  await page.getByRole('button', { name: `Return to ${STUDENT}` }).click();
  await expect(page.getByText('returned', { exact: true })).toBeVisible();

  const student = await enter(browser, server, STUDENT);
  await test.step('the student has all but the private note', async () => {
    await student.getByRole('link', { name: 'Open your feedback' }).click();
    for (const words of ['nearly all', 'jump at a magnet', 'I took three', 'it is hardly sand', 'They are shiny'])
      await expect(ribbonAbout(student, words)).toBeVisible();
    await expect(student.getByText('Ask a colleague')).toHaveCount(0);
    const download = student.waitForEvent('download');
    await student.getByRole('link', { name: 'magnetite.txt' }).click();
    expect((await download).suggestedFilename()).toBe('magnetite.txt');
  });

  await test.step('and takes the suggestion over, which the teacher sees', async () => {
    const ribbon = ribbonAbout(student, 'I took three');
    await ribbon.getByRole('button', { name: 'Take these words over' }).click();
    await expect(student.getByText('1 suggestion is taken over.')).toBeVisible();
    await saved(student);
    await page.reload();
    await expect(ribbonAbout(page, 'I took three')).toContainText('Taken over');
  });
});

test('two teachers mark the same work, and each remark says whose it is', async ({ browser, server }) => {
  const first = await enter(browser, server, TEACHER);
  await openDesk(first, 'Kateryna Bilyk');
  await select(first, 'I had never left any.');
  await first.keyboard.press('t');
  await first.keyboard.type('Mine.');
  await first.keyboard.press('Control+Enter');
  await expect(ribbonAbout(first, 'I had never left any')).toContainText('Mine.');
  await saved(first);
  const second = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await second.addInitScript(() => localStorage.setItem('microphone-checked', 'true'));
  await second.goto(`${server.address}/sign-in`);
  const other = second.getByRole('button', { name: /^(?!Tamsin)/ }).first();
  const name = (await other.innerText()).trim();
  await other.click();
  await expect(second).not.toHaveURL(/sign-in/);
  await expect(second.getByRole('heading', { level: 1 })).toBeVisible();
  await second.goto(first.url());
  await expect(ribbonAbout(second, 'I had never left any')).toContainText(TEACHER);
  await second.keyboard.press('t');
  await second.keyboard.type('Mine too.');
  await second.keyboard.press('Control+Enter');
  await saved(second);
  const filter = second.getByRole('group', { name: 'Remarks shown' });
  await pickFromMenu(filter, 'Whose remarks', name);
  await expect(ribbonAbout(second, 'I had never left any')).toHaveCount(0);
  await expect(second.getByText('Mine too.')).toBeVisible();
});

test('the margin key of the course is changed, and the desk and the student follow', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  await openDesk(page, 'Liang Meixiu');
  await page.getByRole('button', { name: 'Other kinds of remark' }).click();
  await page.getByText('Change the margin key').click();
  const panel = page.getByRole('complementary', { name: 'Margin key' });
  await panel.getByRole('textbox', { name: 'Name of kind 3' }).fill('Mend');
  await panel.getByRole('button', { name: 'Another kind' }).click();
  await expect(panel.getByRole('alert')).toContainText('Every kind needs a name.');
  await panel.getByRole('textbox', { name: 'Name of kind 5' }).fill('Wonder');
  await panel.getByRole('button', { name: 'Save' }).click();
  await expect(panel).toHaveCount(0);
  await select(page, 'A cast is not a worm.');
  await page.keyboard.press('5');
  await page.keyboard.press('t');
  await page.keyboard.type('How did you find that out?');
  await page.keyboard.press('Control+Enter');
  const ribbon = page.getByRole('region', { name: /^Wonder about/ });
  await expect(ribbon).toBeVisible();
  await page.keyboard.press('3');
  await expect(page.getByRole('region', { name: /^Mend about .*A cast/ })).toBeVisible();
});
