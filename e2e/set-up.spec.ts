import { readFile } from 'node:fs/promises';
import { test as base, expect, type Browser, type Locator, type Page } from '@playwright/test';
import { pick, ribbonAbout, saved, select, speak, workIn } from './school.ts';
import { Server } from './server.ts';

const test = base.extend<object, { server: Server }>({
  server: [
    async ({ browser: _browser }, use) => {
      const server = await Server.start('set-up', { sample: false });
      await use(server);
      await server.remove();
    },
    { scope: 'worker', timeout: 60_000 },
  ],
});

/** Hands that count what they do: a press, or a field that is filled in. */
function counting(page: Page) {
  let actions = 0;
  return {
    press: (target: Locator): Promise<void> => (actions++, target.click()),
    button: (name: string | RegExp): Promise<void> => (actions++, page.getByRole('button', { name }).click()),
    fill: (label: string, text: string): Promise<void> => (actions++, page.getByLabel(label).fill(text)),
    did: () => void actions++,
    count: () => actions,
  };
}

/** A class of 30. */
const STUDENTS = [
  ...['Amaru Quispe', 'Bronagh Tully', 'Chidi Umeh', 'Dagny Holmqvist', 'Eleni Marathou'],
  ...['Farid Noorzai', 'Giulia Ferrante', 'Hoku Kalani', 'Ines Bettencourt', 'Jomo Wekesa'],
  ...['Kateryna Bilyk', 'Liang Meixiu', 'Mirza Hadžić', 'Nomvula Dlangamandla', 'Oyuna Batbayar'],
  ...['Piotr Wysocki', 'Quyen Truong', 'Rania Haddadin', 'Sione Tuipulotu', 'Thandiwe Moyo'],
  ...['Usha Ramanathan', 'Vahan Petrosyan', 'Wanja Gitau', 'Xochitl Barrera', 'Yusuf Demirkan'],
  ...['Zofia Krol', 'Aroha Ngata', 'Bashir Osman', 'Catrin Pryce', 'Dorji Wangmo'],
];
const PASSWORD = 'seven tides a week';
const LIST = ['Name;Number', ...STUDENTS.map((name, index) => `${name};${100 + index}`)].join('\n');
const essay = (name: string) => new URL(`../demo/documents/${name}.docx`, import.meta.url);

test('from an empty school to the first spoken remark on a real essay, with a class of 30', async ({
  browser,
  server,
}) => {
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  const hands = counting(page);
  const begun = Date.now();

  await test.step('the school', async () => {
    await page.goto(server.address);
    await expect(page.getByText('Nobody is here yet.')).toBeVisible();
    await page.goto(server.setUp);
    await hands.fill('Name of the school', 'Low Water School');
    await hands.fill('Your name', 'Tamsin Adeyemi');
    await hands.fill('Choose a password', PASSWORD);
    await hands.fill('The password once more', PASSWORD);
    await hands.button('Open the school');
    await expect(page.getByText('you sign in as tamsin-adeyemi')).toBeVisible();
    await hands.button('Go on');
  });

  await test.step('a course and its students', async () => {
    await hands.fill('Title of a new course', 'Reading the Shore');
    await hands.button('Make the course');
    await hands.fill('Paste your class list', `${LIST}\n;131`);
    await hands.button('Look at the list');
    await expect(page.getByText('30 students would come in; 1 line cannot.')).toBeVisible();
    await hands.button('Bring in 30 students');
    await expect(page.getByText('30 students:')).toBeVisible();
  });

  await test.step('an assignment, and a work in it', async () => {
    await hands.fill('Title of a new assignment', 'A walk along the shore');
    await hands.button('Make the assignment');
    await hands.button('Open it to students');
    await hands.button('Begin with …');
    await hands.press(page.getByRole('menuitem', { name: 'An essay that argues' }));
    await hands.button('Keep the rubric');
    await expect(page.getByRole('button', { name: 'Keep the rubric' })).toBeHidden();
    hands.did();
    await page.getByLabel('Works of students').setInputFiles([
      {
        name: 'Quispe, Amaru.docx',
        mimeType: 'application/octet-stream',
        buffer: await readFile(essay('amaru-quispe')),
      },
      { name: 'scan 103.docx', mimeType: 'application/octet-stream', buffer: await readFile(essay('dagny-holmqvist')) },
    ]);
    await expect(page.getByRole('combobox', { name: 'Student of Quispe, Amaru.docx' })).toHaveValue('Amaru Quispe');
    await hands.press(page.getByRole('combobox', { name: 'Student of scan 103.docx' }));
    await hands.press(page.getByRole('option', { name: 'Dagny Holmqvist' }));
    await hands.button('Hand in 2 files');
    await expect(page.getByRole('cell', { name: 'handed in' })).toHaveCount(2);
    await hands.press(page.getByRole('link', { name: 'Amaru Quispe' }));
  });

  await test.step('the first remark', async () => {
    await select(page, 'The reason is obvious.');
    hands.did();
    await speak(page, 2);
    hands.did();
    await expect(ribbonAbout(page, 'The reason is obvious.')).toBeVisible();
    await hands.press(page.getByRole('group', { name: 'Claim' }).getByRole('radio', { name: /Secure/ }));
    await expect(page.getByText('4 points so far; 2 of 3 criteria to score')).toBeVisible();
    await saved(page);
  });

  expect(hands.count()).toBeLessThanOrEqual(60);
  expect(Date.now() - begun).toBeLessThan(10 * 60_000);

  await test.step('a student comes in with a printed slip, once', async () => {
    await page.goto(server.address);
    await page.getByRole('link', { name: 'Reading the Shore', exact: true }).click();
    await page.getByRole('link', { name: 'People and join slips (30 not in yet)' }).click();
    await page.getByRole('button', { name: 'Make their join slips' }).click();
    const slip = page.getByRole('listitem').filter({ hasText: 'Amaru Quispe' });
    await expect(slip.getByRole('img')).toBeVisible();
    const code = await slip.locator('.code').innerText();

    const student = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
    await student.goto(`${server.address}/join`);
    await student.getByLabel('The code on your slip').fill(code.toUpperCase().replaceAll('-', ' '));
    await student.getByRole('button', { name: 'Go on' }).click();
    await expect(student.getByText('This is for Amaru Quispe.')).toBeVisible();
    await student.getByLabel('Choose a password').fill('short');
    await expect(student.getByText('At least 8 characters')).toBeVisible();
    await student.getByLabel('Choose a password').fill(PASSWORD);
    await student.getByLabel('The password once more').fill(PASSWORD);
    await student.getByRole('button', { name: 'Come in' }).click();
    await student.getByRole('button', { name: 'Go on' }).click();
    await expect(workIn(student, 'A walk along the shore').getByText('with your teacher')).toBeVisible();

    const other = await (await browser.newContext()).newPage();
    await other.goto(`${server.address}/join/${code}`);
    await expect(other.getByRole('alert')).toContainText('Somebody has come in with this code already.');
  });
});

/** Signs in as the first teacher, who opens the school where nobody has. */
async function asTeacher(browser: Browser, { address, setUp }: Server): Promise<Page> {
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  const body = {
    code: setUp.split('/').at(-1),
    school: 'Low Water School',
    name: 'Tamsin Adeyemi',
    password: PASSWORD,
  };
  await page.request.post(`${address}/api/school`, { data: body });
  await page.goto(`${address}/sign-in`);
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await page.getByText('One moment').waitFor({ state: 'hidden' });
  const name = page.getByLabel('Name');
  if (await name.isVisible()) {
    await name.fill('tamsin-adeyemi');
    await page.getByLabel('Password').fill(PASSWORD);
    await page.getByRole('button', { name: 'Sign in' }).click();
  }
  await expect(page.getByLabel('Title of a new course')).toBeVisible();
  return page;
}

test('a list is corrected before it comes in, and taken back; a student is called something else', async ({
  browser,
  server,
}) => {
  const page = await asTeacher(browser, server);
  await page.getByLabel('Title of a new course').fill('Tides');
  await page.getByRole('button', { name: 'Make the course' }).click();
  await page.getByRole('link', { name: 'People and join slips' }).click();

  // The page of the course, which is still open for a moment, takes a list too.
  await expect(page.getByRole('heading', { name: 'People of Tides' })).toBeVisible();
  await page.getByLabel('A class list as a file').setInputFiles({
    ...{ name: 'class.csv', mimeType: 'text/csv' },
    buffer: Buffer.from('Karim;Zo\u00eb\r\nOsei;Ren\u00e9', 'latin1'),
  });
  await expect(page.getByRole('cell', { name: 'Karim Zoë' })).toBeVisible();
  await page.getByLabel('The names are the other way round').check();
  await expect(page.getByRole('cell', { name: 'Zoë Karim' })).toBeVisible();
  await page.getByRole('button', { name: 'Bring in 2 students' }).click();
  await expect(page.getByText('2 students came in.')).toBeVisible();
  await page.getByRole('button', { name: 'Take it back' }).click();
  await expect(page.getByRole('rowheader')).toHaveCount(0);

  await page.getByLabel('Paste your class list').fill('Zoe Karim');
  await page.getByRole('button', { name: 'Look at the list' }).click();
  await page.getByRole('button', { name: 'Bring in 1 student' }).click();
  await page.getByRole('button', { name: 'Correct Zoe Karim' }).click();
  await page.getByLabel('Name of Zoe Karim').fill('Zoë Karim');
  await page.getByLabel('Name of Zoe Karim').press('Enter');
  await expect(page.getByRole('rowheader', { name: 'Zoë Karim' })).toBeVisible();

  await page.reload();
  await page.getByLabel('Paste your class list').fill('Zoë K.');
  await page.getByRole('button', { name: 'Look at the list' }).click();
  await page.getByRole('button', { name: 'Bring in 1 student' }).click();
  await page.getByRole('button', { name: 'Zoë K. was entered twice' }).click();
  const merging = page.getByRole('form', { name: 'Zoë K. was entered twice' });
  await pick(merging, 'The entry that stays', 'Zoë Karim (signs in as zoe-karim)');
  await expect(merging).toContainText('Nobody can sign in as zoe-k any more.');
  await merging.getByRole('button', { name: 'Make them one' }).click();
  await expect(page.getByText('Zoë Karim is there once now')).toBeVisible();
  await expect(page.getByRole('rowheader')).toHaveCount(1);
});

test('questions are written, put in order, and answered by a student who came with the code of the course', async ({
  browser,
  server,
}) => {
  const page = await asTeacher(browser, server);
  await page.getByLabel('Title of a new course').fill('Arithmetic of tides');
  await page.getByRole('button', { name: 'Make the course' }).click();
  await page.getByRole('link', { name: 'People and join slips' }).click();
  await page.getByRole('button', { name: 'Make one' }).click();
  const address = await page.locator('strong', { hasText: '/join/' }).innerText();

  await page.getByRole('link', { name: 'Arithmetic of tides' }).last().click();
  await page.getByLabel('Title of a new assignment').fill('Ebb and flood');
  await page.getByRole('button', { name: 'Make the assignment' }).click();
  await page.getByRole('button', { name: 'Add a question' }).click();
  await page.getByLabel('Text of question 1').fill('How high is the tide at noon?');
  await page.getByLabel('Points of question 1').fill('two');
  await page.getByRole('button', { name: 'Save the questions' }).click();
  await expect(page.getByText('Question 1: Points are a number')).toBeVisible();
  await page.getByLabel('Points of question 1').fill('2,5');
  await page.getByRole('button', { name: 'Add a question' }).click();
  await page.getByLabel('Text of question 2').fill('Which way does the water run?');
  await page.getByRole('button', { name: 'Move question 2 up' }).click();
  await page.getByTitle('Drag to another place').nth(1).dragTo(page.getByTitle('Drag to another place').first());
  await expect(page.getByLabel('Text of question 1')).toHaveValue('How high is the tide at noon?');
  await page
    .getByTitle('Drag to another place')
    .first()
    .dragTo(page.locator('.questions li').nth(1), { steps: 20, targetPosition: { x: 300, y: 80 } });
  await expect(page.getByLabel('Text of question 2')).toHaveValue('How high is the tide at noon?');
  await page.getByRole('button', { name: 'Save the questions' }).click();
  await expect(page.getByRole('button', { name: 'Save the questions' })).toBeHidden();
  await page.getByLabel('Files to hand out').setInputFiles({
    ...{ name: 'Tide table.csv', mimeType: 'text/csv', buffer: Buffer.from('time,height\n12:00,\n') },
  });
  await expect(page.getByRole('link', { name: 'Tide table.csv' })).toBeVisible();
  await page.getByRole('button', { name: 'Take Tide table.csv away' }).click();
  await page.getByRole('button', { name: 'Bring it back' }).click();
  await page.getByRole('button', { name: 'Open it to students' }).click();
  await expect(page.getByText('Students see this and can hand in.')).toBeVisible();

  const student = await (await browser.newContext()).newPage();
  await student.goto(address);
  await student.getByLabel('Your name, as your teacher knows it').fill('Eleni Marathou');
  await student.getByLabel('Choose a password').fill(PASSWORD);
  await student.getByLabel('The password once more').fill(PASSWORD);
  await student.getByRole('button', { name: 'Come in' }).click();
  await student.getByRole('button', { name: 'Go on' }).click();
  const work = workIn(student, 'Ebb and flood');
  await expect(work.getByRole('group').first()).toContainText('Which way does the water run?');
  await expect(work.getByRole('group').nth(1)).toContainText('Question 2, 2.5 points');
  const handedOut = student.waitForEvent('download');
  await work.getByRole('link', { name: 'Tide table.csv' }).click();
  expect(await readFile(await (await handedOut).path(), 'utf8')).toBe('time,height\n12:00,\n');
});

test('a rubric is pasted from a spreadsheet, mended, undone, kept, and saved as a file', async ({
  browser,
  server,
}) => {
  const page = await asTeacher(browser, server);
  await page.getByLabel('Title of a new course').fill('Harbours');
  await page.getByRole('button', { name: 'Make the course' }).click();
  await page.getByLabel('Title of a new assignment').fill('A letter');
  await page.getByRole('button', { name: 'Make the assignment' }).click();
  await page.getByRole('button', { name: 'Paste a table' }).click();
  await page.getByLabel('Paste from a spreadsheet').fill('\tWeak (1)\tStrong (7,5)\nClaim\tNone\tOne');
  await page.getByRole('button', { name: 'Take it in' }).click();
  await expect(page.getByLabel('Points of level 2 of criterion 1')).toHaveValue('7.5');
  await page.getByRole('button', { name: 'Duplicate criterion 1' }).click();
  await expect(page.getByRole('heading', { name: 'Rubric 15 points' })).toBeVisible();
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Rubric 7.5 points' })).toBeVisible();
  await page.getByLabel('Points of level 1 of criterion 1').fill('101 of 100');
  await page.getByRole('button', { name: 'Keep the rubric' }).click();
  await expect(page.getByText('“Claim”, “Weak”: points are a number')).toBeVisible();
  await page.getByLabel('Points of level 1 of criterion 1').fill('2');
  await page.getByRole('button', { name: 'Keep the rubric' }).click();
  await expect(page.getByRole('button', { name: 'Keep the rubric' })).toBeHidden();
  await page.reload();
  await expect(page.getByLabel('Points of level 1 of criterion 1')).toHaveValue('2');
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as CSV' }).click();
  const file = await download;
  expect(file.suggestedFilename()).toBe('A letter.csv');
  expect(await readFile(await file.path(), 'utf8')).toContain('Claim,,Strong,One,7.5');
});
