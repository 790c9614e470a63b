import type { DocumentPicture } from './document.ts';

const WIDTH = 480;
const LINE = 22;
const LETTERS = 48;

/** A picture that says what would be here. */
export function standInPicture(label: string): DocumentPicture {
  const lines = wrapped(`${label}. Not shown here.`);
  const height = 40 + lines.length * LINE;
  const text = lines.map((line, index) => `<text x="20" y="${34 + index * LINE}">${escaped(line)}</text>`).join('');
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${height}" viewBox="0 0 ${WIDTH} ${height}"><rect x="1" y="1" width="${WIDTH - 2}" height="${height - 2}" fill="#f4f2ec" stroke="#8a867c" stroke-dasharray="6 4"/><g font-family="sans-serif" font-size="16" fill="#4a4740">${text}</g></svg>`;
  return { mediaType: 'image/svg+xml', bytes: Buffer.from(svg) };
}

function wrapped(text: string): string[] {
  const lines: string[] = [''];
  for (const word of text.slice(0, 400).split(/\s+/u)) {
    const last = lines.at(-1)!;
    if (last !== '' && last.length + word.length >= LETTERS) lines.push(word);
    else lines[lines.length - 1] = last === '' ? word : `${last} ${word}`;
  }
  return lines;
}

const escaped = (text: string): string => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;');
