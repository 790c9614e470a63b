/* Makes docs/screenshots from the sample school, at 1280 × 800. */
import { chromium, type Page } from '@playwright/test';
import { fileURLToPath } from 'node:url';
import { enter, openDesk, pick, pickFromMenu, ribbonAbout, select, TEACHER, workIn } from '../e2e/school.ts';
import { Server } from '../e2e/server.ts';
import config from '../playwright.config.ts';

const FOLDER = fileURLToPath(new URL('../docs/screenshots/', import.meta.url));

const COLLEAGUES_TABLE = `name,text,tags,kind
Read it aloud,"Read this aloud once, and listen where you stumble.",read aloud; rhythm,next
Draw it first,Draw what you saw before you write about it.,sketch,next
Nothing in it,,,
Two readers,"Give it to two readers, and ask each what it says.",draft,question
A kind of their own,Say it to the gulls.,,GULL
`;

const server = await Server.start('screenshots');
const browser = await chromium.launch(config.use!.launchOptions);

/** Lets fonts come, pages be drawn and ribbons glide to their places. */
async function picture(page: Page, name: string): Promise<void> {
  await page.mouse.move(640, 790);
  await page.waitForTimeout(1500);
  await page.screenshot({ path: `${FOLDER}${name}.png` });
}

async function desk(page: Page, student: string): Promise<void> {
  await page.goto(server.address);
  await openDesk(page, student);
}

const teacher = await enter(browser, server, TEACHER);
await picture(teacher, 'to-mark');
await teacher.getByRole('link', { name: 'Reading the Shore', exact: true }).click();
await teacher.getByRole('heading', { name: 'The class' }).waitFor();
await picture(teacher, 'course');
await desk(teacher, 'Dagny Holmqvist');
await teacher.locator('mark', { hasText: 'hiss' }).first().click();
await picture(teacher, 'desk');

await teacher.locator('mark', { hasText: 'hardly any sand' }).click();
await picture(teacher, 'desk-all-kinds');
await teacher.getByRole('article').focus();
await select(teacher, 'Mrs Anstey, who lives there');
await teacher.keyboard.down('Space');
await teacher.waitForTimeout(6000);
await teacher.screenshot({ path: `${FOLDER}desk-speaking.png` });
await teacher.keyboard.up('Space');
await ribbonAbout(teacher, 'Mrs Anstey').waitFor();
await teacher.waitForTimeout(1500);
await teacher.keyboard.press('e');
await picture(teacher, 'desk-cutting');
// Listening takes much of a small machine, so only this picture is from a server that does.
const listening = await Server.start('screenshots-listening', { dictation: true });
const settings = await enter(browser, listening, TEACHER);
await settings.getByRole('button', { name: TEACHER }).click();
await settings.getByRole('menuitem', { name: 'Voice and words' }).click();
await picture(settings, 'speech-settings');
await listening.remove();
await teacher.goto(`${server.address}/search?words=the+reader`);
await teacher.getByRole('article').first().waitFor();
await picture(teacher, 'find-remarks');

await desk(teacher, 'Mirza Hadžić');
await teacher.locator('.box').first().click();
await picture(teacher, 'desk-slides');

await desk(teacher, 'Ines Bettencourt');
await select(teacher, 'Either the chart is wrong or the channel has filled up.');
await teacher.keyboard.press('a');
await teacher.getByRole('list', { name: 'Banked remarks' }).waitFor();
await picture(teacher, 'bank-at-the-desk');
await teacher.goto(`${server.address}/bank`);
await teacher
  .getByRole('button', { name: /How did you do it/ })
  .last()
  .click();
await teacher.getByRole('heading', { name: 'Where you said it' }).waitFor();
await picture(teacher, 'bank');
await teacher.getByLabel('A bank as a file, or a table').setInputFiles({
  name: 'from-a-colleague.csv',
  mimeType: 'text/csv',
  buffer: Buffer.from(COLLEAGUES_TABLE),
});
await teacher.getByText('would come in').waitFor();
await picture(teacher, 'bank-brought-in');
await teacher.getByRole('link', { name: 'Reading the Shore', exact: true }).click();
await teacher.getByLabel('Title of a new assignment').fill('A letter to the harbour board');
await teacher.getByRole('button', { name: 'Make the assignment' }).click();
await teacher.getByRole('button', { name: 'Begin with …' }).click();
await teacher.getByRole('menuitem', { name: 'An essay that argues' }).click();
await teacher.getByRole('heading', { name: /^Rubric/ }).evaluate((heading) => heading.scrollIntoView());
await picture(teacher, 'rubric-editor');
await teacher.getByRole('link', { name: 'Reading the Shore', exact: true }).last().click();
await teacher.getByRole('link', { name: 'Speak a greeting to each' }).click();
await teacher.getByRole('list', { name: 'Names' }).waitFor();
await picture(teacher, 'greetings');

await desk(teacher, 'Giulia Ferrante');
await picture(teacher, 'desk-answers');

await desk(teacher, 'Bronagh Tully');
const changed = ribbonAbout(teacher, 'It does not explain the lower ones');
await changed.scrollIntoViewIfNeeded();
await changed.getByRole('button', { name: 'Show what changed' }).click();
await picture(teacher, 'desk-second-version');

await desk(teacher, 'Eleni Marathou');
await teacher.getByRole('button', { name: 'Other kinds of remark' }).click();
await teacher.getByText('Camera note').click();
await teacher.waitForTimeout(7000);
await teacher.getByRole('button', { name: 'Stop recording' }).click();
const note = ribbonAbout(teacher, 'the whole work');
await note.getByRole('button', { name: /No transcript yet/ }).click();
await note.getByRole('textbox', { name: 'Transcript' }).fill('Look again at your first page. How do you know that?');
await teacher.keyboard.press('Control+Enter');
await note.getByRole('button', { name: 'Languages and captions' }).click();
await pick(note, 'Add words in', 'Arabic');
await note.getByRole('textbox', { name: 'Arabic' }).fill('انظر مرة أخرى إلى صفحتك الأولى. كيف تعرف ذلك؟');
await note.getByRole('textbox', { name: 'Arabic' }).blur();
await teacher.getByText('Saved', { exact: true }).waitFor();
await teacher.getByRole('button', { name: 'Return', exact: true }).click();
await teacher.getByRole('button', { name: 'Return to Eleni Marathou' }).click();
await teacher.getByText('returned', { exact: true }).first().waitFor();
const eleni = await enter(browser, server, 'Eleni Marathou');
await workIn(eleni, 'A walk along the shore').getByRole('link', { name: 'Open your feedback' }).click();
const captioned = ribbonAbout(eleni, 'the whole work');
await pickFromMenu(captioned, 'Words in', 'Arabic');
await captioned.getByRole('button', { name: /^Play/ }).click();
await eleni.waitForTimeout(2500);
await eleni.screenshot({ path: `${FOLDER}returned-with-captions.png` });

const student = await enter(browser, server, 'Amaru Quispe');
await picture(student, 'own-work');
await workIn(student, 'A walk along the shore').getByRole('link', { name: 'Open your feedback' }).click();
await student.locator('mark').first().click();
await picture(student, 'returned');

await browser.close();
await server.remove();
