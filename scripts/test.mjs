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
const MOST_OF_A_MESSAGE = 1500;
/** What failed: the name of the check, then what it said or what the page showed. Printed last, where a cut log still has it. */
const failures = [];
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
function run(file, ...args) {
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
      resolve({ ok: code === 0, said: Buffer.concat(said).toString() });
    });
  });
}

const bin = (name) => path.join(ROOT, 'node_modules', name);

async function whole(file, ...args) {
  const { ok, said } = await run(file, ...args);
  if (!ok) failures.push(`${path.relative(ROOT, file)}\n${said.slice(-MOST_OF_A_MESSAGE)}`);
  return { passed: Number(ok), failed: Number(!ok), skipped: [] };
}

/** The counts that a runner wrote down; a runner that broke before it could has failed. */
function counted(ok, file, count) {
  if (!existsSync(file)) {
    failures.push(`${path.basename(file)} was not written: the runner broke`);
    return { passed: 0, failed: 1, skipped: [] };
  }
  const counts = count(JSON.parse(readFileSync(file, 'utf8')));
  return { ...counts, failed: ok ? counts.failed : Math.max(1, counts.failed) };
}

/** A file that broke before its first test has a message of its own. */
const unitFailures = ({ name, message, status, assertionResults }) =>
  [
    ...assertionResults
      .filter((test) => test.status === 'failed')
      .map(({ fullName, failureMessages }) => `${fullName}\n${failureMessages.join('\n')}`),
    ...(status === 'failed' && !assertionResults.some((test) => test.status === 'failed') ? [message] : []),
  ].map((said) => `${path.relative(ROOT, name)}: ${said.slice(0, MOST_OF_A_MESSAGE)}`);

function unitCounts({ testResults, numPassedTests }) {
  const failed = testResults.flatMap(unitFailures);
  failures.push(...failed);
  const skipped = testResults.flatMap(({ assertionResults }) =>
    assertionResults.filter(({ status }) => !['passed', 'failed'].includes(status)),
  );
  return { passed: numPassedTests, failed: failed.length, skipped: skipped.map(({ fullName }) => fullName) };
}

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
  const failed = (spec, how = '') => failures.push(`${spec.title}${how}\n${pagesOf(spec).join('\n')}`);
  for (const spec of named('flaky')) failed(spec, ' (passed only at its second try)');
  for (const spec of named('unexpected')) failed(spec);
  return {
    passed: stats.expected,
    failed: stats.unexpected + stats.flaky,
    skipped: named('skipped').map(({ title }) => title),
  };
}

async function unit(name, ...which) {
  const file = path.join(RESULTS, `${name}.json`);
  const reporters = ['--reporter=default', '--reporter=json', `--outputFile.json=${file}`];
  const { ok } = await run(bin('vitest/vitest.mjs'), 'run', ...reporters, ...which);
  return counted(ok, file, unitCounts);
}

async function browser() {
  const { ok } = await run(bin('@playwright/test/cli.js'), 'test', '--workers=1');
  return counted(ok, BROWSER, browserCounts);
}

/** Two at a time, the longest first: whichever core is done takes the next. */
const jobs = [
  browser,
  () => whole(bin('eslint/bin/eslint.js'), '.'),
  () => whole(path.join(ROOT, 'scripts/types.mjs')),
  () => unit('speech', '--project=server', 'server/speech/'),
  () => unit('server', '--project=server', '--exclude=server/speech/**', 'server/'),
  () => unit('interface', '--project=core', '--project=web', '--project=web apart'),
  () => unit('tools', '--project=server', 'cli/', 'demo/', 'scripts/'),
  () => whole(bin('prettier/bin/prettier.cjs'), '--check', '--log-level', 'warn', '.'),
];
const results = [];
async function lane() {
  for (let job = jobs.shift(); job; job = jobs.shift()) results.push(await job());
}
await Promise.all([lane(), lane()]);

const skipped = results.flatMap((counts) => counts.skipped);
process.stdout.write(`\n${skipped.map((name) => `Skipped: ${name}\n`).join('')}`);
for (const failure of failures) process.stdout.write(`\nFAILED: ${failure}\n`);
const sum = (name) => results.reduce((total, counts) => total + counts[name], 0);
process.stdout.write(`${sum('passed')} passed, ${sum('failed')} failed\n`);
process.exitCode = sum('failed') > 0 ? 1 : 0;
