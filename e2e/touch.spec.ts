import type { Locator, Page } from '@playwright/test';
import { enter, expect, goOnSpeaking, openDesk, saved, TEACHER, test, workIn } from './school.ts';

test.use({ school: 'touch' });

const PHONE = { viewport: { width: 390, height: 780 }, hasTouch: true, isMobile: true };
const TABLET = { viewport: { width: 820, height: 1180 }, hasTouch: true };

/** A finger that travels over something, to the left or to the right. */
async function swipe(page: Page, over: Locator, by: number): Promise<void> {
  const box = (await over.boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + 20];
  const touch = await page.context().newCDPSession(page);
  const send = (type: 'touchStart' | 'touchMove' | 'touchEnd', at?: number) =>
    touch.send('Input.dispatchTouchEvent', { type, touchPoints: at === undefined ? [] : [{ x: at, y }] });
  await send('touchStart', x);
  for (let step = 1; step <= 5; step++) await send('touchMove', x + (by * step) / 5);
  await send('touchEnd');
}

const sideways = (page: Page): Promise<number> =>
  page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);

test('a student hears, reads and answers on a phone, by touch alone', async ({ browser, server }) => {
  const page = await enter(browser, server, 'Amaru Quispe', PHONE);
  expect(await sideways(page)).toBe(0);
  const work = workIn(page, 'A walk along the shore');
  await expect(page.getByRole('heading', { level: 2 }).first()).toHaveText('Came back 1');
  await work.getByRole('link', { name: 'Open your feedback' }).tap();
  await expect(page.getByRole('article')).toBeVisible();
  expect(await sideways(page)).toBe(0);

  const sheet = page.getByRole('complementary', { name: 'The remark in hand' });
  await test.step('touches a passage, and its remark rises', async () => {
    const passage = page.locator('mark', { hasText: 'The three lines are therefore' });
    await passage.first().tap();
    await expect(sheet).toContainText('This is the sentence that your essay stands on.');
    await expect(sheet).toBeInViewport({ ratio: 1 });
    await expect(passage.first()).toBeInViewport();
    await sheet.getByRole('button', { name: /^Play the remark/ }).tap();
    await expect(sheet.locator('.played').first()).toBeAttached();
  });

  await test.step('swipes to the next one and back', async () => {
    await expect(sheet.getByRole('status').first()).toHaveText('3 of 8');
    await swipe(page, sheet, -150);
    await expect(sheet.getByRole('status').first()).toHaveText('4 of 8');
    await swipe(page, sheet, 150);
    await expect(sheet.getByRole('status').first()).toHaveText('3 of 8');
    await sheet.getByRole('button', { name: 'Next remark' }).tap();
    await expect(sheet.getByRole('status').first()).toHaveText('4 of 8');
  });

  await test.step('answers', async () => {
    await sheet.getByRole('textbox', { name: /answer/i }).fill('I will say how I know.');
    await sheet.getByRole('button', { name: /^Send/ }).tap();
    await expect(sheet).toContainText('I will say how I know.');
    await sheet.getByRole('button', { name: /^Got it/ }).tap();
    await expect(sheet).toContainText('Settled by Amaru Quispe');
    await sheet.getByRole('button', { name: 'Open it again' }).tap();
    await sheet.getByRole('button', { name: 'Ask for a meeting' }).tap();
    await expect(sheet.getByRole('textbox', { name: /answer/i })).toHaveValue(/When could we meet\?$/);
    await saved(page);
  });

  await test.step('looks at the scores', async () => {
    await sheet.getByRole('button', { name: 'Close the remark' }).tap();
    await expect(sheet).toBeHidden();
    await page.getByRole('button', { name: 'Scores', exact: true }).tap();
    await expect(page.getByRole('complementary', { name: 'Scores' })).toContainText('19 of 25 points');
    await page.getByRole('button', { name: 'Close the scores' }).tap();
    await expect(page.getByRole('complementary', { name: 'Scores' })).toBeHidden();
    expect(await sideways(page)).toBe(0);
  });
});

test('a teacher reads, speaks and scores on a tablet, by touch alone', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER, TABLET);
  await openDesk(page, 'Ines Bettencourt');
  expect(await sideways(page)).toBe(0);
  // A long press, and the handles that it shows: the browser's own, which no test can reach.
  const words = await page.getByRole('article').evaluate((article) => {
    const walker = document.createTreeWalker(article, NodeFilter.SHOW_TEXT);
    let node = walker.nextNode()!;
    while (node.textContent!.length < 60) node = walker.nextNode()!;
    const end = node.textContent!.indexOf(' ', 20);
    getSelection()!.setBaseAndExtent(node, 0, node, end);
    return node.textContent!.slice(0, end);
  });
  await page.getByRole('button', { name: 'Record a remark' }).tap();
  await goOnSpeaking(page, 1.5);
  await page.getByRole('button', { name: /^Stop/ }).tap();
  const sheet = page.getByRole('complementary', { name: 'The remark in hand' });
  await expect(sheet.getByRole('region', { name: `about “${words}`.slice(0, 20) })).toBeVisible();

  await test.step('its mark stands level with its passage', async () => {
    await saved(page);
    const mark = page.getByRole('navigation', { name: 'Remarks at their passages' }).getByRole('button').first();
    const passage = page.locator('mark').first();
    const [at, level] = [(await mark.boundingBox())!, (await passage.boundingBox())!];
    expect(Math.abs(at.y - level.y)).toBeLessThan(at.height);
  });

  await test.step('scores come from the side', async () => {
    await page.getByRole('button', { name: 'Scores', exact: true }).tap();
    const scores = page.getByRole('complementary', { name: 'Scores' });
    await scores.getByText('Strong').first().tap();
    await expect(scores.getByRole('radio', { checked: true })).toHaveCount(1);
    await saved(page);
    await page.getByRole('button', { name: 'Close', exact: true }).tap();
    await expect(scores).toBeHidden();
  });
});
