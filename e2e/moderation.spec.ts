import { enter, expect, openCourse, saved, TEACHER, test } from './school.ts';

test.use({ school: 'moderation' });

const ASSIGNMENT = 'A letter that was never sent';

test('a colleague marks a work again without seeing anything of it, and both settle where they differ', async ({
  browser,
  server,
}) => {
  const first = await enter(browser, server, TEACHER);
  await openCourse(first, 'Letters from the Tideline');
  await first.getByRole('link', { name: ASSIGNMENT }).first().click();
  await first.getByRole('link', { name: 'Second marking', exact: true }).click();
  await first.getByLabel('By chance').fill('1');
  await first.getByLabel('Highest and lowest').fill('0');
  await first.getByLabel('Highest and lowest').blur();
  await first.getByRole('button', { name: 'Choose works' }).click();
  const student = await first
    .getByRole('checkbox')
    .first()
    .evaluate((box) => box.closest('li')!.textContent.trim());
  await first.getByRole('button', { name: 'Ask Ruari Castellane to mark 1 work' }).click();
  await expect(first.getByText('Ruari Castellane has scored 0 of 1.')).toBeVisible();

  const second = await enter(browser, server, 'Ruari Castellane');
  const listed = second.getByRole('link', { name: new RegExp(`^Second marking: ${ASSIGNMENT}`) });
  await expect(listed.first()).toBeVisible();
  // What was given is not to be found the other way round.
  await openCourse(second, 'Letters from the Tideline');
  await second.getByRole('link', { name: ASSIGNMENT }).first().click();
  const name = /^\D+/u.exec(student)![0].trim();
  await second.getByRole('link', { name, exact: true }).click();
  await expect(second.getByText('You are marking this work a second time.')).toBeVisible();

  await second.goto(server.address);
  await listed.first().click();
  await second.getByRole('link', { name: 'Hand it over when you are done' }).click();
  await second.getByRole('button', { name: 'Hand it over' }).click();
  await expect(second.getByRole('alert')).toContainText('One work has criteria without a score.');
  await second.getByRole('link', { name: 'Begin at the desk' }).click();
  await expect(second.getByRole('article')).toBeVisible();
  await expect(second.getByText(/^Student [0-9A-F]{4}$/u).first()).toBeVisible();
  await expect(second.getByRole('button', { name: 'Return', exact: true })).toBeHidden();
  for (const criterion of ['Observation', 'Evidence', 'Line of thought'])
    await second.getByRole('group', { name: criterion }).getByRole('radio').last().click();
  await saved(second);
  await second.getByRole('link', { name: 'Hand over' }).click();
  await expect(second.getByText('1 of 1 are scored.')).toBeVisible();
  await second.getByRole('button', { name: 'Hand it over' }).click();
  await expect(second.getByRole('heading', { name: 'How far both agree' })).toBeVisible();

  await first.reload();
  await first.getByRole('button', { name: new RegExp(`^${name}`) }).click();
  await expect(first.getByRole('heading', { name: 'Ruari Castellane' })).toBeVisible();
  await first.getByRole('button', { name: 'Settle' }).click();
  await expect(first.getByRole('alert')).toBeVisible();
  await first.getByRole('button', { name: 'All as the second marker' }).click();
  await first.getByLabel('Why').fill('We read it together.');
  await first.getByRole('button', { name: 'Settle' }).click();
  await expect(first.getByText('Settled.', { exact: true })).toBeVisible();
  await expect(first.getByRole('button', { name: new RegExp(`^${name}.*settled`) })).toBeVisible();
});
