import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { RecognisedWord } from '../../contract/recognised.ts';
import { installed } from '../speech/installed.ts';
import { runProgram } from '../threads/program.ts';

/** Where both come from on Debian; Poppler draws the pages of a PDF. */
export const HOW_TO_GET_TESSERACT = 'apt-get install tesseract-ocr poppler-utils';

/** Reads words in pictures. */
export interface Recogniser {
  /** Words line by line, their places as shares of the page. */
  page(pdf: Uint8Array, number: number, how: How): Promise<RecognisedWord[][]>;
  /** The same of a picture, as it stands upright. */
  picture(bytes: Uint8Array, how: How): Promise<RecognisedWord[][]>;
}

interface How {
  /** BCP 47. */
  language: string;
  signal: AbortSignal;
}

/** Pixels of the longer side: about 250 to the inch on A4, which is what Tesseract is made for. */
const LONG_SIDE = 3000;
const MAX_PIXELS = 100_000_000;
const SECONDS = { draw: 60, read: 120 };
/** In per cent: what it is less sure of is most often no word. */
const LEAST_CONFIDENCE = 40;

interface Programs {
  tesseract?: string | undefined;
  pdftoppm?: string | undefined;
}

/** Tesseract as Debian packages it, as a process of its own; undefined where it or Poppler is not installed. */
export function tesseract({
  tesseract: program = installed('tesseract'),
  pdftoppm = installed('pdftoppm'),
}: Programs = {}): Recogniser | undefined {
  if (!program || !pdftoppm) return undefined;
  let languages: Promise<string[]> | undefined;
  const known = (signal: AbortSignal): Promise<string[]> => (languages ??= languagesOf(program, signal));

  async function read(folder: string, file: string, { language, signal }: How): Promise<RecognisedWord[][]> {
    const wanted = modelFor(language, await known(signal));
    if (!wanted) return [];
    const table = await runProgram(program!, [path.join(folder, file), 'stdout', '-l', wanted, 'tsv'], {
      ...{ seconds: SECONDS.read, signal, env: { OMP_THREAD_LIMIT: '1' } },
    });
    return linesIn(table.toString('utf8'));
  }

  return {
    page: (pdf, number, how) =>
      inFolder(async (folder) => {
        await writeFile(path.join(folder, 'work.pdf'), pdf, { mode: 0o600 });
        const which = ['-f', String(number), '-l', String(number), '-singlefile', '-cropbox'];
        await runProgram(
          pdftoppm,
          [
            ...which,
            '-gray',
            '-png',
            '-scale-to',
            String(LONG_SIDE),
            path.join(folder, 'work.pdf'),
            path.join(folder, 'page'),
          ],
          { seconds: SECONDS.draw, signal: how.signal },
        );
        return read(folder, 'page.png', how);
      }),
    picture: (bytes, how) =>
      inFolder(async (folder) => {
        // Few works need it, and it takes its time to load.
        const { default: sharp } = await import('sharp');
        await sharp(bytes, { limitInputPixels: MAX_PIXELS })
          .rotate()
          .flatten({ background: '#ffffff' })
          .resize({ width: LONG_SIDE, height: LONG_SIDE, fit: 'inside' })
          .grayscale()
          .png()
          .toFile(path.join(folder, 'page.png'));
        return read(folder, 'page.png', how);
      }),
  };
}

const FOLDERS = 'vivid-words-';

async function inFolder<Result>(work: (folder: string) => Promise<Result>): Promise<Result> {
  const folder = await mkdtemp(path.join(tmpdir(), FOLDERS));
  try {
    return await work(folder);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** ISO 639-2 codes of the models that are installed. */
async function languagesOf(program: string, signal: AbortSignal): Promise<string[]> {
  const list = await runProgram(program, ['--list-langs'], { seconds: 20, signal });
  return list
    .toString('utf8')
    .split('\n')
    .slice(1)
    .map((line) => line.trim())
    .filter(Boolean);
}

/** Three letters where Tesseract's name of a language is not the first three letters of its English name. */
const MODELS: Record<string, string> = {
  ...{ de: 'deu', fr: 'fra', es: 'spa', nl: 'nld', pl: 'pol', pt: 'por', sv: 'swe', el: 'ell', cs: 'ces', sk: 'slk' },
  ...{
    zh: 'chi_sim',
    ja: 'jpn',
    eu: 'eus',
    cy: 'cym',
    fa: 'fas',
    hy: 'hye',
    ka: 'kat',
    is: 'isl',
    mk: 'mkd',
    ro: 'ron',
  },
  ...{ sq: 'sqi', hr: 'hrv', sr: 'srp', et: 'est', lv: 'lav', lt: 'lit', ga: 'gle', gl: 'glg', mt: 'mlt', id: 'ind' },
};

/** The model of a language, or the English one; undefined where neither is installed. */
function modelFor(language: string, models: readonly string[]): string | undefined {
  const [base = ''] = language.toLowerCase().split('-');
  const english = new Intl.DisplayNames(['en'], { type: 'language' }).of(base) ?? '';
  const names = [MODELS[base], english.slice(0, 3).toLowerCase(), 'eng'];
  return names.find((name) => name !== undefined && models.includes(name));
}

/** Tesseract's TSV: level, page, block, paragraph, line, word, left, top, width, height, confidence, text. Level 1 is the page, 5 a word. */
export function linesIn(table: string): RecognisedWord[][] {
  const rows = table.split('\n').map((row) => row.split('\t'));
  const page = rows.find(([level]) => level === '1');
  const [wide, high] = [Number(page?.[8]), Number(page?.[9])];
  if (!(wide > 0 && high > 0)) return [];
  const lines = new Map<string, RecognisedWord[]>();
  for (const [level, , block, paragraph, line, , left, top, width, height, confidence, text = ''] of rows) {
    if (level !== '5' || text.trim() === '' || Number(confidence) < LEAST_CONFIDENCE) continue;
    const key = `${block}/${paragraph}/${line}`;
    lines.set(key, [
      ...(lines.get(key) ?? []),
      {
        ...{ text: text.trim(), x: share(left, wide), y: share(top, high) },
        ...{ width: share(width, wide), height: share(height, high) },
      },
    ]);
  }
  return [...lines.values()];
}

const share = (pixels: string | undefined, of: number): number =>
  Math.min(1, Math.max(0, Math.round((Number(pixels) / of) * 10_000) / 10_000));
