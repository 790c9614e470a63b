import { chromium, type Browser } from '@playwright/test';
import { execFileSync, spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { Worker } from 'node:worker_threads';
import { enter, TEACHER } from '../../e2e/school.ts';
import { Server } from '../../e2e/server.ts';
import config from '../../playwright.config.ts';
import { figure } from './figure.ts';

const RUNS = 5;
const STUDENT = 'Amaru Quispe';

/** Measures the running product as a person meets it: a real server process and a real browser. */
export async function benchApp(): Promise<object> {
  const server = await Server.start('bench');
  const browser = await chromium.launch(config.use!.launchOptions);
  try {
    return {
      readSmallText: figure('ms', await readSmallText(), '700 or less, “vivid read” from the command to its end'),
      readingThread: figure('ms', await readingThread(), '300 or less, from its start to what it has read'),
      serverReady: figure('ms', await serverReady(server), '2000 or less, on a filled database'),
      deskReadable: figure('ms', await deskReadable(browser, server), '1000 or less, from the click'),
      returnedReadable: figure('ms', await returnedReadable(browser, server), '1000 or less, from the click'),
      firstSound: figure('ms', await firstSound(browser, server), '200 or less, from the key to the sound running'),
      studentFirstView: figure('kB', [await studentScript(browser, server)], '220 or less of JavaScript, compressed'),
      demoFromBareClone: figure(
        's',
        [await demoFromBareClone()],
        'with installing and building, until it can be opened',
      ),
    };
  } finally {
    await browser.close();
    await server.remove();
  }
}

const ROOT = fileURLToPath(new URL('../..', import.meta.url));
const TEXT = 'The tide went out at nine, and we walked along the wall.\n';

async function repeatedly(measure: () => Promise<void>): Promise<number[]> {
  const times: number[] = [];
  for (let run = 0; run < RUNS; run++) {
    const begun = performance.now();
    await measure();
    times.push(performance.now() - begun);
  }
  return times;
}

async function inFolder<Result>(name: string, work: (folder: string) => Promise<Result>): Promise<Result> {
  const folder = await mkdtemp(path.join(tmpdir(), `vivid-${name}-`));
  try {
    return await work(folder);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

const readSmallText = (): Promise<number[]> =>
  inFolder('read', async (folder) => {
    const file = path.join(folder, 'note.txt');
    await writeFile(file, TEXT);
    return repeatedly(async () => void execFileSync('node', [path.join(ROOT, 'scripts/vivid.mjs'), 'read', file]));
  });

const readingThread = (): Promise<number[]> =>
  repeatedly(async () => {
    const task = { bytes: new TextEncoder().encode(TEXT), fileName: 'note.txt' };
    const worker = new Worker(path.join(ROOT, 'dist/server/documents.js'), { workerData: task });
    const [answer] = (await once(worker, 'message')) as [{ result?: unknown }];
    if (!answer.result) throw new Error('The reading thread has not read a plain text.');
    await worker.terminate();
  });

/** In seconds. What npm has already downloaded once is not downloaded again. */
const demoFromBareClone = (): Promise<number> =>
  inFolder('clone', async (folder) => {
    const begun = performance.now();
    execFileSync('git', ['clone', '--quiet', ROOT, folder]);
    const demo = spawn('npm', ['run', 'demo', '--', '--port', '0'], {
      cwd: folder,
      env: { ...process.env, VIVID_DATA: path.join(folder, 'data') },
      stdio: ['ignore', 'pipe', 'ignore'],
      detached: true,
    });
    try {
      let said = '';
      for await (const chunk of demo.stdout) if ((said += String(chunk)).includes('ready at')) break;
      if (!said.includes('ready at')) throw new Error(`The demo did not start: ${said}`);
      return (performance.now() - begun) / 1000;
    } finally {
      process.kill(-demo.pid!);
    }
  });

/** From the start of the process to its first answer. */
async function serverReady(server: Server): Promise<number[]> {
  const times: number[] = [];
  for (let run = 0; run < RUNS; run++) {
    await server.stop();
    const begun = performance.now();
    await server.start();
    await fetch(`${server.address}/api/school`);
    times.push(performance.now() - begun);
  }
  return times;
}

/** From the click on a student's name to the words of the work being painted. Each run in a browser that has nothing cached. */
async function deskReadable(browser: Browser, server: Server): Promise<number[]> {
  const times: number[] = [];
  for (let run = 0; run < RUNS; run++) {
    const page = await enter(browser, server, TEACHER);
    const link = page.getByRole('link', { name: /^Dagny/ });
    await link.waitFor();
    times.push(await link.evaluate(clickUntil, '.folio p'));
    await page.context().close();
  }
  return times;
}

/** Runs in the page: from a click on an element to what is wanted being painted. */
const clickUntil = async (element: HTMLElement, wanted: string): Promise<number> => {
  const begun = performance.now();
  element.click();
  while (!document.querySelector(wanted)) await new Promise(requestAnimationFrame);
  await new Promise((painted) => requestAnimationFrame(() => setTimeout(painted)));
  return performance.now() - begun;
};

/** From the click on the link to the words and highlights being painted, in a browser that has nothing cached. */
async function returnedReadable(browser: Browser, server: Server): Promise<number[]> {
  const times: number[] = [];
  for (let run = 0; run < RUNS; run++) {
    const page = await enter(browser, server, STUDENT);
    const link = page.getByRole('link', { name: 'Open your feedback' }).first();
    await link.waitFor();
    times.push(await link.evaluate(clickUntil, '.folio mark'));
    await page.context().close();
  }
  return times;
}

/** From the key to the first moment of a remark that was never played here. */
async function firstSound(browser: Browser, server: Server): Promise<number[]> {
  const times: number[] = [];
  for (let run = 0; run < RUNS; run++) {
    const page = await enter(browser, server, STUDENT);
    await page.addInitScript(() => {
      const { play } = HTMLMediaElement.prototype;
      HTMLMediaElement.prototype.play = function (this: HTMLMediaElement) {
        this.addEventListener('playing', () => Object.assign(window, { soundAt: performance.now() }), { once: true });
        return play.call(this);
      };
    });
    await page.goto(`${server.address}/`);
    await page.getByRole('link', { name: 'Open your feedback' }).first().click();
    await page.locator('.folio mark').first().waitFor();
    // A student looks at the page before they press a key.
    await page.waitForTimeout(1500);
    times.push(
      await page.evaluate(async () => {
        const begun = performance.now();
        document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 'l', bubbles: true }));
        while (!('soundAt' in window)) await new Promise((next) => setTimeout(next));
        return (window.soundAt as number) - begun;
      }),
    );
    await page.context().close();
  }
  return times;
}

/** What a student's browser fetches as JavaScript to show returned work, coming straight from a link. */
async function studentScript(browser: Browser, server: Server): Promise<number> {
  const page = await enter(browser, server, STUDENT);
  await page.getByRole('link', { name: 'Open your feedback' }).click();
  await page.locator('mark').first().waitFor();
  const fresh = await browser.newContext({ storageState: await page.context().storageState() });
  const view = await fresh.newPage();
  await view.goto(page.url());
  await view.locator('mark').first().waitFor();
  const bytes = await view.evaluate(() =>
    (performance.getEntriesByType('resource') as PerformanceResourceTiming[])
      .filter(({ name }) => name.endsWith('.js'))
      .reduce((sum, { encodedBodySize }) => sum + encodedBodySize, 0),
  );
  await fresh.close();
  await page.context().close();
  return bytes / 1000;
}
