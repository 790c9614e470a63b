import { chromium } from '@playwright/test';
import config from '../playwright.config.ts';
import { Server } from '../e2e/server.ts';
const server = await Server.start('shot');
const browser = await chromium.launch(config.use!.launchOptions);
const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
page.on('console', (m) => { if (m.type() === 'error' || m.type() === 'warning') console.log('console', m.text().slice(0, 300)); });
page.on('pageerror', (e) => console.log('pageerror', e.message));
await page.addInitScript(() => localStorage.setItem('microphone-checked', 'true'));
await page.goto(`${server.address}/sign-in`);
await page.getByRole('button', { name: 'Tamsin Adeyemi', exact: true }).click();
await page.getByRole('heading', { level: 1 }).waitFor();
try { await (await import(process.argv[2]!)).default(page, server); } catch (e) { console.log(String(e).slice(0, 800)); await page.screenshot({ path: '/tmp/fail.png' }); }
await browser.close(); await server.stop();
