import type { Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { enter, expect, goOnSpeaking, openCourse, openDesk, ribbonAbout, TEACHER, test } from './school.ts';

test.use({ school: 'accessibility' });

const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');
const routes = readFileSync(new URL('../web/router.ts', import.meta.url), 'utf8');

/** What axe-core finds against WCAG 2.0 to 2.2, levels A and AA, as short lines. */
async function violations(page: Page): Promise<string[]> {
  await page.evaluate(AXE);
  return page.evaluate(async () => {
    // What is still fading in has less contrast than it will have.
    const fading = document.getAnimations().filter(({ effect }) => effect?.getComputedTiming().endTime !== Infinity);
    await Promise.allSettled(fading.map(({ finished }) => finished));
    const { axe } = window as unknown as { axe: { run: (on: Document, options: object) => Promise<AxeResults> } };
    const tags = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];
    const { violations: found } = await axe.run(document, { runOnly: { type: 'tag', values: tags } });
    return found.flatMap(({ id, nodes }) => nodes.map(({ html }) => `${id}: ${html.slice(0, 160)}`));
  });
}

interface AxeResults {
  violations: { id: string; nodes: { html: string }[] }[];
}

const address = (page: Page): string => new URL(page.url()).pathname;
/** The pattern of the page that is open, as the router has it. */
const routeOf = (path: string): string =>
  [...routes.matchAll(/path: '([^']+)'/g)]
    .map(([, pattern]) => pattern!)
    .find((pattern) => new RegExp(`^${pattern.replace(/:any.*/, '.*').replaceAll(/:\w+/g, '[^/]+')}$`).test(path))!;

const seen = new Set<string>();
async function look(page: Page, what: string): Promise<void> {
  await expect(page.getByText('One moment …')).toHaveCount(0);
  seen.add(routeOf(address(page)));
  expect(await violations(page), what).toEqual([]);
  // axe leaves a page where it looked last; a menu that is opened while the page is on its way up closes again.
  await page.evaluate(() => window.scrollTo(0, 0));
}

test.describe('axe-core finds nothing against WCAG 2.2 AA', () => {
  test('on the way in, in the school and in a course', async ({ browser, server }) => {
    const stranger = await (await browser.newContext()).newPage();
    await stranger.goto(`${server.address}/sign-in`);
    await expect(stranger.getByRole('button', { name: TEACHER })).toBeVisible();
    await look(stranger, 'signing in');

    await stranger.goto(`${server.address}/set-up/0000-0000-0000`);
    await expect(stranger.getByRole('alert')).toBeVisible();
    await look(stranger, 'a code that opens nothing');

    await stranger.goto(`${server.address}/arrived`);
    await expect(stranger.getByText('finish within ten minutes')).toBeVisible();
    await look(stranger, 'a launch that has expired');

    const teacher = await enter(browser, server, TEACHER);
    await expect(teacher.getByRole('link', { name: /^Dagny Holmqvist/ }).first()).toBeVisible();
    await look(teacher, 'what waits');
    await teacher.getByRole('button', { name: TEACHER }).click();
    await expect(teacher.getByRole('menuitem', { name: 'Voice and words' })).toBeVisible();
    await look(teacher, 'the menu under the name');
    await teacher.getByRole('menuitem', { name: 'Voice and words' }).click();
    await expect(teacher.getByRole('table').first()).toBeVisible();
    await look(teacher, 'voice and words');
    await teacher.getByRole('button', { name: TEACHER }).click();
    await teacher.getByRole('menuitem', { name: 'Password' }).click();
    await expect(teacher.getByRole('button', { name: 'Sign out everywhere' })).toBeVisible();
    await look(teacher, 'a new password');
    await teacher.getByRole('button', { name: TEACHER }).click();
    await teacher.getByRole('menuitem', { name: 'People of the school' }).click();
    await expect(teacher.getByRole('rowheader', { name: 'Amaru Quispe' })).toBeVisible();
    await teacher.getByRole('button', { name: 'All data: Amaru Quispe' }).click();
    await expect(teacher.getByRole('heading', { name: 'All data of Amaru Quispe' })).toBeVisible();
    await look(teacher, 'people of the school');
    await teacher.getByRole('button', { name: TEACHER }).click();
    await teacher.getByRole('menuitem', { name: 'Mail of the school' }).click();
    await expect(teacher.getByText('This server has no mail server')).toBeVisible();
    await look(teacher, 'mail of the school');
    await openCourse(teacher, 'Reading the Shore');
    await expect(teacher.getByRole('heading', { name: 'The class' })).toBeVisible();
    await look(teacher, 'a course');
    await teacher.getByRole('button', { name: 'Change the course' }).click();
    await teacher.getByRole('button', { name: 'Margin key' }).click();
    await expect(teacher.getByRole('textbox', { name: 'Name of kind 1' })).toBeVisible();
    await look(teacher, 'what is set for a course');
    await teacher.getByRole('link', { name: 'Speak a greeting to each' }).click();
    await expect(teacher.getByRole('button', { name: 'Play your greeting to Amaru Quispe' })).toBeVisible();
    await look(teacher, 'greetings');
    await teacher.goBack();
    await teacher.getByRole('link', { name: /^People and join slips/ }).click();
    await expect(teacher.getByRole('rowheader', { name: 'Amaru Quispe' })).toBeVisible();
    await teacher.getByRole('button', { name: 'Correct Amaru Quispe' }).click();
    await teacher.getByRole('button', { name: 'Dagny Holmqvist was entered twice' }).click();
    await expect(teacher.getByRole('heading', { name: 'Dagny Holmqvist was entered twice' })).toBeVisible();
    await look(teacher, 'people of a course');
    await teacher.getByRole('button', { name: 'Forgot the password: Bronagh Tully' }).click();
    await expect(teacher.getByRole('listitem').filter({ hasText: 'Bronagh Tully' }).getByRole('img')).toBeVisible();
    const code = await teacher.locator('.code').innerText();
    await look(teacher, 'join slips');
    await teacher.goto(`${server.address}/bank`);
    await teacher
      .getByRole('button', { name: /Where does this come from/ })
      .last()
      .click();
    await expect(teacher.getByRole('heading', { name: 'Where you said it' })).toBeVisible();
    await look(teacher, 'the bank');
    await stranger.goto(`${server.address}/join/${code}`);
    await expect(stranger.getByText('This is for Bronagh Tully.')).toBeVisible();
    await look(stranger, 'coming in with a slip');
  });

  test('in the gradebook, charts, second marking and platforms', async ({ browser, server }) => {
    const teacher = await enter(browser, server, TEACHER);
    await openCourse(teacher, 'Letters from the Tideline');
    await teacher.getByRole('link', { name: 'Gradebook' }).click();
    await expect(teacher.getByRole('gridcell', { name: /^Dagny Holmqvist, Words for mud/ })).toBeVisible();
    await teacher.getByRole('button', { name: 'How it came about' }).click();
    await teacher.getByRole('button', { name: 'How the course is graded' }).click();
    await expect(teacher.getByRole('checkbox', { name: 'Students see their course grade' })).toBeVisible();
    await look(teacher, 'the gradebook');
    await teacher.getByRole('gridcell').first().click();
    await teacher.getByRole('link', { name: /^Report to print/ }).click();
    await expect(teacher.getByRole('button', { name: 'Print or save as PDF' })).toBeVisible();
    await look(teacher, 'a report');
    await teacher.goBack();
    await teacher.getByRole('button', { name: 'Files' }).click();
    await teacher.getByRole('link', { name: 'Reports of the class, to print' }).click();
    await expect(teacher.getByRole('button', { name: 'Print or save as PDF' })).toBeEnabled();
    await look(teacher, 'reports of a class');
    await teacher.goBack();
    await teacher.getByRole('button', { name: /^Words for mud/ }).click();
    await expect(teacher.getByRole('button', { name: 'Sort by it' })).toBeVisible();
    await look(teacher, 'what can be done to a column');
    await teacher.keyboard.press('Escape');
    await teacher.getByRole('link', { name: 'Charts' }).click();
    await expect(teacher.getByRole('link', { name: /^Dagny Holmqvist: / }).first()).toBeVisible();
    await look(teacher, 'charts');
    for (const title of ['How results are spread', 'Who hears how much, and of what'])
      await teacher.getByRole('region', { name: title }).getByRole('button', { name: 'As a table' }).click();
    await look(teacher, 'charts as tables');
    await openCourse(teacher, 'Letters from the Tideline');
    await teacher.getByRole('link', { name: 'A letter that was never sent' }).first().click();
    await teacher.getByRole('link', { name: 'Second marking', exact: true }).click();
    await teacher.getByRole('button', { name: 'Choose works' }).click();
    await expect(teacher.getByRole('button', { name: /^Ask Ruari Castellane/ })).toBeEnabled();
    await look(teacher, 'second markings');
    await teacher.getByRole('link', { name: /^8 works with Ruari Castellane/ }).click();
    await teacher
      .getByRole('button', { name: /difference/ })
      .first()
      .click();
    await expect(teacher.getByRole('button', { name: /^Play/ }).first()).toBeVisible();
    await look(teacher, 'two markings side by side');
    await teacher.goto(`${server.address}/platforms`);
    const platform = await teacher.getByRole('link', { name: 'Open it' }).getAttribute('href');
    await look(teacher, 'learning platforms');
    await teacher.goto(platform!);
    await teacher.getByRole('button', { name: `Open Vivid Margin as ${TEACHER}` }).click();
    await expect(teacher.getByRole('button', { name: 'Connect it' })).toBeVisible();
    await look(teacher, 'which course it is');
    await teacher.getByRole('button', { name: 'Connect it' }).click();
    await teacher.getByRole('link', { name: 'Learning platform' }).click();
    await teacher.getByRole('button', { name: 'Look at the class list there' }).click();
    await expect(teacher.getByRole('row', { name: /Pirita Saarinen/u })).toBeVisible();
    await look(teacher, 'a course and its platform');
  });

  test('in an assignment, on the way out, and at nothing', async ({ browser, server }) => {
    const teacher = await enter(browser, server, TEACHER);
    await openCourse(teacher, 'Reading the Shore');
    await teacher.getByRole('link', { name: 'A walk along the shore' }).first().click();
    await expect(teacher.getByRole('link', { name: /Dagny Holmqvist/ })).toBeVisible();
    await teacher.getByRole('button', { name: 'Change what is asked' }).click();
    await expect(teacher.getByRole('textbox', { name: 'Step 1 from' })).toBeVisible();
    await look(teacher, 'an assignment');
    await teacher.getByRole('link', { name: 'Look through and return' }).click();
    await teacher.getByRole('button', { name: /^Read \d+ draft/ }).click();
    await expect(teacher.getByRole('textbox', { name: 'What was made out' })).toBeVisible();
    await teacher.getByRole('checkbox', { name: 'Tick Dagny Holmqvist' }).check();
    await teacher.getByRole('button', { name: 'At a set time' }).click();
    await look(teacher, 'what goes out');
    await teacher.goto(`${server.address}/search?words=the`);
    await expect(teacher.getByRole('article').first()).toBeVisible();
    await look(teacher, 'finding remarks');
    await teacher.goto(`${server.address}/no/such/page`);
    await expect(teacher.getByRole('heading', { level: 1 })).toBeVisible();
    await look(teacher, 'nowhere');
    await teacher.goto(server.address);
    await openDesk(teacher, 'Dagny Holmqvist');
    await teacher.getByText('Extra points, another total, flags').click();
    await expect(teacher.getByLabel('More time for Dagny Holmqvist')).toBeVisible();
    await look(teacher, 'the desk');
    await teacher.getByRole('button', { name: 'Return', exact: true }).click();
    await teacher.getByRole('link', { name: 'See it as the student' }).click();
    await expect(teacher.getByText('As Dagny Holmqvist sees it')).toBeVisible();
    await look(teacher, 'as the student');
  });

  test('for students, on a phone too', async ({ browser, server }) => {
    const student = await enter(browser, server, 'Amaru Quispe');
    await expect(student.getByRole('link', { name: 'Open your feedback' }).first()).toBeVisible();
    await look(student, 'own work');
    await student.getByRole('link', { name: 'Open your feedback' }).first().click();
    await expect(ribbonAbout(student, 'the whole work')).toBeVisible();
    await look(student, 'feedback');
    await student.keyboard.press('l');
    await student.getByRole('button', { name: 'Pause', exact: true }).click();
    await student.keyboard.press('?');
    await expect(student.getByRole('complementary', { name: 'Keys' })).toBeVisible();
    await look(student, 'listening through, and its keys');
    await student.getByRole('button', { name: 'End listening' }).click();
    await student.getByRole('link', { name: 'Your work' }).click();
    await student.getByRole('link', { name: 'Revise it' }).first().click();
    await student.getByRole('textbox', { name: 'Your text' }).click();
    await student.getByRole('button', { name: 'Table', exact: true }).click();
    await student.getByRole('button', { name: 'Formula' }).click();
    await expect(
      student.getByRole('complementary', { name: 'Remarks to deal with' }).getByRole('checkbox').first(),
    ).toBeVisible();
    await look(student, 'typing, beside the remarks');
    await student.getByRole('button', { name: 'Record it here' }).click();
    await expect(student.getByRole('button', { name: 'Record', exact: true })).toBeVisible();
    await look(student, 'recording');
    const revising = student.url();
    await student.setViewportSize({ width: 390, height: 780 });
    await look(student, 'recording on a phone');
    await student.goto(revising.replace('record', 'type'));
    await expect(student.getByRole('textbox', { name: 'Your text' })).toBeVisible();
    await look(student, 'typing on a phone');
    await student.goto(server.address);
    await student.getByRole('link', { name: 'Open your feedback' }).first().click();
    await expect(student.getByRole('article')).toBeVisible();
    await student.getByRole('navigation', { name: 'Remarks at their passages' }).getByRole('button').nth(2).click();
    await expect(student.getByRole('complementary', { name: 'The remark in hand' })).toBeVisible();
    await look(student, 'feedback on a phone');
    await student.getByRole('button', { name: 'Scores', exact: true }).click();
    await look(student, 'scores on a phone');
    for (const [path, what] of [
      ['', 'own work'],
      ['grades', 'own grades'],
      ['notices', 'notices'],
      ['search', 'find'],
      ['password', 'a new password'],
    ]) {
      await student.goto(`${server.address}/${path}`);
      await expect(student.getByRole('heading', { level: 1 })).toBeVisible();
      await look(student, `${what} on a phone`);
    }
  });

  test('on the desk', async ({ browser, server }) => {
    const page = await enter(browser, server, TEACHER);
    await openDesk(page, 'Dagny Holmqvist');
    await expect(ribbonAbout(page, 'there is a hiss')).toBeVisible();
    expect(await violations(page), 'as it opens').toEqual([]);

    await page.getByRole('article').focus();
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('t');
    await expect(page.getByRole('form', { name: 'Remark' })).toBeVisible();
    expect(await violations(page), 'while writing').toEqual([]);
    await page.keyboard.press('Escape');

    await page.getByRole('article').focus();
    await page.keyboard.press('i');
    await expect(page.getByRole('toolbar', { name: 'What you draw with' })).toBeVisible();
    expect(await violations(page), 'while drawing').toEqual([]);
    await page.keyboard.press('i');

    await page.keyboard.press('l');
    await expect(page.getByText('Talking it through')).toBeVisible();
    for (let sentence = 1; sentence <= 2; sentence++) {
      await page.keyboard.press('ArrowDown');
      await expect(page.getByText(new RegExp(`^${sentence} passages?$`))).toBeVisible();
    }
    await goOnSpeaking(page, 0.8);
    expect(await violations(page), 'talking it through').toEqual([]);
    await page.keyboard.press('l');
    await expect(page.getByRole('complementary', { name: 'One, or several remarks' })).toBeVisible();
    await expect(page.getByRole('list', { name: 'Parts' })).toBeVisible();
    await page.getByRole('button', { name: 'Hear part 1' }).click();
    await expect(page.getByRole('region', { name: 'Talk-through' })).toBeVisible();
    expect(await violations(page), 'a talk-through and its parts').toEqual([]);
    await page.getByRole('button', { name: 'Leave the talk-through' }).click();
    await page.getByRole('button', { name: 'Leave it one' }).click();

    for (const [key, panel] of [
      ['?', 'Keys'],
      ['x', 'Stamps'],
      ['a', 'Remark bank'],
      ['k', 'Keep in the bank'],
    ] as const) {
      await page.getByRole('article').focus();
      await page.keyboard.press(key);
      await expect(page.getByRole('complementary', { name: panel })).toBeVisible();
      expect(await violations(page), panel).toEqual([]);
    }
    await page.getByRole('button', { name: /Choose and test your microphone/ }).click();
    await expect(page.getByRole('complementary', { name: 'Microphone' })).toBeVisible();
    expect(await violations(page), 'microphone').toEqual([]);
    await page.getByRole('button', { name: 'Other kinds of remark' }).click();
    await page.getByText('Change the margin key').click();
    await expect(page.getByRole('complementary', { name: 'Margin key' })).toBeVisible();
    expect(await violations(page), 'margin key').toEqual([]);

    await page.getByRole('article').focus();
    await page.keyboard.press('ArrowDown');
    await page.keyboard.down('Space');
    await goOnSpeaking(page, 0.5);
    expect(await violations(page), 'while speaking').toEqual([]);
    await page.keyboard.up('Space');
  });

  test('and every route of the app was looked at', () => {
    const all = [...routes.matchAll(/path: '([^']+)'/g)].map(([, pattern]) => pattern!);
    expect([...seen].sort()).toEqual(all.sort());
  });
});
