/* `npm test`: installs what is missing, then format, lint, types, unit tests and browser tests; ends with `N passed, N failed`. */
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import path from 'node:path';
import {
  ensureBrowser,
  ensureBuilt,
  ensurePackages,
  ensurePoppler,
  ensurePostgres,
  ensureSpeech,
  ROOT,
} from './setup.mjs';

const RESULTS = path.join(ROOT, 'test-results');
const MOST_OF_A_PAGE = 6000;
/** Browser tests that missed something, with what the page showed. */
const missed = [];
const BROWSER = path.join(RESULTS, 'browser.json');

ensurePackages();
process.env.CHROMIUM = ensureBrowser();
ensureSpeech();
ensurePostgres();
ensurePoppler();
rmSync(RESULTS, { recursive: true, force: true });
mkdirSync(RESULTS, { recursive: true });
ensureBuilt('server', 'web');

/** Runs a program and prints what it said once it has ended, so that those that run at the same time do not mix. */
function succeeds(file, ...args) {
  const begun = Date.now();
  const child = spawn(process.execPath, [file, ...args], { cwd: ROOT, stdio: ['ignore', 'pipe', 'pipe'] });
  const said = [];
  child.stdout.on('data', (chunk) => said.push(chunk));
  child.stderr.on('data', (chunk) => said.push(chunk));
  return new Promise((resolve) => {
    child.on('close', (code) => {
      const seconds = Math.round((Date.now() - begun) / 1000);
      process.stdout.write(`\n— ${[path.relative(ROOT, file), ...args].join(' ')} (${seconds} s)\n`);
      process.stdout.write(Buffer.concat(said));
      resolve(code === 0);
    });
  });
}

const bin = (name) => path.join(ROOT, 'node_modules', name);
const one = (ok) => ({ passed: Number(ok), failed: Number(!ok), skipped: [] });

/** The counts that a runner wrote down; a runner that broke before it could has failed. */
function counted(ok, file, count) {
  if (!existsSync(file)) return { passed: 0, failed: 1, skipped: [] };
  const counts = count(JSON.parse(readFileSync(file, 'utf8')));
  return { ...counts, failed: ok ? counts.failed : Math.max(1, counts.failed) };
}

const unitCounts = (report) => ({
  passed: report.numPassedTests,
  failed: report.numFailedTests + report.numFailedTestSuites,
  skipped: report.testResults.flatMap(({ assertionResults }) =>
    assertionResults.filter(({ status }) => !['passed', 'failed'].includes(status)).map(({ fullName }) => fullName),
  ),
});

const specsOf = (suite) => [...(suite.specs ?? []), ...(suite.suites ?? []).flatMap(specsOf)];

/** What the page showed where a test missed what it waited for. */
const pagesOf = ({ tests }) =>
  tests
    .flatMap(({ results }) => results.flatMap(({ attachments }) => attachments))
    .filter(({ name, path: file }) => name === 'error-context' && file && existsSync(file))
    .map(({ path: file }) => readFileSync(file, 'utf8').slice(0, MOST_OF_A_PAGE));

/** A test that passes only at its second try has failed: something is wrong, in the test or in the product. */
function browserCounts({ stats, suites }) {
  const specs = suites.flatMap(specsOf);
  const named = (status) => specs.filter(({ tests }) => tests.some((test) => test.status === status));
  for (const spec of [...named('flaky'), ...named('unexpected')])
    missed.push(`${spec.title}\n${pagesOf(spec).join('\n')}`);
  for (const { title } of named('flaky'))
    process.stdout.write(`FAILED, since it passed only at its second try: ${title}\n`);
  return {
    passed: stats.expected,
    failed: stats.unexpected + stats.flaky,
    skipped: named('skipped').map(({ title }) => title),
  };
}

async function unit(name, ...which) {
  const file = path.join(RESULTS, `${name}.json`);
  const reporters = ['--reporter=default', '--reporter=json', `--outputFile.json=${file}`];
  return counted(await succeeds(bin('vitest/vitest.mjs'), 'run', ...reporters, ...which), file, unitCounts);
}

const browser = async () =>
  counted(await succeeds(bin('@playwright/test/cli.js'), 'test', '--workers=1'), BROWSER, browserCounts);

/** Two at a time, the longest first: whichever core is done takes the next. */
const jobs = [
  browser,
  async () => one(await succeeds(bin('eslint/bin/eslint.js'), '.')),
  async () => one(await succeeds(path.join(ROOT, 'scripts/types.mjs'))),
  () => unit('speech', '--project=server', 'server/speech/'),
  () => unit('server', '--project=server', '--exclude=server/speech/**', 'server/'),
  () => unit('interface', '--project=core', '--project=web', '--project=web apart'),
  () => unit('tools', '--project=server', 'cli/', 'demo/', 'scripts/'),
  async () => one(await succeeds(bin('prettier/bin/prettier.cjs'), '--check', '--log-level', 'warn', '.')),
];
const results = [];
async function lane() {
  for (let job = jobs.shift(); job; job = jobs.shift()) results.push(await job());
}
await Promise.all([lane(), lane()]);

const skipped = results.flatMap((counts) => counts.skipped);
for (const one of missed) process.stdout.write(`\nMissed: ${one}\n`);
process.stdout.write(`\n${skipped.map((name) => `Skipped: ${name}\n`).join('')}`);
const sum = (name) => results.reduce((total, counts) => total + counts[name], 0);
process.stdout.write(`${sum('passed')} passed, ${sum('failed')} failed\n`);
process.exitCode = sum('failed') > 0 ? 1 : 0;
