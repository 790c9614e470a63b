import { chromium, type Page } from '@playwright/test';
import { enter, openDesk, select, TEACHER } from '../../e2e/school.ts';
import type { Server } from '../../e2e/server.ts';
import config from '../../playwright.config.ts';
import { figure } from './figure.ts';

const PASSAGES = [
  'I had expected a story about shipwrecked flour.',
  'Either the chart is wrong or the channel has filled up.',
  'The name is a description',
  'I went to four of them.',
  'nobody will learn anything from their names.',
];
/** What is opened for the first time has been got ready by then. */
const READY = 8000;

/** From the key to the first banked remarks, and the longest frame meanwhile, on a desk whose teacher has a large bank. */
export async function benchBankAtDesk(server: Server): Promise<object> {
  const browser = await chromium.launch(config.use!.launchOptions);
  try {
    const page = await enter(browser, server, TEACHER);
    await openDesk(page, 'Ines Bettencourt');
    await page.waitForTimeout(READY);
    const opened = [];
    for (const passage of PASSAGES) opened.push(await openBank(page, passage));
    return {
      keyToFirstResults: figure(
        'ms',
        opened.map(([results]) => results),
        '100 or less',
      ),
      longestFrameWhileOpening: figure(
        'ms',
        opened.map(([, frame]) => frame),
        'no frame dropped: 33 or less at 60 a second',
      ),
    };
  } finally {
    await browser.close();
  }
}

async function openBank(page: Page, passage: string): Promise<readonly [number, number]> {
  await select(page, passage);
  const found = await page.evaluate(pressAndWait);
  await page.keyboard.press('Escape');
  await page.getByRole('complementary', { name: 'Remark bank' }).waitFor({ state: 'hidden' });
  return found;
}

const pressAndWait = async (): Promise<readonly [number, number]> => {
  const begun = performance.now();
  document.dispatchEvent(new KeyboardEvent('keydown', { key: 'a', bubbles: true }));
  let [last, longest] = [begun, 0];
  while (performance.now() - begun < 10_000) {
    const now = await new Promise<number>(requestAnimationFrame);
    longest = Math.max(longest, now - last);
    last = now;
    if (document.querySelector('[aria-label="Banked remarks"] li')) break;
  }
  return [performance.now() - begun, longest];
};
