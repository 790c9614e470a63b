import { packPoints, SURFACE_UNITS } from '#core/ink';
import { chromium, type Page } from '@playwright/test';
import { enter, TEACHER } from '../../e2e/school.ts';
import { Server } from '../../e2e/server.ts';
import config from '../../playwright.config.ts';
import { figure, round } from './figure.ts';

const REMARKS = 100;
const STROKES = 20;
const DRAWN = 12;
const POINTS = 60;

/** From the pen to the ink on screen, on a picture that has 2,000 strokes already; and how much a minute of writing takes. */
export async function benchInk(): Promise<object> {
  const server = await Server.start('bench-ink');
  const browser = await chromium.launch(config.use!.launchOptions);
  try {
    const page = await enter(browser, server, TEACHER);
    await page
      .getByRole('link', { name: /A field sketch/ })
      .first()
      .click();
    await page.locator('.folio .picture').first().waitFor();
    const before = await latency(page);
    await fill(page);
    await page.reload();
    await page
      .locator('.folio .ink svg g')
      .nth(REMARKS - 1)
      .waitFor();
    const after = await latency(page);
    const p95 = (times: number[]): number => round(times.toSorted((a, b) => a - b)[Math.floor(times.length * 0.95)]!);
    return {
      onAnEmptyPicture: figure('ms', before, 'the baseline, from the event of the pen to the next frame'),
      with2000Strokes: figure('ms', after, '33 or less (two frames of 60 a second), p95'),
      p95: { unit: 'ms', empty: p95(before), with2000Strokes: p95(after) },
    };
  } finally {
    await browser.close();
    await server.remove();
  }
}

/** Each with some ten points, all over the picture. */
async function fill(page: Page): Promise<void> {
  const remarks = Array.from({ length: REMARKS }, (_, remark) => ({
    anchor: { type: 'region', leaf: 0, x: 0.1, y: 0.1, width: 0.5, height: 0.5 },
    ink: Array.from({ length: STROKES }, (_, stroke) => ({
      ...{ tool: 'pen', colour: 'ink', width: 25 },
      points: packPoints(
        Array.from({ length: 10 }, (_, at) => ({
          x: (((remark * 37 + stroke * 11) % 80) / 100 + at / 120) * SURFACE_UNITS,
          y: (((remark * 13 + stroke * 29) % 60) / 100 + (at % 3) / 200) * SURFACE_UNITS,
          ...{ pressure: 0.3 + at / 20, at: at / 60 },
        })),
      ),
    })),
  }));
  const submission = new URL(page.url()).pathname.split('/').at(-1)!;
  const made = await page.evaluate(
    async ({ remarks: all, submission: work }) => {
      const words = { name: '', text: '', link: null, reaction: null, suggestion: null, stamp: null, tags: [] };
      let refused = 0;
      for (const { anchor, ink } of all) {
        const form = new FormData();
        const said = { ...words, ink, criterion: null, private: false, recording: null, file: null };
        form.set('body', JSON.stringify({ anchor, kind: 'repair', said }));
        const url = `/api/submissions/${work}/remarks/${crypto.randomUUID()}`;
        if (!(await fetch(url, { method: 'PUT', body: form })).ok) refused++;
      }
      return refused;
    },
    { remarks, submission },
  );
  if (made > 0) throw new Error(`${made} remarks were refused.`);
}

/** Milliseconds from each event of the pen to the frame in which its ink is drawn. */
async function latency(page: Page): Promise<number[]> {
  const draw = page.getByRole('button', { name: 'Draw', exact: true });
  if ((await draw.getAttribute('aria-pressed')) !== 'true') await draw.click();
  await page.getByRole('button', { name: 'Pen', exact: true }).click();
  const { x, y } = (await page.locator('.folio .picture').first().boundingBox())!;
  await page.evaluate(() => {
    const times: number[] = [];
    Object.assign(window, { inkTimes: times });
    window.addEventListener('pointermove', (event) => {
      if (event.pointerType === 'pen')
        requestAnimationFrame((frame) => times.push(Math.max(0, frame - event.timeStamp)));
    });
  });
  const client = await page.context().newCDPSession(page);
  const send = (type: 'mousePressed' | 'mouseMoved' | 'mouseReleased', at: number, stroke: number): Promise<unknown> =>
    client.send('Input.dispatchMouseEvent', {
      ...{ type, x: x + 60 + at * 4, y: y + 60 + stroke * 14 + (at % 5), force: 0.5, pointerType: 'pen' },
      ...{ button: 'left', buttons: 1, clickCount: 1 },
    });
  for (let stroke = 0; stroke < DRAWN; stroke++) {
    await send('mousePressed', 0, stroke);
    for (let at = 1; at < POINTS; at++) await send('mouseMoved', at, stroke);
    await send('mouseReleased', POINTS, stroke);
    await page.waitForTimeout(150);
  }
  return page.evaluate(() => (window as unknown as { inkTimes: number[] }).inkTimes);
}
