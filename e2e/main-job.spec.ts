import {
  enter,
  expect,
  goOnSpeaking,
  openDesk,
  play,
  ribbonAbout,
  saved,
  select,
  speak,
  TEACHER,
  test,
  workIn,
} from './school.ts';

const PASSAGE = 'It looks like good manners, but it is the length of their bills.';
const STUDENT = 'Eleni Marathou';

test.use({ school: 'main-job' });

test('a teacher speaks about an essay and returns it; the student listens and answers', async ({ browser, server }) => {
  const teacher = await enter(browser, server, TEACHER);

  await test.step('the teacher sees what waits and opens an essay', async () => {
    await expect(teacher.getByRole('heading', { name: /To mark/ })).toContainText('33');
    await openDesk(teacher, STUDENT);
    await expect(teacher.getByRole('heading', { name: 'Six Hours on a Mudflat' })).toBeVisible();
  });

  const remark = ribbonAbout(teacher, PASSAGE);
  await test.step('selects words, speaks while holding the space bar, and has a ribbon level with its passage', async () => {
    await select(teacher, PASSAGE);
    await speak(teacher, 2);
    await expect(remark).toBeVisible();
    await expect(async () => {
      const passage = (await teacher.getByRole('article').locator('mark').first().boundingBox())!;
      const ribbon = (await remark.boundingBox())!;
      expect(Math.abs(ribbon.y - passage.y)).toBeLessThan(4);
    }).toPass();
    await play(remark);
  });

  await test.step('speaks it again, and throws another away', async () => {
    await remark.getByRole('button', { name: 'Speak this remark again' }).click();
    await goOnSpeaking(teacher, 1);
    await teacher.getByRole('button', { name: 'Stop recording' }).click();
    await expect(teacher.getByText('Put aside: 1')).toBeVisible();
    await expect(remark).toHaveCount(1);
    await select(teacher, 'Nothing happens on a mudflat.');
    await speak(teacher);
    await ribbonAbout(teacher, 'Nothing happens').getByRole('button', { name: 'Put this remark aside' }).click();
    await expect(ribbonAbout(teacher, 'Nothing happens')).toHaveCount(0);
    await expect(teacher.getByText('Put aside: 2')).toBeVisible();
  });

  await test.step('writes the transcript by hand', async () => {
    await remark.getByRole('button', { name: /No transcript yet/ }).click();
    await teacher.getByRole('textbox', { name: 'Transcript' }).fill('I laughed. Say which bird has which bill.');
    await teacher.keyboard.press('Control+Enter');
    await expect(remark).toContainText('I laughed.');
  });

  await test.step('scores, and speaks about the whole work', async () => {
    const scores = teacher.getByRole('complementary', { name: 'Scores' });
    await scores
      .getByRole('group', { name: 'Observation' })
      .getByRole('radio', { name: /Strong/ })
      .check();
    await scores
      .getByRole('group', { name: 'Evidence' })
      .getByRole('radio', { name: /Secure/ })
      .check();
    await expect(scores).toContainText('17.5 points so far; 1 of 3 criteria to score');
    await scores
      .getByRole('group', { name: 'Line of thought' })
      .getByRole('radio', { name: /Strong/ })
      .check();
    await expect(scores).toContainText('22.5 of 25 points');
    await expect(scores).toContainText('Distinction');
    await teacher.getByRole('article').click({ position: { x: 10, y: 300 } });
    await speak(teacher);
    await expect(ribbonAbout(teacher, 'the whole work')).toBeVisible();
    await saved(teacher);
  });

  const student = await enter(browser, server, STUDENT);
  await test.step('the student sees nothing of it before the return', async () => {
    const work = workIn(student, 'A walk along the shore');
    await expect(work.getByText('with your teacher')).toBeVisible();
    await expect(work.getByRole('link', { name: 'Open your feedback' })).toHaveCount(0);
    await work.getByRole('link', { name: 'Read it' }).click();
    await expect(student.getByRole('heading', { name: 'Six Hours on a Mudflat' })).toBeVisible();
    await expect(student.getByText('Your teacher has this version')).toBeVisible();
    await expect(student.locator('mark')).toHaveCount(0);
    await expect(student.getByRole('complementary', { name: 'Scores' })).toHaveCount(0);
  });

  await test.step('everything is there again after the server was killed', async () => {
    await server.kill();
    await server.start();
    await teacher.reload();
    await expect(remark).toContainText('I laughed.');
    await expect(ribbonAbout(teacher, 'the whole work')).toBeVisible();
    await expect(teacher.getByRole('complementary', { name: 'Scores' })).toContainText('Distinction');
    await play(remark);
  });

  await test.step('the teacher returns it', async () => {
    await teacher.getByRole('button', { name: 'Return', exact: true }).click();
    await teacher.getByRole('button', { name: `Return to ${STUDENT}` }).click();
    await expect(teacher.getByText('returned', { exact: true })).toBeVisible();
    await expect(remark).toContainText(`${STUDENT} has not listened yet`);
  });

  const heard = ribbonAbout(student, PASSAGE);
  await test.step('the student sees highlights, scores and grade, hears the remark and reads it', async () => {
    await student.goto(server.address);
    await student.getByRole('link', { name: 'Open your feedback' }).click();
    await expect(student.locator('mark').first()).toBeVisible();
    await expect(student.getByRole('complementary', { name: 'Scores' })).toContainText('Distinction');
    await expect(heard).toContainText('Say which bird has which bill.');
    await play(heard);
    await expect(heard.getByText('heard', { exact: true })).toBeVisible();
  });

  await test.step('and answers by text and by voice', async () => {
    await heard.getByRole('textbox', { name: 'Write an answer' }).fill('The curlew has the longest.');
    await heard.getByRole('button', { name: 'Send the answer' }).click();
    await expect(heard.getByRole('list', { name: 'Answers' })).toContainText('The curlew has the longest.');
    await heard.getByRole('button', { name: 'Speak an answer' }).click();
    await student.waitForTimeout(1200);
    await heard.getByRole('button', { name: 'Stop and send the answer' }).click();
    await expect(heard.getByRole('button', { name: `Play the answer of ${STUDENT}` })).toBeVisible();
    await saved(student);
  });

  await test.step('and asks about a criterion on which nothing was said', async () => {
    const scores = student.getByRole('complementary', { name: 'Scores' });
    await scores.getByRole('button', { name: 'Ask about this: Evidence' }).click();
    await scores.getByRole('textbox', { name: 'Ask about Evidence' }).fill('What would have been better?');
    await scores.getByRole('button', { name: 'Send the answer' }).click();
    await scores.getByRole('button', { name: 'See what was said about Evidence' }).click();
    await expect(student.locator('.ribbon.focused')).toContainText('What would have been better?');
    await saved(student);
  });

  await test.step('the teacher sees that it was heard, and the answer', async () => {
    await teacher.goto(server.address);
    for (const kind of ['new', 'back again']) await teacher.getByRole('checkbox', { name: kind }).uncheck();
    await expect(teacher.getByRole('heading', { name: /To mark/ })).toContainText('4 of 34; 30 by kind');
    await teacher
      .getByRole('link', { name: /^Eleni Marathou/ })
      .first()
      .click();
    await expect(remark).toContainText('Heard');
    await expect(remark).toContainText('The curlew has the longest.');
    await remark.getByRole('button', { name: `Play the answer of ${STUDENT}` }).click();
    await expect(remark.getByRole('list', { name: 'Answers' }).locator('.played').first()).toBeAttached();
  });

  await test.step('and answers the question', async () => {
    const asked = teacher.locator('.ribbon', { hasText: 'What would have been better?' });
    await asked.click();
    await expect(asked.getByRole('button', { name: /^Kind:|Put aside/ })).toHaveCount(0);
    await asked.getByRole('textbox', { name: 'Write an answer' }).fill('A second source.');
    await asked.getByRole('button', { name: 'Send the answer' }).click();
    await expect(asked.getByRole('list', { name: 'Answers' })).toContainText('A second source.');
    await saved(teacher);
  });
});
