import { readFileSync } from 'node:fs';
import { enter, expect, TEACHER, test } from './school.ts';

const STUDENT = 'Chidi Umeh';
const essay = readFileSync(new URL('../demo/documents/hoku-kalani.docx', import.meta.url));
const DOCX = 'application/vnd.openxmlformats-officedocument.wordprocessingml.document';

test.use({ school: 'hand-in' });

test('a student hands in; what cannot be read is refused with a sentence', async ({ browser, server }) => {
  const student = await enter(browser, server, STUDENT);
  const choose = (name: string, buffer: Buffer) =>
    student.locator('input[type=file]').setInputFiles({ name, mimeType: DOCX, buffer });

  await choose('essay.docx', Buffer.from('not a document'));
  await expect(student.getByRole('alert')).toContainText('is not a Word document');
  await choose('essay.docx', Buffer.alloc(0));
  await expect(student.getByRole('alert')).toContainText('is empty');
  await choose('essay.docx', Buffer.alloc(26 * 1024 * 1024));
  await expect(student.getByRole('alert')).toContainText('larger than 25 MB');
  await expect(student.getByText('Hand in your work')).toBeVisible();

  await choose('Drei Sände.docx', essay);
  await expect(student.getByText('Drei Sände.docx has been handed in.')).toBeVisible();
  await expect(student.getByText('with your teacher')).toBeVisible();

  const teacher = await enter(browser, server, TEACHER);
  await teacher.getByRole('link', { name: new RegExp(`^${STUDENT}`) }).click();
  await expect(teacher.getByRole('heading', { name: 'Three Kinds of Sand' })).toBeVisible();
});

test('people sign in with name and password, and a wrong one is told', async ({ browser, server }) => {
  const page = await (await browser.newContext()).newPage();
  await page.goto(server.address);
  await page.getByLabel('Name').fill('mirza-hadzic');
  await page.getByLabel('Password').fill('wrong');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('alert')).toContainText('do not belong together');
  await page.getByLabel('Password').fill('shoreline');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('heading', { name: 'Your work' })).toBeVisible();
});
