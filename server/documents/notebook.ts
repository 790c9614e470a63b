import { z } from 'zod';
import { htmlOfMarkdown } from './markdown.ts';
import { documentErrors, type Reading } from './document.ts';
import { readingOfHtml } from './html.ts';

const Lines = z
  .union([z.string(), z.array(z.string())])
  .transform((lines) => (Array.isArray(lines) ? lines.join('') : lines));
const Output = z.looseObject({ text: Lines.optional(), data: z.record(z.string(), z.unknown()).optional() });
const Cell = z.looseObject({ cell_type: z.string(), source: Lines, outputs: z.array(Output).optional() });
/** nbformat 4: https://nbformat.readthedocs.io/en/latest/format_description.html, from memory. */
const Notebook = z.looseObject({ cells: z.array(Cell) });

const escaped = (text: string): string => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;');
const code = (text: string): string => (text.trim() === '' ? '' : `<pre>${escaped(text)}</pre>`);

/** A notebook cell by cell: what was written, code, and what came out of it as text or picture. */
export function readingOfNotebook(text: string): Reading {
  const read = Notebook.safeParse(jsonOf(text));
  if (!read.success) throw documentErrors.noNotebook();
  const html = read.data.cells.map(({ cell_type, source, outputs = [] }) =>
    cell_type === 'markdown' ? htmlOfMarkdown(source) : [code(source), ...outputs.map(outputHtml)].join(''),
  );
  return readingOfHtml(html.join('\n'));
}

function outputHtml({ text, data = {} }: z.infer<typeof Output>): string {
  const picture = ['image/png', 'image/jpeg'].find((type) => typeof data[type] === 'string');
  if (picture)
    return `<figure><img src="data:${picture};base64,${String(data[picture]).replaceAll(/\s/gu, '')}" alt="Output"></figure>`;
  const plain = Lines.safeParse(data['text/plain']);
  return code(text ?? (plain.success ? plain.data : ''));
}

function jsonOf(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}
