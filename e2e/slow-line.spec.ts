import { strToU8, unzipSync, zipSync } from 'fflate';
import { randomBytes } from 'node:crypto';
import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { enter, expect, pick, TEACHER, test, workIn } from './school.ts';

test.use({ school: 'slow-line' });

/** A document of three megabytes. */
const essay = (): Buffer => {
  const parts = unzipSync(readFileSync(new URL('../demo/documents/amaru-quispe.docx', import.meta.url)));
  const padding = { 'word/padding.bin': randomBytes(3_000_000), 'word/note.txt': strToU8('') };
  return Buffer.from(zipSync({ ...parts, ...padding }, { level: 0 }));
};

/** A line so slow that three megabytes take a while. */
async function slow(page: Page, bytesPerSecond: number): Promise<void> {
  const session = await page.context().newCDPSession(page);
  const speed = { offline: false, latency: 20, downloadThroughput: -1, uploadThroughput: bytesPerSecond };
  await session.send('Network.emulateNetworkConditions', speed);
}

async function choose(page: Page, buffer: Buffer): Promise<void> {
  await page.getByRole('link', { name: 'Revise it' }).first().click();
  await page.getByRole('button', { name: 'Send files' }).click();
  await page.locator('input[type=file]').setInputFiles({ name: 'long.docx', mimeType: 'application/zip', buffer });
}

const offsets = (page: Page): string[] => {
  const found: string[] = [];
  page.on('request', (request) => {
    if (request.method() === 'PATCH') found.push(request.headers()['upload-offset']!);
  });
  return found;
};

test('returned work that was opened once is heard again without a server, until one signs out', async ({
  browser,
  server,
}) => {
  const page = await enter(browser, server, 'Amaru Quispe', { serviceWorkers: 'allow' });
  await page.evaluate(() => navigator.serviceWorker.ready);
  // From now on the worker sees what is asked for.
  await page.reload();
  await page.getByRole('link', { name: 'Open your feedback' }).first().click();
  const remarks = page.locator('[data-remark]');
  await expect(remarks.first()).toBeVisible();
  const kept = () =>
    page.evaluate(async () =>
      (await (await caches.open('returned')).keys()).map(({ url }) =>
        new URL(url).pathname.replace(/[0-9a-f-]{36}/g, '*'),
      ),
    );
  await expect.poll(async () => (await kept()).filter((path) => path.includes('/sound/')).length).toBeGreaterThan(4);
  expect(await kept()).toContain('/api/submissions/*/feedback');

  await server.stop();
  await page.goto(server.address);
  await page.getByRole('link', { name: 'Open your feedback' }).first().click();
  await expect(page.getByRole('article')).toContainText('What the Strand Line Keeps');
  await page.getByRole('button', { name: 'Listen through' }).click();
  await expect(
    page.getByRole('region', { name: 'Listening through' }).getByRole('button', { name: 'Pause' }),
  ).toBeVisible();
  await expect(page.locator('[data-remark] .now').first()).toBeVisible();

  await server.start();
  await page.goto(server.address);
  await page.getByRole('button', { name: 'Amaru Quispe' }).click();
  await page.getByRole('menuitem', { name: 'Sign out' }).click();
  await expect(page).toHaveURL(/sign-in/);
  await expect.poll(() => page.evaluate(() => caches.has('returned'))).toBe(false);
});

test('a work is paused, goes on, and after the page was closed goes on where it was', async ({ browser, server }) => {
  const page = await enter(browser, server, 'Amaru Quispe');
  const bytes = essay();
  await choose(page, bytes);
  await slow(page, 500_000);
  await page.getByRole('button', { name: 'Hand in the new version' }).click();
  await expect(page.getByRole('status').filter({ hasText: /Sending: [3-9]\d/ })).toBeVisible({ timeout: 20_000 });
  await page.getByRole('button', { name: 'Pause' }).click();
  await expect(page.getByText(/^Paused at/)).toBeVisible();
  await page.getByRole('button', { name: 'Go on' }).click();
  await expect(page.getByRole('status').filter({ hasText: /Sending: [5-9]\d/ })).toBeVisible({ timeout: 20_000 });
  const again = await page.context().newPage();
  await page.close();

  await again.goto(server.address);
  const sent = offsets(again);
  await choose(again, bytes);
  await again.getByRole('button', { name: 'Hand in the new version' }).click();
  await expect(again.getByText('long.docx has been handed in.')).toBeVisible({ timeout: 20_000 });
  expect(Number(sent[0])).toBeGreaterThanOrEqual(1024 * 1024);
});

test('a text that does not say how its letters are stored is read as is likely, and otherwise on wish', async ({
  browser,
  server,
}) => {
  const page = await enter(browser, server, 'Ines Bettencourt');
  const work = workIn(page, 'A place I know better than others');
  // Windows-1250; and a picture under another name.
  const text = Buffer.from([...Buffer.from('Most p'), 0xf8, ...Buffer.from('es zal'), 0x9e, 0xec]);
  const picture = readFileSync(new URL('../demo/documents/oyuna-batbayar.png', import.meta.url));
  await work.locator('input[type=file]').setInputFiles([
    { name: 'most.txt', mimeType: 'text/plain', buffer: text },
    { name: 'shore.jpg', mimeType: 'image/jpeg', buffer: picture },
  ]);
  await work.getByRole('button', { name: /^Hand in/ }).click();
  await expect(work.getByText('shore.jpg: Its name says something else, but inside it is a PNG')).toBeVisible();
  await pick(work, 'How the letters of most.txt are stored', 'Cyrillic (Windows-1251)');
  await expect(work.getByText(/^Version 2: most.txt/)).toBeVisible();
  await pick(work, 'How the letters of most.txt are stored', 'Central European (Windows-1250)');
  await expect(work.getByText(/^Version 3: most.txt/)).toBeVisible();
  await work.getByRole('link', { name: /Read/ }).first().click();
  await expect(page.getByText('Most přes zalžě')).toBeVisible();
});

test('a work waits for the connection, and says so', async ({ browser, server }) => {
  const page = await enter(browser, server, 'Amaru Quispe');
  await choose(page, essay());
  let cut = true;
  await page.route('**/api/uploads/*', (route) => (cut ? route.abort() : route.continue()));
  await page.getByRole('button', { name: 'Hand in the new version' }).click();
  await expect(page.getByText(/No connection at \d+/)).toBeVisible({ timeout: 20_000 });
  cut = false;
  await expect(page.getByText('long.docx has been handed in.')).toBeVisible({ timeout: 30_000 });
});

test('a page that does not arrive is asked for once more, and then told', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  let lost = 0;
  await page.route('**/assets/BankPage-*.js', (route) => (lost++ < 1 ? route.abort() : route.continue()));
  await page.getByRole('link', { name: 'Remark bank' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Remark bank' })).toBeVisible();
  expect(lost).toBe(2);

  await page.context().setOffline(true);
  await page.getByRole('link', { name: 'Find remarks' }).click();
  await expect(page.getByRole('alert')).toContainText('Couldn’t load this page.');
  await expect(page.getByRole('heading', { level: 1, name: 'Remark bank' })).toBeVisible();
  await page.context().setOffline(false);
  await page.getByRole('button', { name: 'Retry' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Find remarks' })).toBeVisible();
});
