/* Makes the essays of the sample school as real Word documents, once: needs LibreOffice (`libreoffice-writer-nogui`) and Chromium. */
import { chromium } from '@playwright/test';
import { execFileSync } from 'node:child_process';
import { cpSync, mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const ESSAYS = fileURLToPath(new URL('../essays', import.meta.url));
const DOCUMENTS = fileURLToPath(new URL('../documents', import.meta.url));

const RIPPLE = `<body style="margin:0;background:#fff"><svg xmlns="http://www.w3.org/2000/svg" width="840" height="360">
  <g fill="none" stroke="#444" stroke-width="4" stroke-linecap="round">
    <path d="M40 250 C 160 240 240 160 300 150 C 330 150 340 230 370 250 C 480 240 560 160 620 150 C 650 150 660 230 690 250 L 800 246"/>
    <path d="M60 70 H 300 m -24 -14 l 24 14 l -24 14"/><path stroke-dasharray="2 12" d="M40 300 H 800"/></g>
  <g font-family="serif" font-size="26" fill="#444"><text x="60" y="50">current</text><text x="150" y="290">gentle</text><text x="340" y="290">steep</text></g></svg></body>`;

const work = mkdtempSync(path.join(tmpdir(), 'essays-'));
cpSync(ESSAYS, work, { recursive: true });

const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
const page = await browser.newPage({ viewport: { width: 840, height: 360 } });
await page.setContent(RIPPLE);
const ripple = (await page.screenshot()).toString('base64');
await browser.close();

// As a data address the picture is put into the document instead of being linked.
const sketched = path.join(work, 'kateryna-bilyk.html');
writeFileSync(sketched, readFileSync(sketched, 'utf8').replace('ripple.png', `data:image/png;base64,${ripple}`));

const pages = readdirSync(work).filter((name) => name.endsWith('.html'));
execFileSync('soffice', ['--headless', '--infilter=HTML (StarWriter)', '--convert-to', 'odt:writer8', ...pages], {
  cwd: work,
  stdio: 'inherit',
});
execFileSync(
  'soffice',
  ['--headless', '--convert-to', 'docx:Office Open XML Text', ...pages.map((name) => name.replace('.html', '.odt'))],
  {
    cwd: work,
    stdio: 'inherit',
  },
);
for (const name of readdirSync(work).filter((file) => file.endsWith('.docx')))
  cpSync(path.join(work, name), path.join(DOCUMENTS, name));
rmSync(work, { recursive: true });
