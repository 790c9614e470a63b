import { chromium, type Browser, type Page } from '@playwright/test';
import { fileURLToPath } from 'node:url';
import { enter, TEACHER, workIn } from '../../e2e/school.ts';
import { Server } from '../../e2e/server.ts';
import config from '../../playwright.config.ts';
import { figure, round } from './figure.ts';

const RUNS = 5;
const FIXTURES = fileURLToPath(new URL('../../e2e/fixtures/', import.meta.url));

const LONG = {
  pdf: { file: 'long.pdf', student: 'Chidi Umeh', what: '20 pages of PDF' },
  deck: { file: 'long.pptx', student: 'Giulia Ferrante', what: '30 slides' },
} as const;
type Long = (typeof LONG)[keyof typeof LONG];

/** Long works on the desk: how soon they can be read, and whether scrolling through them stays smooth. */
export async function benchDocuments(): Promise<object> {
  const server = await Server.start('bench-documents');
  const browser = await chromium.launch(config.use!.launchOptions);
  try {
    const figures: Record<string, object> = {};
    for (const [name, long] of Object.entries(LONG)) {
      await handIn(browser, server, long);
      figures[`${name}Readable`] = {
        what: long.what,
        ...figure('ms', await readable(browser, server, long), '1500 or less, from the click'),
      };
      figures[`${name}Scrolling`] = await scrolling(browser, server, long);
    }
    return figures;
  } finally {
    await browser.close();
    await server.remove();
  }
}

async function handIn(browser: Browser, server: Server, { file, student }: Long): Promise<void> {
  const page = await enter(browser, server, student);
  const work = workIn(page, 'A place I know better than others');
  await work.locator('input[type=file]').setInputFiles(FIXTURES + file);
  await work.getByRole('button', { name: 'Hand in', exact: true }).click();
  await work.getByText('has been handed in').waitFor();
  await page.context().close();
}

const link = (page: Page, { student }: Long) => page.getByRole('link', { name: new RegExp(`^${student} ?A place`) });

/** From the click to the first page being painted with its words over it; each run in a browser that has nothing cached. */
async function readable(browser: Browser, server: Server, long: Long): Promise<number[]> {
  const times: number[] = [];
  for (let run = 0; run < RUNS; run++) {
    const page = await enter(browser, server, TEACHER);
    await link(page, long).waitFor();
    times.push(
      await link(page, long).evaluate(async (element) => {
        const begun = performance.now();
        (element as HTMLElement).click();
        for (;;) {
          await new Promise((next) => setTimeout(next, 10));
          const words = document.querySelector('.leaf [data-start]');
          if (!words) continue;
          const canvas = document.querySelector<HTMLCanvasElement>('.leaf.page canvas');
          if (!document.querySelector('.leaf.page')) break;
          if (!canvas || canvas.width < 100) continue;
          const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, Math.floor(canvas.height / 3));
          if (data.some((value, index) => index % 4 === 0 && data[index + 3]! > 0 && value < 128)) break;
        }
        await new Promise((shown) => requestAnimationFrame(() => setTimeout(shown)));
        return performance.now() - begun;
      }),
    );
    await page.context().close();
  }
  return times;
}

/** Turns the wheel from the first page to the last, and watches for tasks that keep frames from being drawn. */
async function scrolling(browser: Browser, server: Server, long: Long): Promise<object> {
  const page = await enter(browser, server, TEACHER);
  await link(page, long).click();
  await page.locator('.leaf [data-start]').first().waitFor();
  await page.waitForTimeout(2500);
  await page.evaluate(() => {
    const tasks: number[] = [];
    const frames: number[] = [];
    Object.assign(window, { benchTasks: tasks, benchFrames: frames });
    new PerformanceObserver((list) => tasks.push(...list.getEntries().map(({ duration }) => duration))).observe({
      type: 'longtask',
    });
    let last = performance.now();
    const watch = {
      // Functions with a name of their own do not survive the way into the page; methods do.
      tick(now: number): void {
        frames.push(now - last);
        last = now;
        requestAnimationFrame(watch.tick);
      },
    };
    requestAnimationFrame(watch.tick);
  });
  await page.mouse.move(300, 400);
  for (let turn = 0; turn < 150; turn++) {
    await page.mouse.wheel(0, 120);
    await page.waitForTimeout(30);
  }
  const { tasks, frames } = await page.evaluate(() => {
    const { benchTasks, benchFrames } = window as unknown as Record<string, number[]>;
    return { tasks: benchTasks!, frames: benchFrames! };
  });
  await page.context().close();
  const sorted = [...frames].sort((a, b) => a - b);
  return {
    what: long.what,
    longestTask: { unit: 'ms', value: round(Math.max(0, ...tasks)), over50: tasks.length, wanted: '50 or less' },
    frame: {
      unit: 'ms',
      median: round(sorted[Math.floor(sorted.length / 2)]!),
      p95: round(sorted[Math.floor(sorted.length * 0.95)]!),
      wanted: '16.7, that is 60 frames a second',
    },
  };
}
