import { strToU8, unzipSync, zipSync } from 'fflate';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { folioOf } from '#core/folio';
import { DocumentError } from './document.ts';
import { readDocument } from './read.ts';

const DEMO = path.resolve(import.meta.dirname, '../../demo/documents');
const FIXTURES = path.resolve(import.meta.dirname, 'fixtures');

/** Without these there is nothing to read. */
const NEEDED =
  /^(?:word\/document|ppt\/presentation|xl\/workbook|content)\.xml$|^(?:ppt|xl)\/_rels\/(?:presentation|workbook)\.xml\.rels$|^mimetype$/u;
/** Their own words are all that is lost with them. */
const OWN_WORDS = /lides\/(?:slide|notesSlide)\d+\.xml$|worksheets\/sheet\d+\.xml$|sharedStrings\.xml$/u;

const read = async (bytes: Uint8Array, name: string) => {
  const { file, notes } = await readDocument(Buffer.from(bytes), name);
  return { text: folioOf([file]).text, notes: notes.map(({ note }) => note) };
};

describe('a document of which one part is damaged', () => {
  it.each([
    [DEMO, 'amaru-quispe.docx'],
    [DEMO, 'mirza-hadzic.pptx'],
    [DEMO, 'nomvula-dlangamandla.odp'],
    [DEMO, 'thandiwe-moyo.odt'],
    [FIXTURES, 'lists.odt'],
    [FIXTURES, 'values.xlsx'],
    [FIXTURES, 'values.ods'],
    [DEMO, 'yusuf-demirkan.xlsx'],
  ])('keeps all other words (%s/%s)', async (folder, name) => {
    const bytes = readFileSync(path.join(folder, name));
    const whole = await read(bytes, name);
    const parts = unzipSync(bytes);
    for (const part of Object.keys(parts).filter((one) => !one.endsWith('/') && !NEEDED.test(one)))
      for (const damaged of [strToU8('<<no xml & '), parts[part]!.subarray(0, parts[part]!.length / 2)]) {
        const left = await read(zipSync({ ...parts, [part]: damaged }, { level: 0 }), name).catch((error: unknown) => {
          // The only sheet of a workbook is the workbook.
          if (name.endsWith('.xlsx') && OWN_WORDS.test(part) && error instanceof DocumentError) return undefined;
          throw new Error(`${part}: ${String(error)}`);
        });
        if (!left) continue;
        if (OWN_WORDS.test(part)) expect(left.text, part).toMatch(/could not be read|text missing/u);
        // With its relationships a slide or sheet loses the way to its notes and charts, and with its styles a number its unit.
        else
          expect(left.text.length, part).toBeGreaterThanOrEqual(
            whole.text.length * (/(?:slides|worksheets)\/_rels|styles\.xml|charts|drawings/u.test(part) ? 0.8 : 1),
          );
      }
  });

  it('names the slide in its place, and tells the student', async () => {
    const name = 'mirza-hadzic.pptx';
    const parts = unzipSync(readFileSync(path.join(DEMO, name)));
    const { text, notes } = await read(
      zipSync({ ...parts, 'ppt/slides/slide2.xml': strToU8('<') }, { level: 0 }),
      name,
    );
    expect(text.indexOf('This slide could not be read.')).toBeGreaterThan(0);
    expect(notes).toEqual([expect.stringContaining('could not be read: Slide 2.')]);
  });

  it('is refused where all of it is damaged', async () => {
    const name = 'mirza-hadzic.pptx';
    const parts = unzipSync(readFileSync(path.join(DEMO, name)));
    const slides = Object.keys(parts).filter((part) => /slides\/slide\d+\.xml$/u.test(part));
    const broken = Object.fromEntries(slides.map((part) => [part, strToU8('<')]));
    await expect(read(zipSync({ ...parts, ...broken }, { level: 0 }), name)).rejects.toThrow(DocumentError);
  });
});
