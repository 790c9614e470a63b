/* The `vivid` command: installs and builds what is missing, then hands over to the built command in the same process. */
import { ensureBuilt, ensurePackages } from './setup.mjs';

const [, , command] = process.argv;

ensurePackages();
ensureBuilt('server', ...(['serve', 'bench'].includes(command) ? ['web'] : []));

if (command === 'bench') {
  // Measures with tools that are not part of the product, so it runs from the sources.
  const { register } = await import('tsx/esm/api');
  register();
  await import('../cli/vivid.ts');
} else await import('../dist/server/vivid.js');
