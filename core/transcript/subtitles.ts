import type { Cue } from './cues.ts';
import { shared } from './carried.ts';
import { tokens } from './token.ts';
import type { Word } from './transcript.ts';

/** The text is no captions that can be read; the message says why. */
export class CaptionError extends Error {
  override name = 'CaptionError';
}

/** WebVTT (W3C Candidate Recommendation 2019, § 4): one file of captions. */
export function writeVtt(cues: readonly Cue[], language?: string): string {
  const head = language ? `WEBVTT\n\nNOTE Language: ${language}\n` : 'WEBVTT\n';
  return [head, ...cues.map((cue) => `${times(cue, '.')}\n${cue.lines.map(escaped).join('\n')}\n`)].join('\n');
}

/** SubRip: numbered cues, commas before the milliseconds (common practice; there is no standard). */
export const writeSrt = (cues: readonly Cue[]): string =>
  cues.map((cue, index) => `${index + 1}\n${times(cue, ',')}\n${cue.lines.join('\n')}\n`).join('\n');

const times = ({ start, end }: Cue, point: string): string => `${stamp(start, point)} --> ${stamp(end, point)}`;

function stamp(seconds: number, point: string): string {
  const all = Math.round(seconds * 1000);
  const [hours, minutes, rest] = [Math.floor(all / 3_600_000), Math.floor(all / 60_000) % 60, all % 60_000];
  const two = (value: number): string => String(value).padStart(2, '0');
  return `${two(hours)}:${two(minutes)}:${two(Math.floor(rest / 1000))}${point}${String(rest % 1000).padStart(3, '0')}`;
}

const escaped = (line: string): string => line.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;');

const ENTITIES: Record<string, string> = { amp: '&', lt: '<', gt: '>', nbsp: '\u00A0', lrm: '\u200E', rlm: '\u200F' };

const unescaped = (text: string): string =>
  text.replace(/<[^<>]*>/gu, '').replace(/&(amp|lt|gt|nbsp|lrm|rlm);/gu, (_, name: string) => ENTITIES[name]!);

const TIMES =
  /^(?:(\d{2,}):)?(\d{2}):(\d{2})[.,](\d{3})[ \t]+-->[ \t]+(?:(\d{2,}):)?(\d{2}):(\d{2})[.,](\d{3})(?:[ \t].*)?$/u;

/**
 * The cues of a WebVTT or SubRip file; styles, regions, notes and tags are left out. A cue that cannot be read is skipped.
 * @throws CaptionError where there is none at all
 */
export function readCues(text: string): Cue[] {
  const blocks = text
    .replace(/^\uFEFF/u, '')
    .replaceAll(/\r\n?/gu, '\n')
    .split(/\n{2,}/u);
  const cues = blocks.flatMap((block): Cue[] => {
    const lines = block.split('\n');
    const at = lines.findIndex((line) => TIMES.test(line.trim()));
    if (at < 0 || at > 1) return [];
    const parts = TIMES.exec(lines[at]!.trim())!.slice(1);
    const [start, end] = [seconds(parts.slice(0, 4)), seconds(parts.slice(4))];
    const words = lines
      .slice(at + 1)
      .map((line) => unescaped(line).trim())
      .filter((line) => line !== '');
    return end > start && words.length > 0 ? [{ start, end, lines: words }] : [];
  });
  if (cues.length === 0) throw new CaptionError('There are no captions in this file.');
  return cues.sort((a, b) => a.start - b.start);
}

const seconds = ([hours = '0', minutes, rest, thousandths]: (string | undefined)[]): number =>
  Number(hours) * 3600 + Number(minutes) * 60 + Number(rest) + Number(thousandths) / 1000;

export const looksLikeCaptions = (text: string): boolean =>
  /^\uFEFF?WEBVTT(?:\s|$)/u.test(text) || TIMES_ANYWHERE.test(text);

const TIMES_ANYWHERE = /^(?:\d{2,}:)?\d{2}:\d{2}[.,]\d{3}[ \t]+-->/mu;

/** The words of captions, each cue's over its time: good enough to begin with, until they are aligned. */
export const wordsOfCues = (cues: readonly Cue[]): Word[] =>
  cues.flatMap(({ start, end, lines }) =>
    shared(
      tokens(lines.join(' ')).map(({ text }) => text),
      { start, end },
    ),
  );
