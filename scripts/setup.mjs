/* What every command needs before it can run: packages, a browser, a built app. Node alone, since nothing is installed yet. */
import { execFileSync, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

export const ROOT = fileURLToPath(new URL('..', import.meta.url));
const INSTALLED = path.join(ROOT, 'node_modules', '.vivid-installed');
const POSTGRES = '/usr/lib/postgresql';
const BROWSERS = ['/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome'];

const say = (text) => process.stderr.write(`${text}\n`);

/** Runs a program and gives up with its exit code if it fails. Its output goes to standard error. */
export function run(program, args, options = {}) {
  const { status } = spawnSync(program, args, { cwd: ROOT, stdio: ['inherit', 2, 2], ...options });
  if (status !== 0) process.exit(status ?? 1);
}

/** Installs the packages of package-lock.json unless exactly these are installed. */
export function ensurePackages() {
  const wanted = createHash('sha256')
    .update(readFileSync(path.join(ROOT, 'package-lock.json')))
    .digest('hex');
  if (existsSync(INSTALLED) && readFileSync(INSTALLED, 'utf8') === wanted) return;
  say('Installing packages (once; about a minute) …');
  run('npm', ['ci', '--no-fund', '--no-audit', '--loglevel=error']);
  writeFileSync(INSTALLED, wanted);
}

/** What is built: from what, the file that shows when, and how. */
const BUILDS = {
  web: { from: ['web', 'core', 'contract', 'vite.config.ts'], file: 'dist/web/index.html', config: 'vite.config.ts' },
  server: {
    from: ['server', 'cli', 'demo', 'core', 'contract', 'vite.server.config.ts'],
    file: 'dist/server/vivid.js',
    config: 'vite.server.config.ts',
  },
};

/** Builds the app and its server unless the builds are newer than everything they are made from. */
export function ensureBuilt(...names) {
  for (const name of names) ensureOne(BUILDS[name]);
}

function ensureOne({ from, file, config }) {
  const built = path.join(ROOT, file);
  const sources = [...from, 'package-lock.json'].map((name) => path.join(ROOT, name));
  if (existsSync(built) && Math.max(...sources.map(newest)) < statSync(built).mtimeMs) return;
  say('Building …');
  run(process.execPath, ['node_modules/vite/bin/vite.js', 'build', '--config', config, '--logLevel', 'warn']);
}

function newest(file) {
  const { mtimeMs } = statSync(file);
  if (!statSync(file).isDirectory()) return mtimeMs;
  return Math.max(mtimeMs, ...readdirSync(file).map((name) => newest(path.join(file, name))));
}

/** Finds a Chromium, or installs Debian's; answers its path. */
export function ensureBrowser() {
  const find = () => [process.env.CHROMIUM, ...BROWSERS].find((file) => file && existsSync(file));
  if (!find()) install('Chromium for the browser tests', ['chromium']);
  return find() ?? fail();
}

/** What the tests listen and translate with, and a voice for it; `npm test` installs them where Debian's packages can be had. */
export function ensureSpeech() {
  const wanted = [
    '/usr/bin/pocketsphinx_batch',
    '/usr/share/pocketsphinx/model/en-us',
    '/usr/share/pocketsphinx/test/data',
    '/usr/bin/flite',
    '/usr/share/apertium/modes/eng-spa.mode',
  ];
  if (wanted.every((file) => existsSync(file))) return;
  const packages = ['pocketsphinx', 'pocketsphinx-en-us', 'flite', 'apertium-eng-spa', 'pocketsphinx-testdata'];
  install('PocketSphinx and Apertium for the tests of dictation and translation', packages);
}

/** What the tests look at marked files with, as a PDF reader would show them, and what reads scanned pages. */
export function ensurePoppler() {
  if (['/usr/bin/pdftoppm', '/usr/bin/tesseract'].every((file) => existsSync(file))) return;
  install('Poppler and Tesseract for the tests of marked files and scanned pages', ['poppler-utils', 'tesseract-ocr']);
}

/** A PostgreSQL server's programs, so that the data tests run on both bodies; the tests start a server of their own. */
export function ensurePostgres() {
  const found = existsSync(POSTGRES)
    ? readdirSync(POSTGRES).some((version) => existsSync(path.join(POSTGRES, version, 'bin', 'initdb')))
    : false;
  if (!found) install('PostgreSQL for the tests of the data', ['postgresql']);
}

function install(what, packages) {
  say(`Installing ${what} …`);
  const asRoot = process.getuid?.() === 0 ? [] : ['sudo'];
  const apt = ([program, ...args]) =>
    execFileSync(program, args, {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
  try {
    apt([...asRoot, 'apt-get', 'update', '-qq']);
    apt([...asRoot, 'apt-get', 'install', '-y', '-qq', '--no-install-recommends', ...packages]);
  } catch {
    fail();
  }
}

function fail() {
  say(
    'A package for the tests could not be installed. Install chromium (or name one in the variable CHROMIUM), pocketsphinx, pocketsphinx-en-us, flite, apertium-eng-spa, pocketsphinx-testdata, poppler-utils and postgresql.',
  );
  process.exit(1);
}
