import {
  expect,
  test as base,
  type Browser,
  type BrowserContextOptions,
  type Locator,
  type Page,
} from '@playwright/test';
import { Server } from './server.ts';

interface School {
  /** Files of different names never share a worker, and so each has a school of its own. */
  school: string;
  /** Whether its server listens to recordings. */
  dictation: boolean;
  server: Server;
}

export const test = base.extend<{ closing: boolean }, School>({
  // Pages of a test that is over would go on working beside the next.
  closing: [
    async ({ browser }, use) => {
      await use(true);
      for (const context of browser.contexts()) await context.close();
    },
    { auto: true },
  ],
  school: ['', { scope: 'worker', option: true }],
  dictation: [false, { scope: 'worker', option: true }],
  server: [
    async ({ school, dictation }, use) => {
      const server = await Server.start(school, { dictation });
      await use(server);
      await server.remove();
    },
    { scope: 'worker', timeout: 60_000 },
  ],
});

export { expect };

export const TEACHER = 'Tamsin Adeyemi';

/**
 * Opens a browser of their own for a person of the sample school, who has used a desk before. What a worker of the page asks for
 * cannot be watched from here, so there is none unless it is allowed.
 */
export async function enter(
  browser: Browser,
  server: Server,
  name: string,
  device: BrowserContextOptions = { viewport: { width: 1280, height: 800 } },
): Promise<Page> {
  const page = await (await browser.newContext({ serviceWorkers: 'block', ...device })).newPage();
  await page.addInitScript(() => localStorage.setItem('microphone-checked', 'true'));
  await page.goto(`${server.address}/sign-in`);
  await page.getByRole('button', { name, exact: true }).click();
  await expect(page).not.toHaveURL(/sign-in/);
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  return page;
}

/** By the address that the menu of courses has for it. */
export async function openCourse(page: Page, title: string): Promise<void> {
  await page.getByRole('button', { name: 'Courses', exact: true }).click();
  const href = await page.getByRole('menuitem', { name: title }).getAttribute('href');
  await page.goto(new URL(href!, page.url()).href);
  await expect(page.getByRole('heading', { level: 1, name: title })).toBeVisible();
}

export async function openDesk(page: Page, student: string): Promise<void> {
  await page
    .getByRole('link', { name: new RegExp(`^${student}`) })
    .first()
    .click();
  await expect(page.getByRole('article')).toBeVisible();
}

/** Drags over words, as a hand with a mouse does; once more where a picture that came late has moved them meanwhile. */
export const select = (page: Page, words: string): Promise<void> =>
  expect(() => dragOver(page, words)).toPass({ timeout: 15_000 });

async function dragOver(page: Page, words: string): Promise<void> {
  const box = await page.getByRole('article').evaluate((article, text) => {
    // A press on words that are selected already drags them instead.
    getSelection()!.removeAllRanges();
    const walker = document.createTreeWalker(article, NodeFilter.SHOW_TEXT);
    for (let node = walker.nextNode(); node; node = walker.nextNode()) {
      const at = node.textContent!.indexOf(text);
      if (at < 0) continue;
      node.parentElement!.scrollIntoView({ block: 'center' });
      const range = document.createRange();
      range.setStart(node, at);
      range.setEnd(node, at + text.length);
      const lines = [...range.getClientRects()];
      const [first, last] = [lines[0]!, lines.at(-1)!];
      return {
        from: [first.left + 1, first.top + first.height / 2],
        to: [last.right - 0.5, last.top + last.height / 2],
      };
    }
    throw new Error(`The work does not say “${text}”`);
  }, words);
  await page.mouse.move(box.from[0]!, box.from[1]!);
  await page.mouse.down();
  await page.mouse.move(box.to[0]!, box.to[1]!, { steps: 5 });
  await page.mouse.up();
  expect(await page.evaluate(() => getSelection()!.toString())).toBe(words);
}

/** Waits until recording has begun, and then for some seconds of it: however long a microphone takes to open. */
export async function goOnSpeaking(page: Page, seconds: number): Promise<void> {
  await expect(page.getByRole('timer')).toBeVisible();
  await page.waitForTimeout(seconds * 1000);
}

/** Holds the space bar for some seconds. */
export async function speak(page: Page, seconds = 1.5): Promise<void> {
  await page.keyboard.down('Space');
  await goOnSpeaking(page, seconds);
  await page.keyboard.up('Space');
  await expect(page.getByRole('timer')).toBeHidden();
}

/** Where words stand on screen, line by line. */
export const linesOf = (
  page: Page,
  words: string,
): Promise<{ left: number; top: number; right: number; bottom: number }[]> =>
  page.evaluate((wanted) => {
    const walker = document.createTreeWalker(document.querySelector('.folio')!, NodeFilter.SHOW_TEXT);
    for (let node = walker.nextNode() as Text | null; node; node = walker.nextNode() as Text | null) {
      const at = node.data.indexOf(wanted);
      if (at < 0) continue;
      const range = document.createRange();
      range.setStart(node, at);
      range.setEnd(node, at + wanted.length);
      // A space at the end of a line has a box of its own.
      return [...range.getClientRects()]
        .filter(({ width }) => width > 8)
        .map(({ left, top, right, bottom }) => ({ left, top, right, bottom }));
    }
    return [];
  }, words);

export const ribbonAbout = (page: Page, words: string): Locator =>
  page.getByRole('region', { name: new RegExp(`about .*${words}`) });

export const saved = (page: Page): Promise<void> => expect(page.getByText('Saved', { exact: true })).toBeVisible();

/** Plays a ribbon and waits until its clock moves: sound really comes out. */
export async function play(ribbon: Locator): Promise<void> {
  await ribbon.getByRole('button', { name: /^Play the remark/ }).click();
  await expect(ribbon.locator('.played').first()).toBeAttached();
}

/** A student's own work in one assignment. */
export const workIn = (page: Page, title: string): Locator =>
  page.locator('section').filter({ has: page.getByRole('heading', { name: title, exact: true }) });

/** Picks one of several in a field that opens a list. */
export async function pick(scope: Page | Locator, label: string, option: string): Promise<void> {
  const page = 'context' in scope ? scope : scope.page();
  const field = scope.locator('.v-select').filter({ has: page.getByRole('combobox', { name: label }) });
  const list = page.getByRole('listbox');
  const wanted = list.getByRole('option', { name: option, exact: true });
  await expect(async () => {
    if (!(await list.isVisible())) await field.click({ timeout: 1000 });
    // A long list draws only what is in sight, and draws anew under a hand that is as quick as this one.
    if (!(await wanted.isVisible()))
      await list.evaluate((element) => (element.scrollTop += 120), null, { timeout: 500 });
    await wanted.click({ timeout: 500 });
    await expect(list).toBeHidden({ timeout: 2000 });
  }).toPass();
}

/** Picks one of several with a button that opens a menu. */
export async function pickFromMenu(scope: Page | Locator, label: string, option: string): Promise<void> {
  const page = 'context' in scope ? scope : scope.page();
  await scope.getByRole('button', { name: new RegExp(`^${label}`) }).click();
  await page.getByRole('menuitem', { name: option }).click();
}

interface SentRemark {
  id: string;
  anchor: { quote?: { exact: string } };
  recording: { id: string; sound: { sha256: string; duration: number } } | null;
}

/** The remarks on the work that is open, as the server has them. */
export const remarksOnServer = (page: Page): Promise<SentRemark[]> =>
  page.evaluate(async () => {
    const submission = location.pathname.split('/').at(-1)!;
    const answer = await fetch(`/api/submissions/${submission}/feedback`);
    return ((await answer.json()) as { remarks: SentRemark[] }).remarks;
  });
