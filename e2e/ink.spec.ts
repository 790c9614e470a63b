import type { CDPSession, Locator, Page } from '@playwright/test';
import { PDFDict, PDFDocument, PDFHexString, PDFName } from '@cantoo/pdf-lib';
import { execFileSync } from 'node:child_process';
import { readFile } from 'node:fs/promises';
import { expectMarksOnWords } from './marks.ts';
import { enter, expect, linesOf, openDesk, saved, TEACHER, test, workIn } from './school.ts';

test.use({ school: 'ink' });

const STUDENT = 'Dagny Holmqvist';

const bar = (page: Page): Locator => page.getByRole('toolbar', { name: 'What you draw with' });
const choose = (page: Page, name: string): Promise<void> =>
  bar(page).getByRole('button', { name, exact: true }).click();
const drawn = (page: Page): Locator => page.locator('.folio .ink svg g path');

async function drag(page: Page, places: readonly (readonly [number, number])[]): Promise<void> {
  await page.mouse.move(...places[0]!);
  await page.mouse.down();
  for (const place of places) await page.mouse.move(...place);
  await page.mouse.up();
}

const boxesOf = (paths: Locator): Promise<{ left: number; top: number; right: number; bottom: number }[]> =>
  paths.evaluateAll((elements) =>
    elements.map((element) => {
      const { left, top, right, bottom } = element.getBoundingClientRect();
      return { left, top, right, bottom };
    }),
  );

test('what is drawn on a text is a remark, stays with its words however they are set, gets a voice, and comes back', async ({
  browser,
  server,
}) => {
  const WORDS = 'One stands on bare clay';
  const page = await enter(browser, server, TEACHER);
  await openDesk(page, STUDENT);
  const remarks = page.locator('.ribbon');
  await expect(remarks.first()).toBeVisible();
  const before = await remarks.count();

  await test.step('a wavy line under words is one remark about them', async () => {
    await page.keyboard.press('i');
    await choose(page, 'Pen');
    await choose(page, 'Repair');
    const [line] = await linesOf(page, WORDS);
    const { left, right, bottom } = line!;
    await drag(
      page,
      Array.from(
        { length: 25 },
        (_, step) => [left + ((right - left) * step) / 24, bottom + 2 + Math.sin(step)] as const,
      ),
    );
    await expect(remarks).toHaveCount(before + 1);
    await expect(drawn(page)).toHaveCount(1);
    await choose(page, 'Done');
    const remark = page.locator('.ribbon.focused');
    await expect(remark).toContainText('Repair');
    await expect(remark.getByRole('img', { name: 'What was drawn' })).toBeVisible();
    await saved(page);
  });

  await test.step('it comes out as InkML and back to the same words, in a text as well', async () => {
    await page.keyboard.press('i');
    const saving = page.waitForEvent('download');
    await bar(page).getByRole('button', { name: 'Save the strokes of this work as InkML' }).click();
    await bar(page)
      .getByLabel('InkML file', { exact: true })
      .setInputFiles(await (await saving).path());
    await expect(remarks).toHaveCount(before + 2);
    const [one, two] = await boxesOf(drawn(page));
    expect(Math.abs(one!.left - two!.left) + Math.abs(one!.top - two!.top)).toBeLessThan(1);
    await choose(page, 'Done');
    await page.keyboard.press('Control+z');
    await expect(remarks).toHaveCount(before + 1);
    await expect(drawn(page)).toHaveCount(1);
    await saved(page);
  });

  await test.step('it stays within half a line of them at 640 pixels and with letters twice as large', async () => {
    const near = async (): Promise<void> => {
      await expect(async () => {
        const [lines, strokes] = [await linesOf(page, WORDS), await boxesOf(drawn(page))];
        expect(strokes).toHaveLength(lines.length);
        strokes.forEach((stroke, index) => {
          const line = lines[index]!;
          const half = (line.bottom - line.top) / 2;
          expect(Math.abs(stroke.left - line.left)).toBeLessThan(half);
          expect(Math.abs(stroke.right - line.right)).toBeLessThan(half);
          expect(stroke.top).toBeGreaterThan(line.top);
          expect(stroke.bottom).toBeLessThan(line.bottom + half);
        });
      }).toPass();
    };
    await near();
    await page.setViewportSize({ width: 640, height: 800 });
    await near();
    await page.setViewportSize({ width: 1280, height: 800 });
    for (let step = 0; step < 4; step++) await page.getByRole('button', { name: 'Show it larger' }).click();
    await near();
    for (let step = 0; step < 4; step++) await page.getByRole('button', { name: 'Show it smaller' }).click();
  });

  await test.step('a stroke is undone and done again', async () => {
    await page.keyboard.press('Control+z');
    await expect(drawn(page)).toHaveCount(0);
    await page.keyboard.press('Control+Shift+z');
    await expect(drawn(page)).toHaveCount(1);
  });

  await test.step('spoken about, it is one remark with its sound', async () => {
    await page.locator('.ribbon', { has: page.getByRole('img', { name: 'What was drawn' }) }).click();
    await page.locator('.folio').focus();
    await page.keyboard.down(' ');
    await page.waitForTimeout(1500);
    await page.keyboard.up(' ');
    await expect(
      page
        .locator('.ribbon', { has: page.getByRole('img', { name: 'What was drawn' }) })
        .getByRole('button', { name: /^Play/ }),
    ).toBeVisible();
    await expect(remarks).toHaveCount(before + 1);
    await expect(drawn(page)).toHaveCount(1);
    await saved(page);
  });

  await test.step('the student sees the stroke, and the remark beside it', async () => {
    await page.getByRole('button', { name: 'Return', exact: true }).click();
    await page.getByRole('button', { name: `Return to ${STUDENT}` }).click();
    await expect(page.getByText('returned', { exact: true })).toBeVisible();
    const student = await enter(browser, server, STUDENT);
    await workIn(student, 'A walk along the shore').getByRole('link', { name: 'Open your feedback' }).click();
    await expect(drawn(student)).toHaveCount(1);
    const remark = student.locator('.ribbon', { has: student.getByRole('img', { name: 'What was drawn' }) });
    await expect(remark.getByRole('button', { name: /^Play/ })).toBeVisible();
    await expect(student.getByRole('button', { name: 'Draw', exact: true })).toHaveCount(0);

    // The text is laid out on pages, with its remarks for any reader of PDF.
    const saving = student.waitForEvent('download');
    await student.getByRole('button', { name: 'Download as PDF' }).click();
    const download = await saving;
    expect(download.suggestedFilename()).toBe('Dagny Holmqvist, A walk along the shore, marked.pdf');
    const file = await download.path();
    const pdf = await PDFDocument.load(await readFile(file));
    const pages = pdf.getPages();
    const annotations = pages.flatMap((one) =>
      (one.node.Annots()?.asArray() ?? []).map((ref) => {
        const { subtype, words } = { subtype: PDFName.of('Subtype'), words: PDFName.of('Contents') };
        const annotation = pdf.context.lookup(ref, PDFDict);
        return [String(annotation.get(subtype)), annotation.lookupMaybe(words, PDFHexString)?.decodeText() ?? ''];
      }),
    );
    const of = (wanted: string): string[] => annotations.filter(([type]) => type === wanted).map(([, words]) => words!);
    expect(of('/Ink').length).toBeGreaterThan(0);
    expect(of('/Highlight').some((words) => words.startsWith('Question.'))).toBe(true);
    // Behind the work stand the words of its remarks, with their numbers.
    const words = execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' });
    expect(words.split('\f')[0]).toContain('The wall at Gannet Row is four hundred metres long');
    expect(words).toMatch(/Remarks\s+Dagny Holmqvist, A walk along the shore\s+1\s+/u);
    expect(words).toContain('How could you find out what they thought?');
    expect(expectMarksOnWords(file, pdf)).toBeGreaterThan(3);
    // Poppler draws them: something vermilion is on the page that has the stroke.
    const onPaper = execFileSync('pdftoppm', ['-r', '72', '-f', '1', '-l', '1', file], { maxBuffer: 2 ** 26 });
    expect(countVermilion(onPaper)).toBeGreaterThan(20);
  });
});

/** Pixels of a PPM picture that are about as red as a Repair. */
function countVermilion(ppm: Buffer): number {
  // Three numbers after the sign of the format: width, height, brightest.
  const head = /^P6\s+\d+\s+\d+\s+\d+\s/.exec(ppm.subarray(0, 60).toString('latin1'))![0].length;
  let count = 0;
  for (let at = head; at < ppm.length; at += 3) if (ppm[at]! > 150 && ppm[at + 1]! < 110 && ppm[at + 2]! < 90) count++;
  return count;
}

/** A pen and the hand that holds it, as the browser gets them. */
class Pen {
  constructor(private readonly client: CDPSession) {}
  static of = async (page: Page): Promise<Pen> => new Pen(await page.context().newCDPSession(page));

  private event = (type: 'mousePressed' | 'mouseMoved' | 'mouseReleased', x: number, y: number, force: number) =>
    this.client.send('Input.dispatchMouseEvent', {
      ...{ type, x, y, force, tiltX: 20, tiltY: 30, pointerType: 'pen', button: 'left', buttons: 1, clickCount: 1 },
    });

  async draw(places: readonly (readonly [number, number])[]): Promise<void> {
    await this.event('mousePressed', ...places[0]!, 0.3);
    // Not awaited one by one: so they arrive as coalesced events, as a real pen's do.
    await Promise.all(places.map(([x, y], at) => this.event('mouseMoved', x, y, 0.2 + (0.7 * at) / places.length)));
    await this.event('mouseReleased', ...places.at(-1)!, 0);
  }

  async palm(from: readonly [number, number], to: readonly [number, number]): Promise<void> {
    const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', place?: readonly [number, number]) =>
      this.client.send('Input.dispatchTouchEvent', {
        type,
        touchPoints: place ? [{ x: place[0], y: place[1], radiusX: 40, radiusY: 50, id: 1 }] : [],
      });
    await touch('touchStart', from);
    for (let step = 1; step <= 5; step++)
      await touch('touchMove', [from[0] + ((to[0] - from[0]) * step) / 5, from[1] + ((to[1] - from[1]) * step) / 5]);
    await touch('touchEnd');
  }
}

test('on a picture: pen and palm, shapes by keyboard, rubbing out, moving and recolouring what was drawn', async ({
  browser,
  server,
}) => {
  const page = await enter(browser, server, TEACHER, { viewport: { width: 1280, height: 800 }, hasTouch: true });
  await page
    .getByRole('link', { name: /A field sketch/ })
    .first()
    .click();
  await page.getByRole('article').waitFor();
  const picture = page.locator('.folio .picture').first();
  await expect(picture).toBeVisible();
  await page.getByRole('button', { name: 'Draw', exact: true }).click();
  await choose(page, 'Pen');
  await choose(page, 'Ink');
  const hand = page.locator('.folio .hand').first();
  await expect(hand).toBeVisible();
  const { x, y } = (await picture.boundingBox())!;
  const pen = await Pen.of(page);
  const scroll = (): Promise<number> => page.evaluate(() => document.querySelector('.scroller')!.scrollTop);

  await test.step('the pen draws with its pressure; the palm beside it does not, and a finger scrolls', async () => {
    await pen.draw(Array.from({ length: 40 }, (_, step) => [x + 60 + step * 4, y + 120 + (step % 7)] as const));
    await expect(drawn(page)).toHaveCount(1);
    // A stroke is no box that somebody chooses.
    await expect(page.locator('.box.chosen')).toHaveCount(0);
    const top = await scroll();
    await pen.palm([x + 300, y + 260], [x + 300, y + 200]);
    await expect(drawn(page)).toHaveCount(1);
    expect(await scroll()).toBeGreaterThan(top);
    await page.evaluate((to) => document.querySelector('.scroller')!.scrollTo(0, to), top);
  });

  await test.step('strokes that are made together are one remark', async () => {
    const remarks = await page.locator('.ribbon .thumb').count();
    await pen.draw([
      [x + 60, y + 150],
      [x + 90, y + 170],
      [x + 130, y + 150],
    ]);
    await expect(drawn(page)).toHaveCount(2);
    await expect(page.locator('.ribbon .thumb')).toHaveCount(remarks);
  });

  await test.step('a rectangle is drawn with keys alone', async () => {
    await choose(page, 'Rectangle');
    await choose(page, 'Question');
    await hand.focus();
    await page.keyboard.press('Enter');
    for (let step = 0; step < 6; step++) await page.keyboard.press('ArrowRight');
    for (let step = 0; step < 4; step++) await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Enter');
    await expect(drawn(page)).toHaveCount(3);
    const box = (await boxesOf(drawn(page))).at(-1)!;
    expect(Math.round(box.right - box.left)).toBeGreaterThan(68);
    expect(Math.round(box.right - box.left)).toBeLessThan(80);
  });

  await test.step('what is in a loop is moved, and gets another colour', async () => {
    await choose(page, 'Draw around strokes to move them, make them larger, or give them another colour');
    const loop = [
      [x + 40, y + 138],
      [x + 160, y + 138],
      [x + 160, y + 190],
      [x + 40, y + 190],
      [x + 40, y + 140],
    ] as const;
    const [, before] = await boxesOf(drawn(page));
    await drag(page, loop);
    await drag(page, [
      [x + 90, y + 160],
      [x + 120, y + 180],
      [x + 150, y + 200],
    ]);
    await expect(async () => {
      const [, after] = await boxesOf(drawn(page));
      expect(after!.left - before!.left).toBeGreaterThan(55);
      expect(after!.top - before!.top).toBeGreaterThan(35);
    }).toPass();
    await drag(
      page,
      loop.map(([left, top]) => [left + 60, top + 40] as const),
    );
    await choose(page, 'Grey');
    await expect(drawn(page).nth(1)).toHaveClass(/kind-grey/);
  });

  await test.step('a stroke is rubbed out whole, and comes back', async () => {
    await choose(page, 'Rub out whole strokes');
    await drag(page, [
      [x + 100, y + 105],
      [x + 100, y + 123],
      [x + 100, y + 132],
    ]);
    await expect(drawn(page)).toHaveCount(2);
    await page.keyboard.press('Control+z');
    await expect(drawn(page)).toHaveCount(3);
    await saved(page);
    await page.reload();
    await expect(drawn(page)).toHaveCount(3);
  });

  await test.step('its strokes are saved as InkML, and those of a file come in', async () => {
    await page.keyboard.press('i');
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      bar(page).getByRole('button', { name: 'Save the strokes of this work as InkML' }).click(),
    ]);
    const saved3 = await readFile(await download.path(), 'utf8');
    expect(saved3.match(/<trace /g)).toHaveLength(3);
    const put = async (content: string): Promise<void> =>
      bar(page)
        .getByLabel('InkML file', { exact: true })
        .setInputFiles({ name: 'strokes.inkml', mimeType: 'application/xml', buffer: Buffer.from(content) });
    await put('<html/>');
    await expect(bar(page).getByRole('alert')).toContainText('This is no InkML file.');
    await expect(drawn(page)).toHaveCount(3);
    await put(saved3);
    await expect(drawn(page)).toHaveCount(6);
    await page.keyboard.press('Control+z');
    await expect(drawn(page)).toHaveCount(3);
    await saved(page);
  });

  await test.step('it is saved as a PDF with the strokes in it', async () => {
    await page.goto(`${page.url().replace(/#.*/, '')}`.replace(/\/desk\/([^/]+)/, '/desk/$1/as-student'));
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Download as PDF' }).click(),
    ]);
    expect(download.suggestedFilename()).toMatch(/, marked\.pdf$/);
    const bytes = await readFile(await download.path(), 'latin1');
    expect(bytes.slice(0, 5)).toBe('%PDF-');
    expect(bytes.match(/\/Subtype \/Ink/g)).toHaveLength(2);
    // Two boxes were there before.
    expect(bytes.match(/\/Subtype \/Square/g)).toHaveLength(3);
  });
});

test('free paper beside a work is opened to write on, and stays where something is written', async ({
  browser,
  server,
}) => {
  const page = await enter(browser, server, TEACHER);
  for (const student of ['Quyen Truong', 'Farid Noorzai']) {
    await page.goto(server.address);
    await openDesk(page, student);
    const leaf = page.locator('.folio .leaf').first();
    await expect(leaf).not.toHaveClass(/roomy/);
    await page.keyboard.press('i');
    const paper = bar(page).getByRole('button', { name: 'Free paper beside the work' });
    if ((await paper.getAttribute('aria-pressed')) === 'false') await paper.click();
    await expect(leaf).toHaveClass(/roomy/);
    await choose(page, 'Pen');
    const { x, y, width } = (await leaf.boundingBox())!;
    const right = x + width - 150;
    await drag(
      page,
      Array.from({ length: 20 }, (_, step) => [right + step * 5, y + 160 + 8 * Math.sin(step)] as const),
    );
    await expect(drawn(page)).toHaveCount(1);
    await choose(page, 'Done');
    await saved(page);
    await page.reload();
    await expect(drawn(page)).toHaveCount(1);
    await expect(leaf).toHaveClass(/roomy/);
    const [box] = await boxesOf(drawn(page));
    expect(Math.abs(box!.left - right)).toBeLessThan(12);
  }
});
