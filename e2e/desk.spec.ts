import { enter, expect, openDesk, ribbonAbout, speak, TEACHER, test } from './school.ts';

test.use({ school: 'desk' });

test('the desk fits 1280 × 800 without a scrollbar of the page', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  await openDesk(page, 'Dagny Holmqvist');
  await expect(ribbonAbout(page, 'there is a hiss')).toBeVisible();
  const overflow = await page.evaluate(() => {
    const { scrollWidth, scrollHeight, clientWidth, clientHeight } = document.documentElement;
    return [scrollWidth - clientWidth, scrollHeight - clientHeight];
  });
  expect(overflow).toEqual([0, 0]);
  for (const name of ['Return', 'Record a remark', 'Show the keys'])
    await expect(page.getByRole('button', { name, exact: true })).toBeInViewport({ ratio: 1 });
});

test('ribbons stand level with their passages, and a passage leads to its ribbon', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  await openDesk(page, 'Dagny Holmqvist');
  const ribbon = ribbonAbout(page, 'Everybody knows');
  const passage = page.locator('mark', { hasText: 'Everybody knows' });
  await passage.click();
  await expect(ribbon).toBeFocused();
  // Ribbons glide to their places.
  await expect(async () => {
    const [mark, box] = [(await passage.boundingBox())!, (await ribbon.boundingBox())!];
    expect(Math.abs(mark.y - box.y)).toBeLessThan(4);
  }).toPass();
});

test('sentences are selected and spoken about with keys alone', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  await openDesk(page, 'Dagny Holmqvist');
  await page.getByRole('article').focus();
  for (let presses = 0; presses < 3; presses++) await page.keyboard.press('ArrowDown');
  const words = await page.evaluate(() => getSelection()!.toString());
  expect(words).toBe('I walked along its foot at low tide with a notebook.');
  await page.keyboard.press('3');
  await speak(page, 1);
  const ribbon = ribbonAbout(page, 'I walked along its foot');
  await expect(ribbon).toBeFocused();
  await expect(ribbon).toContainText('Repair');
  await page.keyboard.press('4');
  await expect(ribbon).toContainText('Next step');
  await page.keyboard.press('p');
  await expect(ribbon.getByRole('button', { name: /^Pause/ })).toBeVisible();
  await page.keyboard.press('Delete');
  await expect(ribbon).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(ribbon).toBeVisible();
  await page.keyboard.press('?');
  await expect(page.getByRole('complementary', { name: 'Keys' })).toBeVisible();
});

test('nothing is loaded from anywhere else, and no script is refused by the policy', async ({ browser, server }) => {
  const context = await browser.newContext();
  const page = await context.newPage();
  const foreign: string[] = [];
  const complaints: string[] = [];
  page.on('request', (request) => {
    if (/^(https?|wss?):/.test(request.url()) && !request.url().startsWith(server.address)) foreign.push(request.url());
  });
  page.on('console', (message) => {
    if (message.type() === 'error') complaints.push(message.text());
  });
  await page.goto(server.address);
  await page.getByRole('button', { name: TEACHER }).click();
  await openDesk(page, 'Dagny Holmqvist');
  await expect(ribbonAbout(page, 'there is a hiss')).toBeVisible();
  expect([foreign, complaints]).toEqual([[], []]);
});
