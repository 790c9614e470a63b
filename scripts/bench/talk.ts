import { writeWav } from '#core/audio';
import { packPoints, SURFACE_UNITS, thinPoints } from '#core/ink';
import { repeatable, type TalkEvent } from '#core/talk';
import { NO_WORDS } from '#contract/said';
import { PGlite } from '@electric-sql/pglite';
import { chromium, type Page } from '@playwright/test';
import { enter, TEACHER } from '../../e2e/school.ts';
import { Server } from '../../e2e/server.ts';
import config from '../../playwright.config.ts';
import { figure } from './figure.ts';

const MINUTES = 10;
const SECONDS = MINUTES * 60;
const STROKES = 500;
/** Of one letter or sign. */
const STROKE_SECONDS = 0.7;
const SAMPLES_A_SECOND = 120;
const RATE = 8000;
const TIMES = 9;

/** How soon a long talk-through is there, how soon one is elsewhere in it, and how much it takes beside its sound. */
export async function benchTalk(): Promise<object> {
  const server = await Server.start('bench-talk');
  const browser = await chromium.launch(config.use!.launchOptions);
  try {
    const page = await enter(browser, server, TEACHER);
    await page
      .getByRole('link', { name: /A field sketch/ })
      .first()
      .click();
    await page.locator('.folio .picture').first().waitFor();
    const talk = longTalk();
    await say(page, talk);
    const ribbon = page.locator('.ribbon').filter({ hasText: 'Talked through' });
    const opened: number[] = [];
    for (let time = 0; time < TIMES; time++) {
      await page.reload();
      await ribbon.waitFor();
      await page.waitForTimeout(800);
      opened.push(await opening(page));
    }
    await ribbon.getByRole('button', { name: /^Play/ }).click();
    const bar = page.getByRole('region', { name: 'Talk-through' });
    await bar.waitFor();
    const jumped: number[] = [];
    for (let time = 0; time < TIMES * 2; time++) jumped.push(await jump(page, ((time * 7) % 18) / 18));
    return {
      opened: figure('ms', opened, 'from the press on it until its 500 strokes are drawn; 1000 or less'),
      jumped: figure('ms', jumped, 'from the press on a moment to the frame that shows it; 100 or less'),
      kept: { unit: 'kB', ...(await keptBytes(talk)), wanted: '150 or less, as it lies in the database' },
    };
  } finally {
    await browser.close();
    await server.remove();
  }
}

/** As text, and as the database keeps it. */
async function keptBytes(talk: readonly TalkEvent[]): Promise<{ text: number; inTheDatabase: number }> {
  const db = new PGlite();
  await db.exec('create table kept (talk jsonb)');
  const text = JSON.stringify(talk);
  await db.query('insert into kept values ($1::jsonb)', [text]);
  const { rows } = await db.query<{ size: number }>('select pg_column_size(talk) as size from kept');
  await db.close();
  return { text: Math.round(text.length / 1000), inTheDatabase: Math.round(rows[0]!.size / 1000) };
}

/** Ten minutes in which somebody scrolls, chooses forty places and writes five hundred signs, as a hand writes them. */
function longTalk(): TalkEvent[] {
  const random = repeatable(7);
  const events: TalkEvent[] = [];
  for (let at = 0; at < SECONDS; at += 3)
    events.push({ type: 'view', at, leaf: 0, share: Math.round(random() * 1000) / 1000 });
  for (let place = 0; place < 40; place++) {
    const region = { type: 'region', leaf: 0, x: random() * 0.7, y: random() * 0.7, width: 0.2, height: 0.1 } as const;
    events.push({ type: 'select', at: place * 15 + 1, anchor: region });
  }
  for (let index = 0; index < STROKES; index++) {
    const [left, top] = [0.05 + random() * 0.8, 0.05 + random() * 0.8];
    const turns = [random() * 9 + 4, random() * 9 + 4];
    const points = Array.from({ length: STROKE_SECONDS * SAMPLES_A_SECOND }, (_, step) => {
      const at = step / SAMPLES_A_SECOND;
      // On a leaf of 600 pixels; a hand's letters are loops that move to the right.
      const x = (left + at * 0.05) * 600 + 6 * Math.sin(turns[0]! * at * 2);
      return { x, y: top * 600 + 9 * Math.cos(turns[1]! * at * 2), pressure: 0.4 + 0.2 * Math.sin(at * 9), at };
    });
    const unit = 600 / SURFACE_UNITS;
    const packed = packPoints(thinPoints(points).map((point) => ({ ...point, x: point.x / unit, y: point.y / unit })));
    const stroke = { tool: 'pen', colour: 'ink', width: 30, points: packed } as const;
    events.push({
      type: 'stroke',
      at: Math.round((index / STROKES) * SECONDS * 1000) / 1000,
      placed: { leaf: 0, stroke },
    });
  }
  return events.toSorted((a, b) => a.at - b.at);
}

async function say(page: Page, talk: readonly TalkEvent[]): Promise<void> {
  const wav = writeWav(new Float32Array(SECONDS * RATE), RATE);
  const id = crypto.randomUUID();
  const submission = new URL(page.url()).pathname.split('/').at(-1)!;
  const sound = { duration: SECONDS, peaks: [1, 2, 3], microphone: { type: 'device' } };
  const said = { ...NO_WORDS, talk, recording: { id, sound } };
  const answer = await page.request.put(new URL(`/api/submissions/${submission}/remarks/${id}`, page.url()).href, {
    headers: { Origin: new URL(page.url()).origin },
    multipart: {
      body: JSON.stringify({ anchor: { type: 'whole' }, kind: 'next', said }),
      file: { name: 'talk.wav', mimeType: 'audio/wav', buffer: Buffer.from(wav) },
    },
  });
  if (!answer.ok()) throw new Error(`The talk-through was refused: ${await answer.text()}`);
}

/** Milliseconds from the press until all strokes are drawn. */
const opening = (page: Page): Promise<number> =>
  page.evaluate(async (wanted) => {
    const begun = performance.now();
    [...document.querySelectorAll<HTMLElement>('.ribbon')]
      .find((one) => one.innerText.includes('Talked through'))!
      .click();
    while (document.querySelectorAll('.folio .ink svg g path:not(.touch)').length < wanted)
      await new Promise((resolve) => requestAnimationFrame(resolve));
    await new Promise((resolve) => requestAnimationFrame(resolve));
    return performance.now() - begun;
  }, STROKES);

/** Milliseconds from choosing a moment to the frame in which as many strokes are shown as had been drawn by then. */
const jump = (page: Page, share: number): Promise<number> =>
  page.evaluate(
    async ([to, strokes]) => {
      const slider = document.querySelector<HTMLInputElement>('section[aria-label="Talk-through"] input')!;
      const begun = performance.now();
      slider.value = String(to * Number(slider.max));
      slider.dispatchEvent(new Event('input'));
      const wanted = to * strokes;
      while (Math.abs(document.querySelectorAll('.folio .ink svg g path:not(.touch)').length - wanted) > 6)
        await new Promise((resolve) => requestAnimationFrame(resolve));
      await new Promise((resolve) => requestAnimationFrame(resolve));
      return performance.now() - begun;
    },
    [share, STROKES] as const,
  );
