import { enter, expect, TEACHER, test } from './school.ts';

test.use({ school: 'platform' });

test('a teacher comes from a learning platform, takes over its class list and sends it grades', async ({
  browser,
  server,
}) => {
  const steward = await enter(browser, server, TEACHER);
  await steward.goto(`${server.address}/platforms`);
  const platform = (await steward.getByRole('link', { name: 'Open it' }).getAttribute('href'))!;
  await expect(steward.getByText(`${server.address}/lti/launch`)).toBeVisible();

  // In a browser in which nobody is signed in.
  const page = await (await browser.newContext()).newPage();
  await page.goto(platform);
  await page.getByRole('button', { name: `Open Vivid Margin as ${TEACHER}` }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Letters from the Tideline' })).toBeVisible();
  await expect(page.getByRole('radio', { name: 'Letters from the Tideline', exact: true })).toBeChecked();
  await page.getByRole('button', { name: 'Connect it' }).click();
  await page.getByRole('link', { name: 'Learning platform' }).click();
  await page.getByRole('button', { name: 'Look at the class list there' }).click();
  await expect(page.getByText('1 student would come in.')).toBeVisible();
  await expect(page.getByRole('row', { name: /Pirita Saarinen/u })).toContainText('comes in');
  await page.getByRole('button', { name: 'Bring in 1 student' }).click();
  await expect(page.getByText('1 student came in.')).toBeVisible();
  await page.getByRole('button', { name: 'Good' }).click();

  const row = page.getByRole('listitem').filter({ hasText: 'Words for mud' });
  await row.getByRole('button', { name: /^Send \d+ grades/u }).click();
  await expect(row.getByText('all there')).toBeVisible();
  await expect(row).toContainText(/(\d+) of \1 sent/u);

  // A student comes straight in; a page that is sent twice leads nowhere.
  const student = await (await browser.newContext()).newPage();
  await student.goto(platform);
  const launch = student.waitForRequest((request) => request.url().endsWith('/lti/launch'));
  await student.getByRole('button', { name: 'Open Vivid Margin as Pirita Saarinen' }).click();
  const sent = (await launch).postDataJSON() as Record<string, string>;
  await expect(student.getByRole('heading', { level: 1, name: 'Letters from the Tideline' })).toBeVisible();
  const again = await student.request.post(`${server.address}/lti/launch`, { form: sent });
  expect(again.status()).toBe(403);
  expect(await again.text()).toContain('has been used already');
});
