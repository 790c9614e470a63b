/*
 * `npm run mutation -- SUBJECT [FILE]`: changes the code of a subject, or of one of its files, in small ways, one after the other, and
 * counts how many of the changes its tests find. It takes from ten minutes to more than an hour, and is never run by CI.
 */
import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync } from 'node:fs';
import { ensurePackages, ROOT } from './setup.mjs';

const VERSION = '9.6.1';
const PACKAGES = ['core', 'vitest-runner'].map((name) => `@stryker-mutator/${name}@${VERSION}`);

/** What is changed, and the tests that should notice. */
const SUBJECTS = {
  anchor: { code: ['core/anchor/*.ts'], tests: ['core/anchor/*.test.ts'] },
  grading: {
    code: ['core/grading/*.ts'],
    tests: ['core/{grading,gradebook,charts,moderation,rubric-table}/*.test.ts'],
  },
  workflow: { code: ['core/workflow/*.ts'], tests: ['core/workflow/*.test.ts'] },
  returning: { code: ['core/returning/*.ts'], tests: ['core/returning/*.test.ts'] },
  gradebook: { code: ['core/gradebook/*.ts'], tests: ['core/gradebook/*.test.ts'] },
  outbox: { code: ['web/outbox/*.ts'], tests: ['web/outbox/*.test.ts'] },
};

const subject = SUBJECTS[process.argv[2]];
if (!subject) {
  process.stderr.write(`Say which subject: ${Object.keys(SUBJECTS).join(', ')}\n`);
  process.exit(1);
}
const file = process.argv[3];
const code = file === undefined ? subject.code : subject.code.map((pattern) => pattern.replace('*', file));
ensurePackages();
if (!existsSync(`${ROOT}/node_modules/@stryker-mutator/vitest-runner`))
  execFileSync('npm', ['install', '--no-save', '--no-audit', '--no-fund', ...PACKAGES], {
    cwd: ROOT,
    stdio: 'inherit',
  });
mkdirSync(`${ROOT}/.cache/mutation`, { recursive: true });
execFileSync('npx', ['stryker', 'run', 'scripts/mutation/stryker.config.mjs'], {
  cwd: ROOT,
  stdio: 'inherit',
  env: { ...process.env, MUTATED: code.join(';'), MUTATION_TESTS: subject.tests.join(';') },
});
