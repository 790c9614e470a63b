import { readFileSync } from 'node:fs';
import { enter, expect, TEACHER, test, workIn } from './school.ts';

const STUDENT = 'Chidi Umeh';
const essay = readFileSync(new URL('../demo/documents/hoku-kalani.docx', import.meta.url));
const DOCX = 'application/vnd.openxmlformats-officedocument.wordprocessingml.document';

test.use({ school: 'hand-in' });

test('a student hands in; what cannot be read is refused with a sentence', async ({ browser, server }) => {
  const student = await enter(browser, server, STUDENT);
  const work = workIn(student, 'A walk along the shore');
  const choose = (name: string, buffer: Buffer) =>
    work.locator('input[type=file]').setInputFiles({ name, mimeType: DOCX, buffer });
  const send = () => work.getByRole('button', { name: 'Hand in', exact: true }).click();
  const leaveOut = (name: string) => work.getByRole('button', { name: `Leave out ${name}` }).click();

  await choose('essay.docx', Buffer.from('not a document'));
  await send();
  await expect(work.getByRole('alert')).toContainText('inside it is plain text');
  await leaveOut('essay.docx');
  await choose('essay.docx', Buffer.alloc(0));
  await send();
  await expect(work.getByRole('alert')).toContainText('is empty');
  await leaveOut('essay.docx');
  await choose('essay.docx', Buffer.alloc(26 * 1024 * 1024));
  await send();
  await expect(work.getByRole('alert')).toContainText('larger than 25 MB');
  await leaveOut('essay.docx');
  await expect(work.getByText('Choose your files')).toBeVisible();

  await choose('Drei Sände.docx', essay);
  await choose('notes.txt', Buffer.from('What I could not find out on the shore.'));
  await send();
  await expect(work.getByText('Drei Sände.docx and 1 more have been handed in.')).toBeVisible();
  await expect(work.getByText('with your teacher')).toBeVisible();

  const teacher = await enter(browser, server, TEACHER);
  await teacher.getByRole('link', { name: new RegExp(`^${STUDENT} ?A walk`) }).click();
  await expect(teacher.getByRole('heading', { name: 'Three Kinds of Sand' })).toBeVisible();
  await expect(teacher.getByText('What I could not find out')).toBeVisible();

  await work.getByRole('button', { name: 'Withdraw' }).click();
  await expect(work.getByRole('alert')).toContainText('already opened');
});

test('people sign in with name and password, and a wrong one is told', async ({ browser, server }) => {
  const page = await (await browser.newContext()).newPage();
  await page.goto(server.address);
  await page.getByLabel('Name').fill('mirza-hadzic');
  await page.getByLabel('Password').fill('wrong');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('alert')).toContainText('do not match');
  await page.getByLabel('Password').fill('shoreline');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('heading', { name: 'Your work' })).toBeVisible();
});
