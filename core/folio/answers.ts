import type { Paragraph } from './blocks.ts';
import type { ReadFile } from './folio.ts';

/** One question of an assignment. `points` in hundredths. */
export interface Question {
  id: string;
  kind: 'short' | 'long' | 'number' | 'choice';
  prompt: string;
  /** What can be chosen; empty for the other kinds. */
  choices: string[];
  points: number;
}

/** What a student answered, by the id of the question. */
export type Answers = Record<string, string>;

const NUMBER = /^[+-]?(?:\d+(?:[.,]\d*)?|[.,]\d+)(?:e[+-]?\d+)?$/i;

/** Whether an answer can be handed in for its question; nothing written is an answer, too. */
export function isAnswer({ kind, choices }: Question, answer: string): boolean {
  const text = answer.trim();
  if (text === '') return true;
  if (kind === 'number') return NUMBER.test(text.replace(/\s/g, ''));
  return kind !== 'choice' || choices.includes(answer);
}

/** Answers as the part of a folio: a leaf for each question, in their order. */
export function answersFile(title: string, questions: readonly Question[], answers: Answers): ReadFile {
  return {
    name: 'Answers',
    format: 'answers',
    title,
    leaves: questions.map(({ id, prompt }, index) => ({
      kind: 'answer',
      label: `Question ${index + 1}`,
      question: id,
      prompt,
      blocks: paragraphs(answers[id] ?? ''),
    })),
  };
}

const paragraphs = (text: string): Paragraph[] =>
  text
    .split(/\r?\n/)
    .map((line): Paragraph => ({ type: 'paragraph', runs: line === '' ? [] : [{ text: line, marks: [] }] }))
    .filter(({ runs }, index, all) => runs.length > 0 || (index > 0 && index < all.length - 1));
