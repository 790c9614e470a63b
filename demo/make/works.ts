/* Makes the other works of the sample school, once, with ordinary programs: needs LibreOffice, ffmpeg, flite and Chromium. */
import { chromium } from '@playwright/test';
import { execFileSync } from 'node:child_process';
import { cpSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { DRAWINGS } from './drawings.ts';
import { INTERVIEWS } from './interviews.ts';
import { DECK, LONG_DECK, PITCH } from './pitches.ts';
import { flatPresentation } from './slides.ts';

const folder = (name: string): string => fileURLToPath(new URL(name, import.meta.url));
const DOCUMENTS = folder('../documents');
const LONG = folder('../../e2e/fixtures');
const work = mkdtempSync(path.join(tmpdir(), 'works-'));
const at = (name: string): string => path.join(work, name);
const keep = (made: string, as: string): void => cpSync(at(made), path.join(DOCUMENTS, as));
const run = (program: string, ...args: string[]): void =>
  void execFileSync(program, args, { cwd: work, stdio: ['ignore', 'ignore', 'inherit'] });
const office = (to: string, ...args: string[]): void => run('soffice', '--headless', '--convert-to', to, ...args);
const ffmpeg = (...args: string[]): void => run('ffmpeg', '-v', 'error', '-y', ...args);

mkdirSync(LONG, { recursive: true });
await draw();
texts();
slides();
pictures();
tables();
recordings();
rmSync(work, { recursive: true });

async function draw(): Promise<void> {
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
  for (const [name, svg] of Object.entries(DRAWINGS)) {
    const [, width, height] = /width="(\d+)" height="(\d+)"/.exec(svg)!;
    const page = await browser.newPage({ viewport: { width: Number(width), height: Number(height) } });
    await page.setContent(`<body style="margin:0">${svg}</body>`);
    await page.screenshot({ path: at(`${name}.png`) });
  }
  await browser.close();
}

function texts(): void {
  for (const name of ['ferry-times', 'sound-of-mud']) {
    cpSync(folder(`../sources/${name}.html`), at(`${name}.html`));
    office('odt:writer8', '--infilter=HTML (StarWriter)', `${name}.html`);
  }
  office('pdf:writer_pdf_Export:{"ExportBookmarks":{"type":"boolean","value":"false"}}', 'ferry-times.odt');
  keep('ferry-times.pdf', 'sione-tuipulotu.pdf');
  keep('sound-of-mud.odt', 'thandiwe-moyo.odt');
  // Twenty pages, to be timed.
  const page = readFileSync(folder('../sources/ferry-times.html'), 'utf8').replace(
    /^[^]*?<body[^>]*>|<\/body>[^]*$/g,
    '',
  );
  writeFileSync(at('long.html'), `<html><body>${page.repeat(16)}</body></html>`);
  office('odt:writer8', '--infilter=HTML (StarWriter)', 'long.html');
  office('pdf', 'long.odt');
  cpSync(at('long.pdf'), path.join(LONG, 'long.pdf'));
}

function slides(): void {
  const picture = (name: string): string => readFileSync(at(`${name}.png`)).toString('base64');
  const known = { 'mud-tongue': picture('mud-tongue'), 'zoned-rock': picture('zoned-rock') };
  for (const [name, deck] of Object.entries({ pitch: PITCH, deck: DECK, long: LONG_DECK }))
    writeFileSync(at(`${name}.fodp`), flatPresentation(deck, known));
  office('pptx', 'pitch.fodp', 'long.fodp');
  office('odp', 'deck.fodp');
  keep('pitch.pptx', 'mirza-hadzic.pptx');
  keep('deck.odp', 'nomvula-dlangamandla.odp');
  cpSync(at('long.pptx'), path.join(LONG, 'long.pptx'));
}

function pictures(): void {
  keep('zoned-rock.png', 'oyuna-batbayar.png');
  // Held sideways, as a phone does: the picture lies on its side, and EXIF says how to turn it.
  ffmpeg('-i', 'gull-feet.png', '-vf', 'transpose=2', '-q:v', '4', 'sideways.jpg');
  writeFileSync(path.join(DOCUMENTS, 'piotr-wysocki.jpg'), withOrientation(readFileSync(at('sideways.jpg')), 6));
  ffmpeg('-i', 'transect.png', '-quality', '80', 'transect.webp');
  keep('transect.webp', 'quyen-truong.webp');
}

/** EXIF 2.32: an APP1 segment with one entry, the orientation, right behind the start of the image. */
function withOrientation(jpeg: Buffer, orientation: number): Buffer {
  const exif = Buffer.from([
    ...[0xff, 0xe1, 0x00, 0x22, 0x45, 0x78, 0x69, 0x66, 0x00, 0x00],
    ...[0x4d, 0x4d, 0x00, 0x2a, 0x00, 0x00, 0x00, 0x08, 0x00, 0x01],
    ...[0x01, 0x12, 0x00, 0x03, 0x00, 0x00, 0x00, 0x01, 0x00, orientation, 0x00, 0x00, 0x00, 0x00, 0x00, 0x00],
  ]);
  return Buffer.concat([jpeg.subarray(0, 2), exif, jpeg.subarray(2)]);
}

function tables(): void {
  cpSync(folder('../sources/tide-heights.csv'), at('tides.csv'));
  // 44 is the comma, 34 the quotation mark, 76 UTF-8, as LibreOffice counts them.
  office('xlsx:Calc MS Excel 2007 XML', '--infilter=CSV:44,34,76,1', 'tides.csv');
  keep('tides.xlsx', 'yusuf-demirkan.xlsx');
}

function recordings(): void {
  for (const { name, lines } of INTERVIEWS) {
    const parts = lines.map(({ voice, text }, index) => {
      const file = `${name}-${index}.wav`;
      run('flite', '-voice', voice, '-t', text, '-o', file);
      ffmpeg('-i', file, '-ar', '24000', '-ac', '1', '-af', 'apad=pad_dur=0.5', `part-${file}`);
      return `file 'part-${file}'`;
    });
    writeFileSync(at(`${name}.txt`), parts.join('\n'));
    ffmpeg('-f', 'concat', '-i', `${name}.txt`, `${name}-whole.wav`);
  }
  const from = (name: string, to: string, ...codec: string[]): void => {
    ffmpeg('-i', `${name}-whole.wav`, ...codec, '-bitexact', to);
    keep(to, to);
  };
  from('rania-haddadin', 'rania-haddadin.ogg', '-c:a', 'libopus', '-b:a', '24k');
  from('zofia-krol', 'zofia-krol.mp3', '-c:a', 'libmp3lame', '-b:a', '40k');
  from('aroha-ngata', 'aroha-ngata.m4a', '-c:a', 'aac', '-b:a', '40k');
  from('bashir-osman', 'bashir-osman.wav', '-ar', '8000', '-c:a', 'pcm_s16le');
  from('catrin-pryce', 'catrin-pryce.webm', '-c:a', 'libopus', '-b:a', '24k');
  ffmpeg(
    ...['-loop', '1', '-framerate', '5', '-i', 'zoned-rock.png', '-i', 'dorji-wangmo-whole.wav', '-shortest', '-vf'],
    ...["scale=480:-2,zoompan=z='min(zoom+0.004,1.5)':d=1:s=480x342:fps=5", '-c:v', 'libx264', '-pix_fmt', 'yuv420p'],
    ...['-c:a', 'aac', '-b:a', '40k', '-movflags', '+faststart', '-bitexact', 'dorji-wangmo.mp4'],
  );
  keep('dorji-wangmo.mp4', 'dorji-wangmo.mp4');
}
