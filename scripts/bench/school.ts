import { chromium, type Page } from '@playwright/test';
import { readWaiting, type Waiting } from '../../contract/waiting.ts';
import { enter, openDesk, TEACHER } from '../../e2e/school.ts';
import { Server } from '../../e2e/server.ts';
import config from '../../playwright.config.ts';
import type { Client } from '../../server/testing/client.ts';
import { signedIn, timed } from './answers.ts';
import { figure } from './figure.ts';
import { addManyWorks, CLASS, MANY_TITLE } from './many-works.ts';

const RUNS = 5;

/** Measures what a teacher waits for over a whole school year: the queue, the rubric, a return to a class. */
export async function benchSchool(): Promise<object> {
  const server = await Server.start('bench-school');
  const browser = await chromium.launch(config.use!.launchOptions);
  try {
    await server.whileStopped(addManyWorks);
    const teacher = await signedIn(server.address, TEACHER);
    const queue = await several(() => timed(() => teacher.send('POST', readWaiting.path, { body: {} })));
    const page = await enter(browser, server, TEACHER);
    const shown = await several(() => queueShown(page, server.address));
    const returned = await returnClass(teacher);
    await openDesk(page, 'Eleni Marathou');
    const { drawn, saved } = await rubricClicks(page);
    return {
      queueAtServer: figure('ms', queue, '500 or less, with 2,100 open works'),
      queueShown: figure('ms', shown, '500 or less to see it, with 2,100 open works'),
      returnOfClass: figure('ms', returned, `2000 or less, ${CLASS} works with 8 remarks and 3 scores each`),
      rubricClickDrawn: figure('ms', drawn, '50 or less'),
      rubricClickSaved: figure('ms', saved, '300 or less'),
    };
  } finally {
    await browser.close();
    await server.remove();
  }
}

async function several(measure: () => Promise<number>): Promise<number[]> {
  await measure();
  const times: number[] = [];
  for (let run = 0; run < RUNS; run++) times.push(await measure());
  return times;
}

/** From a link to the first page until its queue is painted, as somebody who comes back from a desk. */
async function queueShown(page: Page, address: string): Promise<number> {
  await page.goto(`${address}/bank`);
  await page.getByRole('heading', { level: 1 }).waitFor();
  return page.evaluate(`(async () => {
    const begun = performance.now();
    document.querySelector('a[href="/"]').click();
    while (!document.querySelector('#to-mark') && performance.now() - begun < 20000)
      await new Promise(requestAnimationFrame);
    await new Promise((painted) => requestAnimationFrame(() => setTimeout(painted)));
    return performance.now() - begun;
  })()`);
}

async function returnClass(teacher: Client): Promise<number[]> {
  const { assignments } = (await teacher.send('POST', readWaiting.path, { body: {} })).json as Waiting;
  const { id } = assignments.find(({ title }) => title === MANY_TITLE)!;
  const { rows } = (await teacher.send('GET', `/assignments/${id}/returning`)).json as {
    rows: { submission: string }[];
  };
  const works = rows.map(({ submission }) => submission);
  const times: number[] = [];
  for (let run = 0; run < RUNS; run++) {
    times.push(await timed(() => teacher.send('POST', `/assignments/${id}/returned`, { body: { works, held: null } })));
    await teacher.send('POST', `/assignments/${id}/taken-back`, { body: { works } });
  }
  return times;
}

/** From the press to the chosen level being painted, and until it is saved. */
async function rubricClicks(page: Page): Promise<{ drawn: number[]; saved: number[] }> {
  await page.waitForTimeout(2000);
  const drawn: number[] = [];
  const saved: number[] = [];
  for (let run = 0; run <= RUNS; run++) {
    const times: { drawn: number; saved: number } = await page.evaluate(`(async () => {
      const frame = () => new Promise(requestAnimationFrame);
      const radios = [...document.querySelectorAll('[data-criterion] input[type=radio]')];
      const next = radios.find((radio) => !radio.checked && ${run} === radios.indexOf(radio) % ${RUNS + 1});
      const begun = performance.now();
      next.click();
      while (!next.closest('.v-radio').classList.contains('chosen') && performance.now() - begun < 10000) await frame();
      await new Promise((painted) => requestAnimationFrame(() => setTimeout(painted)));
      const drawn = performance.now() - begun;
      while (!/Saved/.test(document.querySelector('.strip .saved').textContent) && performance.now() - begun < 10000)
        await frame();
      return { drawn, saved: performance.now() - begun };
    })()`);
    await page.waitForTimeout(500);
    drawn.push(times.drawn);
    saved.push(times.saved);
  }
  // The first one warms up.
  return { drawn: drawn.slice(1), saved: saved.slice(1) };
}
