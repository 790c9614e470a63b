import type { Locator, Page } from '@playwright/test';
import { ALL_FORMATS, FilePathSource, Input } from 'mediabunny';
import { readFile } from 'node:fs/promises';
import { enter, expect, linesOf, openDesk, remarksOnServer, saved, select, TEACHER, test } from './school.ts';

test.use({ school: 'talk' });

const STUDENT = 'Dagny Holmqvist';
const FIRST = 'One stands on bare clay';
const SECOND = 'Everybody knows that walls';

const bar = (page: Page): Locator => page.getByRole('region', { name: 'Talk-through' });
const strokes = (page: Page): Locator => page.locator('.folio .ink svg g path:not(.touch)');
const talked = (page: Page): Locator => page.locator('.ribbon').filter({ hasText: 'Talked through' });

interface TalkEvent {
  type: string;
  at: number;
}
const trackOnServer = async (page: Page): Promise<TalkEvent[]> => {
  const all = (await remarksOnServer(page)) as unknown as { talk: TalkEvent[] | null }[];
  return all.find(({ talk }) => talk)?.talk ?? [];
};

/** A red wave under the line in which some words stand. */
async function draw(page: Page, words: string): Promise<void> {
  await page.keyboard.press('i');
  const pen = page.getByRole('toolbar', { name: 'What you draw with' });
  await pen.getByRole('button', { name: 'Pen', exact: true }).click();
  await pen.getByRole('button', { name: 'Repair', exact: true }).click();
  const { left, right, bottom } = (await linesOf(page, words))[0]!;
  const place = (step: number): [number, number] => [left + ((right - left) * step) / 20, bottom + 3 * Math.sin(step)];
  await page.mouse.move(...place(0));
  await page.mouse.down();
  for (let step = 1; step <= 20; step++) {
    await page.mouse.move(...place(step));
    await page.waitForTimeout(25);
  }
  await page.mouse.up();
  await page.keyboard.press('i');
}

/** How many pixels of the work are red in a film at some moments; no word is, and no passage is as red as ink. */
const redPixels = (page: Page, film: string, moments: number[]): Promise<number[]> =>
  page.evaluate(
    async ([bytes, all]) => {
      const video = document.createElement('video');
      video.muted = true;
      const film = new Blob([Uint8Array.from(atob(bytes), (sign) => sign.charCodeAt(0))], { type: 'video/webm' });
      video.src = URL.createObjectURL(film);
      const canvas = new OffscreenCanvas(1280, 720);
      const context = canvas.getContext('2d')!;
      const counts: number[] = [];
      for (const moment of all) {
        video.currentTime = moment;
        await new Promise((resolve) => video.addEventListener('seeked', resolve, { once: true }));
        context.drawImage(video, 0, 0);
        const { data } = context.getImageData(0, 0, 1280, 640);
        let red = 0;
        for (let at = 0; at < data.length; at += 4)
          if (data[at]! - data[at + 1]! > 45 && data[at]! - data[at + 2]! > 45) red++;
        counts.push(red);
      }
      return counts;
    },
    [film, moments] as const,
  );

async function talkThrough(page: Page): Promise<void> {
  await page.keyboard.press('l');
  await expect(page.getByText('Talking it through')).toBeVisible();
  await page.waitForTimeout(800);
  await select(page, FIRST);
  await expect(page.getByText('1 passage', { exact: true })).toBeVisible();
  await page.waitForTimeout(800);
  await draw(page, FIRST);
  await expect(page.getByText('1 passage, 1 stroke')).toBeVisible();
  await page.waitForTimeout(600);
  await select(page, SECOND);
  await expect(page.getByText('2 passages, 1 stroke')).toBeVisible();
  await page.keyboard.press('3');
  await page.waitForTimeout(1500);
}

test('what is shown, chosen and drawn while somebody talks is kept, seen again, and becomes several remarks', async ({
  browser,
  server,
}) => {
  const page = await enter(browser, server, TEACHER);
  await openDesk(page, STUDENT);

  await test.step('neither Escape nor the space bar ends it; the key that began it does', async () => {
    await talkThrough(page);
    await page.keyboard.press('Escape');
    await page.keyboard.press('Space');
    await expect(page.getByText('Talking it through')).toBeVisible();
    await page.keyboard.press('l');
    await expect(talked(page)).toContainText('2 passages, 1 stroke');
    await saved(page);
    const track = await trackOnServer(page);
    const at = (type: string): number[] => track.filter((event) => event.type === type).map((event) => event.at);
    expect(at('select')).toHaveLength(2);
    expect(at('stroke')).toHaveLength(1);
    const [first, second] = at('select');
    expect(at('stroke')[0]).toBeGreaterThan(first!);
    expect(at('stroke')[0]).toBeLessThan(second!);
    // Not a remark of its own.
    expect((await remarksOnServer(page)).filter((remark) => 'ink' in remark && remark.ink)).toHaveLength(0);
  });

  await test.step('played, the page goes to what was spoken about, and strokes are there from their moment on', async () => {
    await page.reload();
    await expect(talked(page)).toBeVisible();
    await expect(strokes(page)).toHaveCount(0);
    await talked(page).click({ position: { x: 60, y: 14 } });
    await expect(strokes(page)).toHaveCount(1);
    const shown = await strokes(page).first().getAttribute('d');
    await page.getByRole('button', { name: /^Play the remark about the whole/ }).click();
    await expect(bar(page)).toBeVisible();
    await expect(strokes(page)).toHaveCount(0);
    await expect(page.locator('mark.focused')).toHaveText(FIRST);
    await expect(strokes(page)).toHaveCount(1);
    // It grows until it is as it was drawn.
    await expect(strokes(page).first()).toHaveAttribute('d', shown!);
    await expect(page.locator('mark.focused')).toHaveText(SECOND);
    await expect(page.locator('mark.focused')).toBeInViewport();
  });

  await test.step('a press on a stroke or a passage plays what was said there', async () => {
    const track = await trackOnServer(page);
    const drawnAt = track.find(({ type }) => type === 'stroke')!.at;
    const position = (): Promise<number> => bar(page).getByRole('slider').evaluate((slider) => Number((slider as HTMLInputElement).value)); // prettier-ignore
    await page.locator('.folio .ink path.touch').first().dispatchEvent('click');
    await expect.poll(position).toBeGreaterThan(0);
    expect(await position()).toBeLessThan(drawnAt + 1.5);
    await bar(page).getByRole('button', { name: 'Passage after' }).click();
    await expect.poll(position).toBeGreaterThan(drawnAt);
    await page.getByRole('article').hover();
    await page.mouse.wheel(0, 300);
    await expect(bar(page).getByRole('button', { name: 'Follow again' })).toBeVisible();
    await bar(page).getByRole('button', { name: 'Leave the talk-through' }).click();
    await expect(bar(page)).toBeHidden();
  });

  await test.step('it is saved as a film that has the work, what was drawn, and the voice', async () => {
    await talked(page).click({ position: { x: 60, y: 14 } });
    await page.getByRole('button', { name: /^Play the remark about the whole/ }).click();
    const saving = page.waitForEvent('download');
    await bar(page).getByRole('button', { name: 'Save as a film' }).click();
    const download = await saving;
    expect(download.suggestedFilename()).toBe('Dagny Holmqvist, A walk along the shore.webm');
    const film = new Input({ source: new FilePathSource(await download.path()), formats: ALL_FORMATS });
    const remark = (await remarksOnServer(page)).find((one) => 'talk' in one && one.talk)!;
    expect(await film.computeDuration()).toBeCloseTo(remark.recording!.sound.duration, 0);
    const video = (await film.getPrimaryVideoTrack())!;
    expect([video.displayWidth, video.displayHeight]).toEqual([1280, 720]);
    expect((await film.getPrimaryAudioTrack())!.codec).toBe('opus');
    // Ink was drawn while the first passage was spoken about, and not before.
    const track = await trackOnServer(page);
    const drawnAt = track.find(({ type }) => type === 'stroke')!.at;
    const bytes = (await readFile(await download.path())).toString('base64');
    const [before, after] = await redPixels(page, bytes, [drawnAt - 0.3, drawnAt + 1]);
    expect(before).toBe(0);
    expect(after).toBeGreaterThan(20);
    await bar(page).getByRole('button', { name: 'Leave the talk-through' }).click();
  });

  await test.step('its parts are mended with undo, and become remarks with their sound, kind and strokes', async () => {
    await talked(page).click({ position: { x: 60, y: 14 } });
    await page.getByRole('button', { name: 'Make several remarks of this talk-through' }).click();
    const parts = page.getByRole('list', { name: 'Parts' }).getByRole('listitem');
    await expect(parts).toHaveCount(2);
    await expect(parts.nth(0)).toContainText(FIRST);
    await expect(parts.nth(1)).toContainText('Repair');
    await page.getByRole('button', { name: 'Join part 1 with the next' }).click();
    await expect(parts).toHaveCount(1);
    const panel = page.getByRole('complementary', { name: 'One, or several remarks' });
    await panel.getByRole('button', { name: 'Undo' }).click();
    await expect(parts).toHaveCount(2);
    const begins = page.getByRole('slider', { name: 'Where part 2 begins' });
    const before = Number(await begins.inputValue());
    await page.getByRole('button', { name: 'Part 2 begins a pause earlier' }).click();
    await expect.poll(async () => Number(await begins.inputValue())).toBeLessThan(before);
    await begins.press('ArrowRight');
    await expect.poll(async () => Number(await begins.inputValue())).toBeCloseTo(before, 1);
    await page.getByRole('button', { name: 'Make 2 remarks' }).click();
    await expect(page.getByText('2 remarks made. The talk-through was put aside.')).toBeVisible();
    await saved(page);
    const made = (await remarksOnServer(page)).filter(({ anchor }) =>
      [FIRST, SECOND].includes(anchor.quote?.exact ?? ''),
    ) as unknown as { kind: string; ink: unknown[] | null; recording: { sound: { duration: number } } }[];
    expect(made.map(({ kind, ink }) => [kind, ink?.length ?? 0])).toEqual([
      ['strength', 1],
      ['repair', 0],
    ]);
    for (const { recording } of made) expect(recording.sound.duration).toBeGreaterThan(0.5);
  });

  await test.step('or one again', async () => {
    await page.getByRole('button', { name: 'Make it one again' }).click();
    await expect(talked(page)).toBeVisible();
    await saved(page);
    expect(await trackOnServer(page)).not.toEqual([]);
  });

  await test.step('the student sees and hears it in the same way', async () => {
    await page.goto(`${page.url().replace(/#.*/, '')}/as-student`);
    await expect(talked(page)).toContainText('2 passages, 1 stroke');
    await page.getByRole('button', { name: /^Play the remark about the whole/ }).click();
    await expect(bar(page)).toBeVisible();
    await expect(page.locator('mark.focused')).toHaveText(FIRST);
    await expect(strokes(page)).toHaveCount(1);
  });
});

test('a talk-through that a closed tab broke off is offered with all that was said and drawn', async ({
  browser,
  server,
}) => {
  const page = await enter(browser, server, TEACHER);
  await openDesk(page, 'Liang Meixiu');
  const { context, url } = { context: page.context(), url: page.url() };
  await page.keyboard.press('l');
  await expect(page.getByText('Talking it through')).toBeVisible();
  await page.waitForTimeout(800);
  const words = await page.locator('.folio [data-start]').first().innerText();
  await draw(page, words.slice(0, 20).trim());
  await expect(page.getByText('0 passages, 1 stroke')).toBeVisible();
  await page.waitForTimeout(2500);
  await page.close();

  const next = await context.newPage();
  await next.goto(url);
  const offered = next.getByRole('region', { name: 'Interrupted recording' });
  await offered.getByRole('button', { name: 'Keep it' }).click();
  await expect(talked(next)).toContainText('1 stroke');
  await saved(next);
  expect((await trackOnServer(next)).map(({ type }) => type)).toContain('stroke');
});
