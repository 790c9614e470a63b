/* `npm run dev`: the sample school with a server that restarts and an interface that reloads when their files change. */
import { spawn } from 'node:child_process';
import { ensurePackages, ROOT } from './setup.mjs';

ensurePackages();
const children = [
  spawn(
    process.execPath,
    [
      '--watch-path=server',
      '--watch-path=core',
      '--watch-path=contract',
      '--import',
      'tsx',
      'cli/vivid.ts',
      'serve',
      '--sample',
    ],
    { cwd: ROOT, stdio: 'inherit' },
  ),
  spawn(process.execPath, ['node_modules/vite/bin/vite.js'], { cwd: ROOT, stdio: 'inherit' }),
];
for (const child of children) child.on('exit', () => children.forEach((other) => other.kill()));
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => children.forEach((child) => child.kill()));
