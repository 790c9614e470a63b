/* What every command needs before it can run: packages, a browser, a built app. Node alone, since nothing is installed yet. */
import { execFileSync, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

export const ROOT = fileURLToPath(new URL('..', import.meta.url));
const INSTALLED = path.join(ROOT, 'node_modules', '.vivid-installed');
const BUILT = path.join(ROOT, 'dist', 'web', 'index.html');
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

/** Builds the app unless the build is newer than everything it is made from. */
export function ensureBuilt() {
  const sources = ['web', 'core', 'contract', 'package-lock.json', 'vite.config.ts'].map((name) =>
    path.join(ROOT, name),
  );
  if (existsSync(BUILT) && Math.max(...sources.map(newest)) < statSync(BUILT).mtimeMs) return;
  say('Building the app …');
  run('npx', ['--no-install', 'vite', 'build', '--logLevel', 'warn']);
}

function newest(file) {
  const { mtimeMs } = statSync(file);
  if (!statSync(file).isDirectory()) return mtimeMs;
  return Math.max(mtimeMs, ...readdirSync(file).map((name) => newest(path.join(file, name))));
}

/** Finds a Chromium, or installs Debian's; answers its path. */
export function ensureBrowser() {
  const found = [process.env.CHROMIUM, ...BROWSERS].find((file) => file && existsSync(file));
  if (found) return found;
  say('Installing Chromium for the browser tests …');
  const asRoot = process.getuid?.() === 0 ? [] : ['sudo'];
  apt([...asRoot, 'apt-get', 'update', '-qq']);
  apt([...asRoot, 'apt-get', 'install', '-y', '-qq', '--no-install-recommends', 'chromium']);
  return BROWSERS.find((file) => existsSync(file)) ?? fail();
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
  say('Installing PocketSphinx and Apertium for the tests of dictation and translation …');
  const asRoot = process.getuid?.() === 0 ? [] : ['sudo'];
  apt([...asRoot, 'apt-get', 'update', '-qq']);
  const packages = ['pocketsphinx', 'pocketsphinx-en-us', 'flite', 'apertium-eng-spa', 'pocketsphinx-testdata'];
  apt([...asRoot, 'apt-get', 'install', '-y', '-qq', '--no-install-recommends', ...packages]);
}

function apt([program, ...args]) {
  mkdirSync(path.join(ROOT, '.cache'), { recursive: true });
  try {
    execFileSync(program, args, {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
  } catch {
    fail();
  }
}

function fail() {
  say(
    'A package for the tests could not be installed. Install chromium (or name one in the variable CHROMIUM), pocketsphinx, pocketsphinx-en-us, flite, apertium-eng-spa and pocketsphinx-testdata.',
  );
  process.exit(1);
}
