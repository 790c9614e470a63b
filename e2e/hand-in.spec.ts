import type { Locator, Page } from '@playwright/test';
import { enter, expect, test, TEACHER } from './school.ts';

test.use({ school: 'hand-in' });

const STUDENT = 'Ines Bettencourt';
const ESSAY = 'A place I know better than others';

async function openHandIn(page: Page, title: string, by: 'type it here' | 'record it here'): Promise<void> {
  const work = page.locator('section.work', { has: page.getByRole('heading', { name: title }) });
  await work.getByRole('link', { name: by }).click();
  await expect(page.getByRole('heading', { level: 1, name: title })).toBeVisible();
}

const text = (page: Page) => page.getByRole('textbox', { name: 'Your text' });
const kept = (page: Page) => expect(page.getByText('Everything you typed is saved.')).toBeVisible();

/** As its teacher, over HTTP: a suggestion about some words, and the return. */
async function suggestAndReturn(page: Page, words: string, suggestion: string): Promise<void> {
  const work = new URL(page.url()).pathname.split('/').at(-1)!;
  const statuses = await page.evaluate(
    async ([id, exact, instead]) => {
      const { folio } = (await (await fetch(`/api/submissions/${id}`)).json()) as { folio: { text: string } };
      const start = folio.text.indexOf(exact);
      const end = start + exact.length;
      const quote = {
        exact,
        prefix: folio.text.slice(Math.max(0, start - 20), start),
        suffix: folio.text.slice(end, end + 20),
      };
      const said = {
        ...{ name: '', text: '', tags: [], link: null, reaction: null, stamp: null, criterion: null, private: false },
        ...{ suggestion: instead, recording: null, file: null },
      };
      const form = new FormData();
      form.set('body', JSON.stringify({ anchor: { type: 'passage', start, end, quote }, kind: 'repair', said }));
      const remark = await fetch(`/api/submissions/${id}/remarks/${crypto.randomUUID()}`, {
        method: 'PUT',
        body: form,
      });
      const returned = await fetch(`/api/submissions/${id}/returned`, {
        ...{ method: 'PUT', headers: { 'Content-Type': 'application/json' } },
        body: JSON.stringify({ returned: true }),
      });
      return [remark.status, returned.status];
    },
    [work, words, suggestion] as const,
  );
  expect(statuses).toEqual([200, 200]);
}

test('a work is typed, survives a lost network and a second window, is handed in, and revised beside its remarks', async ({
  browser,
  server,
}) => {
  const page = await enter(browser, server, STUDENT);
  await test.step('typed, with a formula and a table', async () => {
    await openHandIn(page, ESSAY, 'type it here');
    await text(page).click();
    await page.keyboard.type('# The slip at noon\nThe water is obviously deeper here, and the energy is ');
    await page.getByRole('button', { name: 'Formula' }).click();
    await page.getByRole('textbox', { name: 'Formula' }).fill('\\frac{1}{2} m v^2');
    await page.getByRole('button', { name: 'Put it in' }).click();
    await page.keyboard.type(' joules.\n');
    await page.getByRole('button', { name: 'Table', exact: true }).click();
    await page.keyboard.type('Day');
    await expect(page.getByText('16 words')).toBeVisible();
    await kept(page);
  });

  await test.step('without a network nothing typed is lost, though the page is closed', async () => {
    const api = '**/api/assignments/*/typed';
    await page.route(api, (route) => route.abort());
    await text(page).locator('h1').click();
    await page.keyboard.press('End');
    await page.keyboard.type(' in June');
    await expect(page.getByText('The server cannot be reached.')).toBeVisible();
    await page.reload();
    await expect(text(page)).toContainText('The slip at noon in June');
    await page.unroute(api);
    await kept(page);
  });

  await test.step('of two windows neither undoes the other', async () => {
    const second = await page.context().newPage();
    await second.goto(page.url());
    await expect(text(second)).toContainText('in June');
    await text(second).locator('h1').click();
    await second.keyboard.press('End');
    await second.keyboard.type(', again');
    await kept(second);
    await text(page).locator('h1').click();
    await page.keyboard.press('End');
    await page.keyboard.type(' and July');
    await page.getByRole('button', { name: 'The one on this page' }).click();
    await kept(page);
    await expect(text(page).locator('h1')).toHaveText('The slip at noon in June and July');
    await second.close();
  });

  await test.step('handed in, with a receipt, and seen as its teacher will', async () => {
    await page.getByRole('button', { name: 'Hand in', exact: true }).click();
    await expect(page.getByRole('status', { name: 'Receipt' })).toContainText('your teacher gets it all the same');
    const download = page.waitForEvent('download');
    await page.getByRole('link', { name: 'Keep the receipt' }).click();
    expect((await download).suggestedFilename()).toBe(`Receipt ${ESSAY}, version 1.txt`);
    await page.getByRole('link', { name: 'See it as your teacher will' }).click();
    const work = page.getByRole('article');
    await expect(work.getByRole('heading', { name: 'The slip at noon in June and July' })).toBeVisible();
    await expect(work.locator('math mfrac')).toBeVisible();
    await expect(work.locator('table')).toContainText('Day');
  });

  const teacher = await enter(browser, server, TEACHER);
  const queue = (name: string) => teacher.getByRole('listitem').filter({ hasText: name }).filter({ hasText: ESSAY });
  await queue(STUDENT).getByRole('link').click();
  await expect(teacher.getByRole('article')).toBeVisible();
  await suggestAndReturn(teacher, 'obviously', 'a little');

  await test.step('revised: the suggestion is put in by one press, and its student says how', async () => {
    await page.goto(server.address);
    await page.getByRole('link', { name: 'Revise it' }).first().click();
    const list = page.getByRole('complementary', { name: 'Remarks to deal with' });
    await list.getByRole('button', { name: 'Put these words into my text' }).click();
    await expect(text(page)).toContainText('The water is a little deeper here');
    await expect(list).toContainText('1 of 1 dealt with');
    await list.getByRole('textbox', { name: 'Say how you dealt with it' }).fill('I measured it: 20 cm.');
    await list.getByRole('button', { name: 'Send the answer' }).click();
    await expect(list.getByRole('list', { name: 'Answers' })).toContainText('20 cm');
    await kept(page);
    await page.getByRole('button', { name: 'Hand in the new version' }).click();
    await expect(page.getByRole('status', { name: 'Receipt' })).toContainText('Version 2');
  });

  await test.step('its teacher sees it in the queue, and at the desk what changed and what its student says', async () => {
    await teacher.goto(server.address);
    await expect(queue(STUDENT)).toHaveCount(1);
    await expect(queue(STUDENT)).toContainText('1 of 1 dealt with');
    await queue(STUDENT).getByRole('link').click();
    const margin = teacher.getByRole('region', { name: 'Margin' });
    await expect(margin).toContainText('Dealt with in the next version, says its student.');
    await expect(margin).toContainText('I measured it: 20 cm.');
    await margin.getByRole('button', { name: 'Show what changed' }).click();
    await expect(margin).toContainText('a little');
  });
});

/** Tab, until it has the keyboard. */
async function tabTo(page: Page, wanted: Locator, key: 'Tab' | 'Shift+Tab' = 'Tab'): Promise<void> {
  await expect(wanted).toBeVisible();
  for (let step = 0; step < 120; step++) {
    if (await wanted.evaluate((element) => element === document.activeElement)) return;
    await page.keyboard.press(key);
  }
  throw new Error(`Tab never came to ${String(wanted)}`);
}

test('the whole job of a student, by keyboard alone', async ({ browser, server }) => {
  const page = await (await browser.newContext()).newPage();
  await page.goto(`${server.address}/sign-in`);
  await tabTo(page, page.getByRole('button', { name: 'Amaru Quispe', exact: true }));
  await page.keyboard.press('Enter');

  await test.step('opens what came back, and listens through it', async () => {
    await tabTo(page, page.getByRole('link', { name: 'Open your feedback' }).first());
    await page.keyboard.press('Enter');
    await expect(page.getByRole('article')).toBeVisible();
    await page.keyboard.press('l');
    const bar = page.getByRole('region', { name: 'Listening through' });
    await expect(bar).toContainText('1 of 5 spoken');
    await expect(page.locator('[data-remark] .now').first()).toBeVisible();
    await page.keyboard.press('Space');
    await expect(bar.getByRole('button', { name: 'Go on' })).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(bar).toBeHidden();
  });

  await test.step('answers a remark, and says that another is understood', async () => {
    await page.keyboard.press('b');
    const ribbon = page.locator('[data-remark]:focus');
    await expect(ribbon).toContainText('When you write that a reason is obvious');
    const id = await ribbon.getAttribute('data-remark');
    const remark = page.locator(`[data-remark="${id}"]`);
    await tabTo(page, remark.getByRole('textbox', { name: 'Write an answer' }));
    await page.keyboard.type('I took the four words out.');
    await page.keyboard.press('Control+Enter');
    await expect(remark.getByRole('list', { name: 'Answers' })).toContainText('four words out');
    await tabTo(page, remark.getByRole('button', { name: /^Got it/ }), 'Shift+Tab');
    await page.keyboard.press('g');
    await expect(remark).toContainText('Settled');
  });

  await test.step('revises it and hands it in', async () => {
    await tabTo(page, page.getByRole('link', { name: 'Your work' }), 'Shift+Tab');
    await page.keyboard.press('Enter');
    await tabTo(page, page.getByRole('link', { name: 'Revise it' }).first());
    await page.keyboard.press('Enter');
    await tabTo(page, text(page));
    await page.keyboard.type('The reason is plain, and here it is.');
    await kept(page);
    // Tab is for those who write; Escape first, and it leads on.
    await page.keyboard.press('Escape');
    const dealt = page.getByRole('checkbox', { name: 'Dealt with' }).first();
    await tabTo(page, dealt);
    await page.keyboard.press('Space');
    await expect(page.getByRole('complementary', { name: 'Remarks to deal with' })).toContainText('1 of 8 dealt with');
    await tabTo(page, page.getByRole('button', { name: 'Hand in the new version' }), 'Shift+Tab');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('status', { name: 'Receipt' })).toContainText('Version 2');
  });
});

test('a work is recorded: counted down, paused, named, kept through a reload, and handed in', async ({
  browser,
  server,
}) => {
  const page = await enter(browser, server, STUDENT);
  await openHandIn(page, 'An interview on the quay', 'record it here');
  const timer = page.getByRole('timer');
  await page.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(timer).toHaveText('3');
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByRole('list', { name: 'Your takes' })).toBeHidden();

  await page.getByRole('button', { name: 'Record', exact: true }).click();
  await page.getByRole('button', { name: 'Pause' }).click();
  await expect(page.getByText(/Paused at/)).toBeVisible();
  await page.getByRole('button', { name: 'Go on' }).click();
  await page.waitForTimeout(1500);
  await page.getByRole('button', { name: 'Stop' }).click();
  const name = page.getByRole('textbox', { name: 'Name of' });
  await name.fill('Second try');
  await name.press('Tab');

  await page.reload();
  await expect(name).toHaveValue('Second try');
  await page.getByRole('checkbox', { name: 'Hand in Second try' }).check();
  await page.getByRole('button', { name: 'Hand in', exact: true }).click();
  const receipt = page.getByRole('status', { name: 'Receipt' });
  await expect(receipt).toContainText('Second try.webm');
  await receipt.getByRole('link', { name: 'See it as your teacher will' }).click();
  await expect(page.getByRole('article').getByRole('button', { name: /^Play/ }).first()).toBeVisible();
});

test('what the teacher said is said after them, and heard line by line beside one’s own', async ({
  browser,
  server,
}) => {
  const page = await enter(browser, server, STUDENT);
  await openHandIn(page, 'A field sketch', 'record it here');
  await expect(page.getByRole('group', { name: 'the spoken instructions' })).toBeVisible();
  await page.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Pause' })).toBeVisible();
  await page.waitForTimeout(5000);
  await page.getByRole('button', { name: 'Stop' }).click();
  const practice = page.getByRole('region', { name: 'Beside your teacher’s recording' });
  await practice.getByRole('button', { name: 'Line 1: your teacher’s, then yours' }).click();
  await expect(practice.getByRole('button', { name: 'Stop line 1' })).toBeVisible();
  // First theirs, then one's own, and then it is over by itself.
  await expect(
    page.getByRole('group', { name: 'the spoken instructions' }).getByRole('button', { name: /^Pause/ }),
  ).toBeVisible();
  await expect(page.getByRole('button', { name: 'Pause Take 1' })).toBeVisible();
  await expect(practice.getByRole('button', { name: /^Line 1/ })).toBeVisible();
});
