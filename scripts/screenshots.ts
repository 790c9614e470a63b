/* Makes docs/screenshots from the sample school, at 1280 × 800. */
import { chromium, type Page } from '@playwright/test';
import { fileURLToPath } from 'node:url';
import { enter, openDesk, ribbonAbout, TEACHER, workIn } from '../e2e/school.ts';
import { Server } from '../e2e/server.ts';
import config from '../playwright.config.ts';

const FOLDER = fileURLToPath(new URL('../docs/screenshots/', import.meta.url));

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
await desk(teacher, 'Dagny Holmqvist');
await teacher.locator('mark', { hasText: 'hiss' }).first().click();
await picture(teacher, 'desk');

await desk(teacher, 'Sione Tuipulotu');
await teacher.locator('mark').first().click();
await picture(teacher, 'desk-pdf');

await desk(teacher, 'Mirza Hadžić');
await teacher.locator('.box').first().click();
await picture(teacher, 'desk-slides');

await desk(teacher, 'Oyuna Batbayar');
await teacher.locator('.box').first().click();
await picture(teacher, 'desk-picture');

await desk(teacher, 'Dorji Wangmo');
await picture(teacher, 'desk-recording');

await desk(teacher, 'Giulia Ferrante');
await picture(teacher, 'desk-answers');

await desk(teacher, 'Bronagh Tully');
const changed = ribbonAbout(teacher, 'It does not explain the lower ones');
await changed.scrollIntoViewIfNeeded();
await changed.getByRole('button', { name: 'Show what changed' }).click();
await picture(teacher, 'desk-second-version');

const student = await enter(browser, server, 'Amaru Quispe');
await picture(student, 'own-work');
await workIn(student, 'A walk along the shore').getByRole('link', { name: 'Open your feedback' }).click();
await student.locator('mark').first().click();
await picture(student, 'returned');

await browser.close();
await server.remove();
