import type { Format, ReadFile } from '#core/folio';

/** https://www.iana.org/assignments/media-types */
const MEDIA_TYPES: Record<Exclude<Format, 'answers'>, string> = {
  docx: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
  odt: 'application/vnd.oasis.opendocument.text',
  pdf: 'application/pdf',
  pptx: 'application/vnd.openxmlformats-officedocument.presentationml.presentation',
  odp: 'application/vnd.oasis.opendocument.presentation',
  markdown: 'text/markdown',
  text: 'text/plain',
  html: 'text/html',
  epub: 'application/epub+zip',
  png: 'image/png',
  jpeg: 'image/jpeg',
  webp: 'image/webp',
  gif: 'image/gif',
  tiff: 'image/tiff',
  heic: 'image/heic',
  wav: 'audio/wav',
  mp3: 'audio/mpeg',
  ogg: 'audio/ogg',
  webm: 'audio/webm',
  mp4: 'audio/mp4',
  flac: 'audio/flac',
  aac: 'audio/aac',
  csv: 'text/csv',
  ods: 'application/vnd.oasis.opendocument.spreadsheet',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
};

/** Recordings that have a picture are videos of the same container. */
export function mediaTypeOf({ format, leaves }: Pick<ReadFile, 'format' | 'leaves'>): string {
  if (format === 'answers') throw new Error('Answers that were typed have no file');
  const type = MEDIA_TYPES[format];
  return leaves.some((leaf) => leaf.kind === 'sound' && leaf.video) ? type.replace('audio/', 'video/') : type;
}
