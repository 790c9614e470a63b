/* `npm test`: installs what is missing, then format, lint, types, unit tests and browser tests; ends with `N passed, N failed`. */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import path from 'node:path';
import { ensureBrowser, ensureBuilt, ensurePackages, ensureSpeech, ROOT } from './setup.mjs';

const RESULTS = path.join(ROOT, 'test-results');
const UNIT = path.join(RESULTS, 'unit.json');
const BROWSER = path.join(RESULTS, 'browser.json');

ensurePackages();
process.env.CHROMIUM = ensureBrowser();
ensureSpeech();
rmSync(RESULTS, { recursive: true, force: true });
mkdirSync(RESULTS, { recursive: true });

const succeeds = (program, ...args) => {
  process.stdout.write(`\n— ${program} ${args.join(' ')}\n`);
  return (
    spawnSync('npx', ['--no-install', program, ...args], { cwd: ROOT, stdio: ['ignore', 'inherit', 'inherit'] })
      .status === 0
  );
};
const oneCheck = (ok) => ({ passed: Number(ok), failed: Number(!ok) });

/** The counts that a runner wrote down; a runner that broke before it could has failed. */
function counted(ok, file, count) {
  if (!existsSync(file)) return { passed: 0, failed: 1 };
  const counts = count(JSON.parse(readFileSync(file, 'utf8')));
  return { ...counts, failed: ok ? counts.failed : Math.max(1, counts.failed) };
}

const unitCounts = (report) => ({
  passed: report.numPassedTests,
  failed: report.numFailedTests + report.numFailedTestSuites,
});
const browserCounts = ({ stats }) => ({ passed: stats.expected + stats.flaky, failed: stats.unexpected });

const results = [
  oneCheck(succeeds('prettier', '--check', '--log-level', 'warn', '.')),
  oneCheck(succeeds('eslint', '.')),
  oneCheck(spawnSync(process.execPath, ['scripts/types.mjs'], { cwd: ROOT, stdio: 'inherit' }).status === 0),
  counted(
    succeeds('vitest', 'run', '--reporter=default', '--reporter=json', `--outputFile.json=${UNIT}`),
    UNIT,
    unitCounts,
  ),
];
ensureBuilt();
results.push(counted(succeeds('playwright', 'test'), BROWSER, browserCounts));

const sum = (name) => results.reduce((total, counts) => total + counts[name], 0);
process.stdout.write(`\n${sum('passed')} passed, ${sum('failed')} failed\n`);
process.exitCode = sum('failed') > 0 ? 1 : 0;
