/* The `vivid` command: installs what is missing, then hands over to cli/vivid.ts in the same process. */
import { ensureBuilt, ensurePackages } from './setup.mjs';

ensurePackages();
if (['serve', 'bench'].includes(process.argv[2])) ensureBuilt();

// The sample school holds a PDF. This package loads many times quicker before the loader below looks at every file.
if (process.argv.includes('--sample')) {
  await import('pdfjs-dist/legacy/build/pdf.mjs');
  await import('pdfjs-dist/legacy/build/pdf.worker.mjs');
}

const { register } = await import('tsx/esm/api');
register();
await import('../cli/vivid.ts');
