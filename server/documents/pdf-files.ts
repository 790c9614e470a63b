import { createRequire } from 'node:module';
import path from 'node:path';

const PACKAGE = path.dirname(createRequire(import.meta.url).resolve('pdfjs-dist/package.json'));

/** How a PDF is opened here: with the files that come with its reader, and without running anything that stands in it. */
export const PDF_FILES = {
  cMapUrl: `${path.join(PACKAGE, 'cmaps')}/`,
  standardFontDataUrl: `${path.join(PACKAGE, 'standard_fonts')}/`,
  wasmUrl: `${path.join(PACKAGE, 'wasm')}/`,
  isEvalSupported: false,
  enableXfa: false,
  stopAtErrors: false,
  verbosity: 0,
};
