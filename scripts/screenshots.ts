/* Makes docs/screenshots from the sample school, at 1280 × 800. */
import { chromium, type Page } from '@playwright/test';
import { fileURLToPath } from 'node:url';
import { enter, openDesk, TEACHER } from '../e2e/school.ts';
import { Server } from '../e2e/server.ts';
import config from '../playwright.config.ts';

const FOLDER = fileURLToPath(new URL('../docs/screenshots/', import.meta.url));

const server = await Server.start('screenshots');
const browser = await chromium.launch(config.use!.launchOptions);

/** Lets fonts come and ribbons glide to their places. */
async function picture(page: Page, name: string): Promise<void> {
  await page.mouse.move(640, 790);
  await page.waitForTimeout(800);
  await page.screenshot({ path: `${FOLDER}${name}.png` });
}

const teacher = await enter(browser, server, TEACHER);
await picture(teacher, 'to-mark');
await openDesk(teacher, 'Dagny Holmqvist');
await teacher.locator('mark', { hasText: 'hiss' }).first().click();
await picture(teacher, 'desk');

const student = await enter(browser, server, 'Amaru Quispe');
await student.getByRole('link', { name: 'Open your feedback' }).click();
await student.locator('mark').first().click();
await picture(student, 'returned');

await browser.close();
await server.remove();
