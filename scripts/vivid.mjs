/* The `vivid` command: installs what is missing, then hands over to cli/vivid.ts in the same process. */
import { ensureBuilt, ensurePackages } from './setup.mjs';

ensurePackages();
if (['serve', 'bench'].includes(process.argv[2])) ensureBuilt();

const { register } = await import('tsx/esm/api');
register();
await import('../cli/vivid.ts');
