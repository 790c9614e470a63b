import { benchApp } from './app.ts';
import { benchBank } from './bank.ts';
import { benchCrowd } from './crowd.ts';
import { benchDocuments } from './documents.ts';
import { benchForeign } from './foreign.ts';
import { benchGradebook } from './gradebook.ts';
import { benchInk } from './ink.ts';
import { benchMargin } from './margin.ts';
import { benchReattach } from './reattach.ts';
import { benchDesk } from './desk.ts';
import { benchOpening } from './opening.ts';
import { benchQueue } from './queue.ts';
import { benchReading } from './reading.ts';
import { benchSchool } from './school.ts';
import { benchSpeech } from './speech.ts';
import { benchSplit } from './split.ts';
import { benchTalk } from './talk.ts';
import { benchVoice } from './voice.ts';

const SUBJECTS: Record<string, () => object | Promise<object>> = {
  app: benchApp,
  bank: benchBank,
  crowd: benchCrowd,
  desk: benchDesk,
  documents: benchDocuments,
  foreign: () => benchForeign(),
  gradebook: benchGradebook,
  ink: benchInk,
  margin: benchMargin,
  opening: benchOpening,
  queue: benchQueue,
  reattach: () => benchReattach(),
  reading: benchReading,
  school: benchSchool,
  speech: benchSpeech,
  split: benchSplit,
  talk: benchTalk,
  voice: benchVoice,
};

/**
 * Measures what is named, or everything.
 * @throws Error where a subject is not known
 */
export async function bench(wanted: readonly string[]): Promise<object> {
  const unknown = wanted.find((name) => !(name in SUBJECTS));
  if (unknown !== undefined)
    throw new Error(`There is no “${unknown}” to measure; there are ${Object.keys(SUBJECTS).join(', ')}.`);
  const figures: Record<string, object> = {};
  for (const [name, measure] of Object.entries(SUBJECTS))
    if (wanted.length === 0 || wanted.includes(name)) figures[name] = await measure();
  return figures;
}
