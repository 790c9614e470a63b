import { chromium } from '@playwright/test';
import config from '../playwright.config.ts';
import { enter, TEACHER } from '../e2e/school.ts';
import { Server } from '../e2e/server.ts';
const server = await Server.start('shot');
const browser = await chromium.launch(config.use!.launchOptions);
try {
  const page = await enter(browser, server, TEACHER);
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto(server.address + '/');
  await page.getByRole('link', { name: /The last letters|letter/i }).first().waitFor();
  const courses = await (await page.request.get(server.address + '/api/courses')).json();
  const course = courses.find((c: {title: string}) => c.title.startsWith('Letters'));
  const full = await (await page.request.get(server.address + '/api/courses/' + course.id)).json();
  let found = '';
  for (const a of full.assignments) {
    const m = await (await page.request.get(server.address + `/api/assignments/${a.id}/moderations`)).json();
    if (m.moderations?.length) found = a.id;
  }
  await page.goto(server.address + `/assignments/${found}/second-marking`);
  await page.getByRole('button', { name: 'Choose works' }).click();
  await page.getByRole('button', { name: /^Ask Ruari/ }).waitFor();
  await page.screenshot({ path: '/tmp/m1.png' });
  await page.getByRole('link', { name: /8 works with/ }).click();
  await page.getByText('How far both agree').waitFor();
  await page.getByRole('button', { name: /differ$/ }).first().click();
  await page.getByRole('button', { name: /^Play/ }).first().waitFor({ timeout: 10000 }).catch(() => undefined);
  await page.waitForTimeout(600);
  await page.screenshot({ path: '/tmp/m2.png', fullPage: true });
} finally {
  await browser.close();
  await server.remove();
}
