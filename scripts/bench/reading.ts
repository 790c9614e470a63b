import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import { readDocumentApart } from '../../server/documents/read-apart.ts';
import { figure } from './figure.ts';

const RUNS = 3;
const PAGES = 300;
const LINES = 36;
/** A line of usual length. */
const LINE = 'The shore was empty when we came, and the wind from the lake had taken most of it';

/** A long text as a PDF: how much CPU time it takes to read, with all threads that work for it. */
export async function benchReading(): Promise<object> {
  const bytes = await longPdf();
  const seconds: number[] = [];
  for (let run = 0; run < RUNS; run++) {
    const before = process.cpuUsage();
    await readDocumentApart('bench', () => Promise.resolve(bytes), 'long.pdf');
    const { user, system } = process.cpuUsage(before);
    seconds.push((user + system) / 1e6);
  }
  return { pdf: { what: `${PAGES} pages of text`, ...figure('s', seconds, '10 or less, of CPU') } };
}

async function longPdf(): Promise<Uint8Array> {
  const pdf = await PDFDocument.create();
  const font = await pdf.embedFont(StandardFonts.TimesRoman);
  for (let number = 1; number <= PAGES; number++) {
    const page = pdf.addPage([595, 842]);
    for (let line = 0; line < LINES; line++)
      page.drawText(`${LINE} ${number}.${line}`, { x: 56, y: 780 - 19 * line, size: 12, font });
  }
  return pdf.save();
}
