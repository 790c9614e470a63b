import { enter, expect, openDesk, pick, ribbonAbout, saved, speak, TEACHER, test, workIn } from './school.ts';

test.use({ school: 'returning' });

const WALK = 'A walk along the shore';

test('a teacher scores by key, says ready, goes through the queue, looks at all and returns together', async ({
  browser,
  server,
}) => {
  const page = await enter(browser, server, TEACHER);
  await openDesk(page, 'Ines Bettencourt');
  const scores = page.getByRole('complementary', { name: 'Scores' });

  await test.step('scores without the mouse', async () => {
    await page.keyboard.press('c');
    await page.keyboard.press('4');
    await page.keyboard.press('3');
    await page.keyboard.press('2');
    await expect(scores.getByText('20 of 25 points')).toBeVisible();
    await scores.getByText('How this adds up').click();
    await expect(scores).toContainText('10 + 7.5 + 2.5 = 20 of 25, that is 80 %: Merit.');
  });

  await test.step('speaks about a criterion, which shows it', async () => {
    const speaking = scores.getByRole('button', { name: /^Speak about Evidence/ });
    await speaking.click();
    await expect(page.getByRole('timer')).toBeVisible();
    await page.waitForTimeout(1200);
    await speaking.click();
    await expect(ribbonAbout(page, 'the whole work')).toBeVisible();
    await expect(
      scores.getByRole('group', { name: 'Evidence' }).getByRole('button', { name: /whole work/ }),
    ).toBeVisible();
    // What is said about a criterion is not what is said about all of it.
    await page.getByRole('article').click({ position: { x: 10, y: 300 } });
    await speak(page);
    await expect(ribbonAbout(page, 'the whole work')).toHaveCount(2);
    await saved(page);
  });

  await test.step('is done, and the next one is there under one key', async () => {
    await page.keyboard.press('d');
    await expect(page.getByText('Ready to return.')).toBeVisible();
    await expect(page.getByRole('navigation', { name: 'Class' }).getByText('Ines Bettencourt: ready')).toBeAttached();
    const before = page.url();
    await page.keyboard.press('q');
    await expect(page).not.toHaveURL(before);
    await expect(page.getByRole('article')).toBeVisible();
  });

  await test.step('looks through all, and at one as its student', async () => {
    await page.goto(server.address);
    await page.getByRole('link', { name: '1 ready to return' }).first().click();
    const row = page.getByRole('row').filter({ hasText: 'Ines Bettencourt' });
    await expect(row).toContainText('Merit, 20 of 25');
    await expect(row).toContainText('2 spoken remarks without words');
    await expect(page.getByRole('row').filter({ hasText: 'Dagny Holmqvist' })).toContainText(
      'a draft that nobody has read',
    );
    await row.getByRole('link', { name: 'Ines Bettencourt' }).click();
    await page.getByRole('button', { name: 'Return', exact: true }).click();
    await page.getByRole('link', { name: 'See it as the student' }).click();
    await expect(page.getByText('As Ines Bettencourt sees it')).toBeVisible();
    await expect(page.getByRole('complementary', { name: 'Scores' })).toContainText('20 of 25 points');
    await expect(page.getByRole('textbox', { name: 'Write an answer' })).toHaveCount(0);
    await page.goBack();
  });

  await test.step('reads the drafts with the keyboard', async () => {
    await page.getByRole('link', { name: WALK }).click();
    await page.getByRole('link', { name: 'Look through and return' }).click();
    await page.getByRole('button', { name: /^Read \d+ draft/ }).click();
    const draft = page.getByRole('textbox', { name: 'What was made out' });
    await expect(draft).toBeFocused();
    await draft.fill('I can hear this. You make the physics audible in one technical word.');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('button', { name: /^Read \d+ draft/ })).toHaveCount(0);
  });

  const student = await enter(browser, server, 'Ines Bettencourt');
  const work = workIn(student, WALK);

  await test.step('returns the remarks now and the grade later, and thinks again', async () => {
    await pick(page, 'What goes out', 'Remarks now, grades later');
    await page.getByRole('button', { name: 'Return all ready (1)' }).click();
    await expect(page.getByText('Returned to 1 student.')).toBeVisible();
    await student.reload();
    await work.getByRole('link', { name: 'Open your feedback' }).click();
    await expect(student.getByText('The scores and the grade come later.').first()).toBeVisible();
    await expect(student.getByText('20 of 25')).toHaveCount(0);
    await page.getByRole('button', { name: 'Take it back' }).click();
    await expect(page.getByText('Taken back from 1 student, as if it had never gone out.')).toBeVisible();
    await student.goto(server.address);
    await expect(work.getByText('with your teacher')).toBeVisible();
  });

  await test.step('returns the ticked, sends what was held back, and the student opens the arithmetic', async () => {
    await page.getByRole('checkbox', { name: 'Tick Ines Bettencourt' }).check();
    await page.getByRole('button', { name: 'Return the 1 ticked' }).click();
    await page.getByRole('button', { name: 'Send what was held back (1)' }).click();
    await expect(page.getByText('1 student can see all of it now.')).toBeVisible();
    await student.reload();
    await work.getByRole('link', { name: 'Open your feedback' }).click();
    await student.getByText('How this adds up').click();
    await expect(student.getByText('10 + 7.5 + 2.5 = 20 of 25, that is 80 %: Merit.')).toBeVisible();
  });
});

test('two teachers at one work see each other, and none overwrites a score unseen', async ({ browser, server }) => {
  const [one, two] = [await enter(browser, server, TEACHER), await enter(browser, server, 'Ruari Castellane')];
  await openDesk(one, 'Farid Noorzai');
  await two.goto(one.url());
  await expect(two.getByText(`${TEACHER} is here too`)).toBeVisible();

  // What the other sees is from before: the line is cut while both score.
  const evidence = (page: typeof one) => page.getByRole('group', { name: 'Evidence' });
  await two.context().setOffline(true);
  await evidence(one)
    .getByRole('radio', { name: /Strong/ })
    .check();
  await saved(one);
  await evidence(two)
    .getByRole('radio', { name: /Not yet/ })
    .check();
  await two.context().setOffline(false);
  await two.getByRole('button', { name: 'Compare' }).click();
  const both = two.getByRole('dialog', { name: 'Changed by two people' });
  await expect(both.getByText('Evidence, as it is now')).toBeVisible();
  await expect(both.getByRole('definition')).toHaveText(['Strong', 'Not yet']);
  await both.getByRole('button', { name: 'Leave it as it is now' }).click();
  await expect(evidence(two).getByRole('radio', { name: /Strong/ })).toBeChecked();
});

test('what is marked without names is named when it is returned', async ({ browser, server }) => {
  const page = await enter(browser, server, TEACHER);
  await page
    .getByRole('region', { name: 'Assignments' })
    .getByRole('link', { name: 'Fog, in a hundred words' })
    .click();
  await page.getByRole('link', { name: 'Look through and return' }).click();
  const scored = page.getByRole('row').filter({ hasText: '17 of 20' });
  await expect(scored).toContainText(/Student [0-9A-F]{4}/);
  await expect(page.getByText('Chidi Umeh')).toHaveCount(0);
  await scored.getByRole('link', { name: /^Student/ }).click();
  await expect(page.getByRole('article')).toContainText('The hour without a quay');
  await expect(page.getByText('Chidi')).toHaveCount(0);
  await page.keyboard.press('a');
  await expect(page.getByRole('complementary', { name: 'Remark bank' })).toBeVisible();
  await expect(page.getByText(/greeting/i)).toHaveCount(0);
  await page.getByRole('button', { name: 'Return', exact: true }).click();
  await page.getByRole('button', { name: /^Return to Student/ }).click();
  await expect(page.getByText('returned', { exact: true })).toBeVisible();
  await page.reload();
  await expect(page.getByText('Chidi Umeh', { exact: true }).first()).toBeVisible();
});
