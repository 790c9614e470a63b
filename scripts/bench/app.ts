import { chromium, type Browser } from '@playwright/test';
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
      serverReady: figure('ms', await serverReady(server), '5000 or less, on a filled database'),
      deskReadable: figure('ms', await deskReadable(browser, server), '1000 or less, from the click'),
      studentFirstView: figure('kB', [await studentScript(browser, server)], '300 or less of JavaScript, compressed'),
    };
  } finally {
    await browser.close();
    await server.remove();
  }
}

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
    times.push(
      await link.evaluate(async (element) => {
        const begun = performance.now();
        (element as HTMLElement).click();
        while (!document.querySelector('.folio p')) await new Promise(requestAnimationFrame);
        await new Promise((painted) => requestAnimationFrame(() => setTimeout(painted)));
        return performance.now() - begun;
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
