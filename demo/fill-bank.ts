import { HEARD } from './heard.ts';
import { passageAnchor } from '#core/anchor';
import { randomUUID } from 'node:crypto';
import { NO_WORDS } from '../contract/said.ts';
import { copyRecording } from '../server/recordings/copy.ts';
import { insertBanked } from '../server/bank/queries.ts';
import { insertUse } from '../server/bank/uses.ts';
import type { Queries } from '../server/db/database.ts';
import { upsertGreeting } from '../server/greetings/queries.ts';
import { upsertListening } from '../server/recordings/queries.ts';
import { insertRemark } from '../server/remarks/queries.ts';
import { selectFolio } from '../server/submissions/queries.ts';
import { insertNote } from '../server/notes/queries.ts';
import { BANK, type SampleBanked } from './bank.ts';
import { GREETINGS } from './greetings.ts';
import { NOTES } from './notes.ts';
import type { SampleFeedback } from './remarks.ts';
import { daysAgo, keepSpoken } from './voices.ts';

export interface Banked {
  id: string;
  recording: string;
  sample: SampleBanked;
}

/** Keeps all that a teacher of the sample school says again and again; by their names. */
export async function fillBank(tx: Queries, teacher: string): Promise<Map<string, Banked>> {
  const banked = new Map<string, Banked>();
  for (const [index, sample] of BANK.entries()) {
    const recording = await keepSpoken(tx, sample, teacher);
    const id = randomUUID();
    const { title, description, kind, criterion, tags } = sample;
    const content = { ...NO_WORDS, name: title, tags, description, kind, criterion, gap: null };
    const madeAt = daysAgo(60 - index);
    await insertBanked(tx, { id, owner: teacher, content, recording, language: 'en', madeAt });
    banked.set(sample.name, { id, recording, sample });
  }
  return banked;
}

export async function fillGreetings(tx: Queries, teacher: string, idOf: (login: string) => string): Promise<void> {
  for (const greeting of GREETINGS)
    await upsertGreeting(tx, teacher, idOf(greeting.student), await keepSpoken(tx, greeting, teacher));
}

/** Says what is said about no work in one assignment. */
export async function sayNotes(
  tx: Queries,
  title: string,
  { course, assignment, teacher }: { course: string; assignment: string; teacher: string },
  idOf: (login: string) => string,
): Promise<void> {
  for (const note of NOTES.filter((one) => one.assignment === title)) {
    const recording = await keepSpoken(tx, note, teacher);
    const at = { place: note.place, assignment };
    await insertNote(tx, { id: recording, course, author: teacher, at, content: NO_WORDS, recording });
    for (const login of note.heardBy) await upsertListening(tx, recording, idOf(login), HEARD);
  }
}

/** Says again what is in the bank. */
export async function sayAgain(
  tx: Queries,
  banked: ReadonlyMap<string, Banked>,
  { fromBank = [] }: SampleFeedback,
  { submission, teacher, student }: { submission: string; teacher: string; student: string },
): Promise<void> {
  const { text } = (await selectFolio(tx, submission))!;
  for (const [index, { banked: name, passage, heard }] of fromBank.entries()) {
    const { id, recording, sample } = banked.get(name)!;
    const start = text.indexOf(passage);
    const end = start + passage.length;
    const [remark, copy] = [randomUUID(), randomUUID()];
    await copyRecording(tx, recording, { id: copy, owner: teacher });
    const words = { ...NO_WORDS, name: sample.title, tags: sample.tags };
    const anchor = passageAnchor(text, start, end)!;
    await insertRemark(tx, {
      ...{ id: remark, submission, author: teacher, kind: sample.kind, anchor, words, recording: copy, file: null },
    });
    const around = { before: text.slice(Math.max(0, start - 300), start), passage, after: text.slice(end, end + 300) };
    await insertUse(tx, { remark, banked: id, person: teacher, around, usedAt: daysAgo(index + 1) });
    if (heard) await upsertListening(tx, copy, student, HEARD);
  }
}
