import type { Receipt } from '#contract/submissions';
import { exactTime } from '../wording/format.ts';

/** A receipt as a text that is kept or sent. */
export function receiptText(receipt: Receipt): string {
  const { submission, student, course, assignment, version, handedInAt, dueAt, late, files } = receipt;
  return [
    'Receipt for work that was handed in',
    '',
    `By: ${student}`,
    `For: ${assignment}, ${course}`,
    `Version: ${version}`,
    `Handed in: ${exactTime(handedInAt)}`,
    ...(dueAt ? [`Due: ${exactTime(dueAt)}${late ? ' (it came later)' : ''}`] : []),
    ...files.map(({ name, byteLength, sha256 }) => `File: ${name}, ${byteLength} bytes, SHA-256 ${sha256}`),
    ...(files.length === 0 ? ['Answers that were typed in the app'] : []),
    `Number: ${submission}`,
    '',
  ].join('\n');
}
