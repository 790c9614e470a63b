/* `npm run screenshots`: makes the pictures of docs/screenshots anew. */
import { ensureBrowser, ensureBuilt, ensurePackages } from './setup.mjs';

ensurePackages();
process.env.CHROMIUM = ensureBrowser();
ensureBuilt('server', 'web');
const { register } = await import('tsx/esm/api');
register();
await import('./screenshots.ts');
