import { readFileSync } from 'node:fs';
import { chromium, type Browser, type Page } from '@playwright/test';
import { enter, openDesk, select, TEACHER } from '../../e2e/school.ts';
import { Server } from '../../e2e/server.ts';
import config from '../../playwright.config.ts';
import { figure } from './figure.ts';

const RUNS = 5;
const MANY = 200;

/** Measures a teacher's hands at the desk: record, let go, next student, a margin that is full. */
export async function benchDesk(): Promise<object> {
  const server = await Server.start('bench-desk');
  const browser = await chromium.launch(config.use!.launchOptions);
  try {
    return {
      nextStudentReadable: figure('ms', await nextStudent(browser, server), '150 or less, loaded ahead'),
      recordKeyToRecording: figure('ms', await recordKey(browser, server), '100 or less, warm microphone'),
      letGoToPlayableRibbon: figure('ms', await letGo(browser, server), '300 or less, for 10 s of speech'),
      longestTaskWith200Remarks: figure('ms', [await fullMargin(browser, server)], '50 or less; 0 is none over 50'),
      memoryOfAClass: figure('MB', [await memoryOfTakes(server)], '50 or less, a class of 30 with 10 takes each'),
    };
  } finally {
    await browser.close();
    await server.remove();
  }
}

/** From the key to the words of the next work being painted, through the whole class. */
async function nextStudent(browser: Browser, server: Server): Promise<number[]> {
  const page = await enter(browser, server, TEACHER);
  await openDesk(page, 'Dagny Holmqvist');
  await page.getByRole('link', { name: 'Amaru Quispe: returned' }).click();
  await page.locator('.student strong', { hasText: 'Amaru' }).waitFor();
  const times: number[] = [];
  const next = page.getByRole('link', { name: 'Next student' });
  while ((await next.count()) > 0 && (await next.getAttribute('href')) !== null) {
    // A teacher reads for a while; meanwhile the next work is loaded.
    await page.waitForTimeout(1500);
    times.push(await page.evaluate(stepToNext));
  }
  await page.context().close();
  return times;
}

const stepToNext = async (): Promise<number> => {
  const before = document.querySelector('.student strong')!.textContent;
  const begun = performance.now();
  document.querySelector('.folio')!.dispatchEvent(new KeyboardEvent('keydown', { key: 'n', bubbles: true }));
  while (
    performance.now() - begun < 10_000 &&
    (document.querySelector('.student strong')?.textContent === before || !document.querySelector('.folio .leaf > *'))
  )
    await new Promise(requestAnimationFrame);
  await new Promise((painted) => requestAnimationFrame(() => setTimeout(painted)));
  return performance.now() - begun;
};

async function recordKey(browser: Browser, server: Server): Promise<number[]> {
  const page = await enter(browser, server, TEACHER);
  await openDesk(page, 'Eleni Marathou');
  await page.getByRole('article').focus();
  // The first take warms the microphone and is not counted; each is thrown away.
  for (let run = 0; run <= RUNS; run++) {
    await page.keyboard.down('Space');
    await page.getByRole('timer').waitFor();
    await page.waitForTimeout(400);
    await page.keyboard.press('Escape');
    await page.keyboard.up('Space');
    await page.getByRole('timer').waitFor({ state: 'hidden' });
  }
  const times = await measures(page, 'record-key-to-recording');
  await page.context().close();
  return times.slice(1);
}

async function letGo(browser: Browser, server: Server): Promise<number[]> {
  const page = await enter(browser, server, TEACHER);
  await openDesk(page, 'Hoku Kalani');
  const passages = ['You would think that sand is sand', 'They are shiny', 'It sticks to the glass', 'This fits'];
  for (const words of passages) {
    await select(page, words);
    await page.keyboard.down('Space');
    await page.waitForTimeout(10_000);
    await page.keyboard.up('Space');
    await page.getByRole('timer').waitFor({ state: 'hidden' });
    await page.waitForTimeout(1000);
  }
  const times = await measures(page, 'let-go-to-ribbon');
  await page.context().close();
  return times.slice(1);
}

const measures = (page: Page, name: string): Promise<number[]> =>
  page.evaluate((wanted) => performance.getEntriesByName(wanted).map(({ duration }) => duration), name);

const TAKES = 10;
const CLASS = 30;
/** Works in which a page loads all that it loads once. */
const WARM = 2;

/**
 * By how many megabytes a browser grows over a class, without what it would free at once if it were asked: the page that made
 * the takes, and the process that keeps their bytes. The sample class has fewer works than thirty; its growth is taken for as many.
 */
async function memoryOfTakes(server: Server): Promise<number> {
  const { launchOptions } = config.use!;
  const browser = await chromium.launch({
    ...launchOptions,
    args: [...launchOptions!.args!, '--js-flags=--expose-gc'],
  });
  const session = await browser.newBrowserCDPSession();
  const resident = async (page: Page): Promise<number> => {
    const devtools = await page.context().newCDPSession(page);
    await devtools.send('HeapProfiler.collectGarbage');
    await devtools.detach();
    for (const worker of page.workers()) await worker.evaluate(() => (globalThis as unknown as { gc(): void }).gc());
    const { processInfo } = await session.send('SystemInfo.getProcessInfo');
    return processInfo
      .filter(({ type }) => type === 'browser' || type === 'renderer')
      .map(({ id }) => Number(/VmRSS:\s*(\d+)/.exec(readFileSync(`/proc/${id}/status`, 'utf8'))![1]) / 1024)
      .reduce((sum, megabytes) => sum + megabytes, 0);
  };
  const take = async (page: Page): Promise<void> => {
    await page.getByRole('article').focus();
    await page.keyboard.press('ArrowDown');
    await page.keyboard.down('Space');
    await page.getByRole('timer').waitFor();
    await page.waitForTimeout(600);
    await page.keyboard.up('Space');
    await page.getByRole('timer').waitFor({ state: 'hidden' });
  };
  try {
    const page = await enter(browser, server, TEACHER);
    await openDesk(page, 'Dagny Holmqvist');
    const works = await page
      .getByRole('navigation', { name: 'Class' })
      .getByRole('link', { name: /^(?!.*returned$)/ })
      .evaluateAll((links) => links.map((link) => link.getAttribute('href')!));
    const mark = async (work: string): Promise<void> => {
      await page.locator(`nav a[href="${work}"]`).click();
      await page.waitForTimeout(500);
      for (let made = 0; made < TAKES; made++) await take(page);
      await page.getByText('Saved', { exact: true }).waitFor();
    };
    for (const work of works.slice(0, WARM)) await mark(work);
    const before = await resident(page);
    for (const work of works.slice(WARM)) await mark(work);
    return (((await resident(page)) - before) * CLASS) / (works.length - WARM);
  } finally {
    await browser.close();
  }
}

/** The longest task over 50 ms while somebody types, scrolls and speaks beside 200 remarks. */
async function fullMargin(browser: Browser, server: Server): Promise<number> {
  const page = await enter(browser, server, TEACHER);
  await openDesk(page, 'Kateryna Bilyk');
  await fillMargin(page);
  await page.reload();
  await page.locator('mark').first().waitFor();
  await page.waitForTimeout(3000);
  await page.evaluate(() => {
    const tasks: number[] = [];
    Object.assign(window, { tasks });
    new PerformanceObserver((list) => tasks.push(...list.getEntries().map(({ duration }) => duration))).observe({
      type: 'longtask',
    });
  });
  await page.mouse.move(400, 400);
  for (let turn = 0; turn < 20; turn++) {
    await page.mouse.wheel(0, 120);
    await page.waitForTimeout(50);
  }
  await page.getByRole('article').focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.down('Space');
  await page.waitForTimeout(3000);
  await page.keyboard.up('Space');
  await page.waitForTimeout(1500);
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('t');
  await page.keyboard.type('Twenty five words take a while to type, so this sentence is as long as that.', {
    delay: 30,
  });
  await page.waitForTimeout(500);
  const tasks = await page.evaluate(() => (window as unknown as { tasks: number[] }).tasks);
  await page.context().close();
  return Math.max(0, ...tasks);
}

/** Written remarks all over the text, sent as the desk sends them. */
export const fillMargin = (page: Page): Promise<void> =>
  page.evaluate(async (many) => {
    const submission = location.pathname.split('/').at(-1)!;
    const work = (await (await fetch(`/api/submissions/${submission}`)).json()) as { folio: { text: string } };
    const { text } = work.folio;
    const words = [...text.matchAll(/\p{L}{4,}/gu)];
    for (let i = 0; i < many; i++) {
      const { index, 0: exact } = words[Math.floor((i * words.length) / many)]!;
      const form = new FormData();
      const quote = {
        exact,
        prefix: text.slice(Math.max(0, index - 32), index),
        suffix: text.slice(index + exact.length).slice(0, 32),
      };
      const said = {
        name: '',
        text: `Remark ${i}`,
        link: null,
        reaction: null,
        suggestion: null,
        stamp: null,
        private: false,
        tags: [],
        criterion: null,
      };
      const kind = ['strength', 'question', 'repair', 'next'][i % 4];
      const anchor = { type: 'passage', start: index, end: index + exact.length, quote };
      form.set('body', JSON.stringify({ anchor, kind, said }));
      const answer = await fetch(`/api/submissions/${submission}/remarks/${crypto.randomUUID()}`, {
        method: 'PUT',
        body: form,
      });
      if (!answer.ok) throw new Error(await answer.text());
    }
  }, MANY);
