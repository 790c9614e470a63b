import { spawnSync } from 'node:child_process';

const checks = [
  ['tsc', 'core'],
  ['tsc', 'node'],
  ['vue-tsc', 'web'],
];
const failed = checks.filter(
  ([program, project]) =>
    spawnSync('npx', ['--no-install', program, '-p', `tsconfig/${project}.json`], { stdio: 'inherit' }).status !== 0,
);
process.exitCode = failed.length > 0 ? 1 : 0;
