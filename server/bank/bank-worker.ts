import {
  ALIKE,
  bankIndex,
  findRemarks,
  likeness,
  suggester,
  type BankIndex,
  type EarlierUse,
  type Suggester,
} from '#core/bank';
import { answerTasks } from '../threads/asked-thread.ts';
import type { IndexRow } from './queries.ts';

/** What a thread is told and asked; a bank comes in pieces before it is asked about. */
export type BankTask =
  | { type: 'rows'; bank: string; rows: IndexRow[] }
  | { type: 'history'; bank: string; history: EarlierUse[]; language: string }
  | { type: 'find'; bank: string; query: string; most: number; fitting: string[] | null }
  | { type: 'suggest'; bank: string; language: string; passage: Wanted }
  | { type: 'alike'; bank: string; text: string; language: string; said: string[] }
  | { type: 'forget'; bank: string };
type Wanted = Parameters<Suggester>[0];

interface Bank {
  rows: IndexRow[];
  index?: BankIndex;
  history: EarlierUse[];
  language: string;
  suggest?: Suggester;
}
const banks = new Map<string, Bank>();

const bankOf = (name: string): Bank => {
  const bank = banks.get(name) ?? { rows: [], history: [], language: 'en' };
  banks.set(name, bank);
  return bank;
};

function work(task: BankTask): unknown {
  const bank = bankOf(task.bank);
  switch (task.type) {
    case 'rows':
      return void bank.rows.push(...task.rows);
    case 'history':
      return void Object.assign(bank, { history: task.history, language: task.language });
    case 'find': {
      const fitting = task.fitting && new Set(task.fitting);
      const index = (bank.index ??= bankIndex(bank.rows));
      return findRemarks(index, task.query, { most: task.most, ...(fitting && { may: (id) => fitting.has(id) }) });
    }
    case 'suggest':
      bank.suggest ??= suggester(bank.rows, bank.history, bank.language);
      return bank.suggest(task.passage, task.language);
    case 'alike':
      return alike(bank, task);
    case 'forget':
      return void banks.delete(task.bank);
  }
}

/** Banked remarks that say nearly this, the likest first, and how many of what was said before does. */
function alike(
  { rows }: Bank,
  { text, language, said }: BankTask & { type: 'alike' },
): { banked: string[]; said: number } {
  const others = [...rows.map((row) => row.transcript), ...said].map((other) => ({ text: other, language }));
  const like = likeness([{ text, language }, ...others]);
  const scores = others.map((_, index) => like(0, index + 1));
  const banked = rows
    .map(({ id }, index) => ({ id, score: scores[index]! }))
    .filter(({ score }) => score >= ALIKE)
    .sort((a, b) => b.score - a.score);
  const times = scores.slice(rows.length).filter((score) => score >= ALIKE).length;
  return { banked: banked.slice(0, 3).map(({ id }) => id), said: times };
}

answerTasks(work, String);
