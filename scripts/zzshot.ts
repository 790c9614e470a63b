import { chromium } from '@playwright/test';
import config from '../playwright.config.ts';
import { enter, TEACHER, openCourse } from '../e2e/school.ts';
import { Server } from '../e2e/server.ts';
const server = await Server.start('shot');
const browser = await chromium.launch(config.use!.launchOptions);
try {
  const page = await enter(browser, server, TEACHER);
  await openCourse(page, 'Letters from the Tideline');
  await page.getByRole('link', { name: 'A letter that was never sent' }).first().click();
  await page.screenshot({ path: '/tmp/m1.png' });
  await page.getByRole('link', { name: 'Second marking', exact: true }).click();
  await page.getByRole('button', { name: 'Choose works' }).click();
  await page.getByRole('button', { name: /^Ask Ruari/ }).click();
  await page.getByText('Call it off').waitFor();
  const second = await enter(browser, server, 'Ruari Castellane');
  await second.getByText(/^Second marking/).first().waitFor();
  await second.screenshot({ path: '/tmp/m2.png' });
  await second.getByRole('link', { name: /^Second marking/ }).first().click();
  await second.getByRole('link', { name: /^Hand it over/ }).click();
  await second.getByRole('link', { name: /at the desk/ }).waitFor();
  await second.screenshot({ path: '/tmp/m3.png' });
  await second.getByRole('link', { name: /at the desk/ }).click();
  await second.getByRole('article').waitFor();
  await second.waitForTimeout(500);
  await second.screenshot({ path: '/tmp/m4.png' });
} finally {
  await browser.close();
  await server.remove();
}
