import { stemsToCompare } from './alike.ts';
import { DETECTORS } from './detectors.ts';
import { readPassage, type Passage, type ReadPassage } from './passage.ts';
import { styleOf } from './style.ts';
import { termsOf } from './terms.ts';
import { cosine, scaled, spreadOf, sum, weighted, type Spread, type Vector } from './vector.ts';

/** What a banked remark is suggested by. */
export interface Suggestible {
  id: string;
  /** BCP 47. */
  language: string;
  kind: string;
  /** The title of a criterion; empty where it serves all of them. */
  criterion: string;
  name: string;
  description: string;
  tags: readonly string[];
  transcript: string;
}

/** Where a banked remark was used before. */
export interface EarlierUse extends Passage {
  remark: string;
}

/** What is to be said something about, and what the teacher has chosen already. */
export interface Wanted extends Passage {
  kind?: string | undefined;
  criterion?: string | undefined;
}

/** Why a remark stands where it stands. */
export type Reason =
  /** It was used on passages like this one. */
  | { why: 'like'; uses: number }
  /** Its tags or its name say something that this passage has; `says` ends the sentence "this passage …". */
  | { why: 'label'; label: string; says: string }
  | { why: 'kind' }
  | { why: 'criterion' }
  | { why: 'often'; uses: number };

export interface Suggestion {
  id: string;
  score: number;
  reasons: Reason[];
}

/** How long each part of a passage's vector is. */
const PARTS = { features: 1, words: 0.6, style: 0.7 };
/** What is left of a score where the teacher chose another kind, or another criterion. */
const OTHER_KIND = 0.2;
const OTHER_CRITERION = 0.4;
const OFTEN = 0.05;
/** How much a label counts by where the remark has it. */
const LABELLED = { tags: 1, name: 0.7, description: 0.45, transcript: 0.25 };
/** From here on a reason is worth telling. */
const TELLING = { like: 0.45, label: 0.25 };
/** How many are shown, and which of them is kept for a remark that was never used. */
export const MOST_SUGGESTED = 9;

/** A bank that suggestions are made from; made once, asked for every passage. */
export type Suggester = (wanted: Wanted, language: string, may?: (id: string) => boolean) => Suggestion[];

interface Known {
  remark: Suggestible;
  /** What each detector that finds everything would count for it, by the detector's name. */
  labels: ReadonlyMap<string, { label: string; weight: number }>;
  uses: number;
  centroid: Vector | undefined;
}

/**
 * Suggests banked remarks for passages. The score of one is
 * `[cos(passage, centroid of the passages it was used on) + its labels / (1 + uses)²] × 0.2 if its kind is another × 0.4 if its
 * criterion is another + 0.05 ln(1 + uses)`: what detectors find in the passage is matched with the tags of a remark that was never
 * used; later what the teacher used on like passages says more.
 * @param language of a work on which remarks were used, BCP 47
 */
export function suggester(
  remarks: readonly Suggestible[],
  history: readonly EarlierUse[],
  language: string,
): Suggester {
  const read = history.map((use) => ({ remark: use.remark, passage: readPassage(use, language) }));
  const spread = spreadOf(read.map(({ passage }) => passage.stems));
  const known = remarks.map((remark): Known => {
    const own = read.filter((use) => use.remark === remark.id);
    const vectors = own.map(({ passage }) => vectorOf(passage, spread));
    return {
      ...{ remark, labels: labelsOf(remark), uses: own.length },
      centroid: own.length > 0 ? sum(vectors) : undefined,
    };
  });
  return (wanted, workLanguage, may = () => true) => {
    const passage = readPassage(wanted, workLanguage);
    const vector = vectorOf(passage, spread);
    const found = foundIn(passage);
    const scored = known
      .filter(({ remark }) => may(remark.id))
      .map((one) => scoreOf(one, wanted, vector, found))
      .sort((a, b) => b.score - a.score);
    return withOneNew(scored, known);
  };
}

interface Found {
  name: string;
  says: string;
  strength: number;
}

const foundIn = (passage: ReadPassage): Found[] =>
  DETECTORS.map(({ name, says, find }) => ({ name, says, strength: find(passage) })).filter(
    ({ strength }) => strength > 0,
  );

function vectorOf(passage: ReadPassage, spread: Spread): Vector {
  const features = new Map(foundIn(passage).map(({ name, strength }) => [`has ${name}`, strength]));
  const words = weighted(passage.stems, spread);
  return sum([
    scaled(features, PARTS.features),
    scaled(new Map([...words].map(([stem, value]) => [`stem ${stem}`, value])), PARTS.words),
    scaled(styleOf(passage), PARTS.style),
  ]);
}

const LABELS = DETECTORS.map(({ name, labels }) => ({
  name,
  labels: labels.map((label) => ({ label, stems: termsOf(label, 'en').map(({ stem }) => stem) })),
}));

interface Place {
  weight: number;
  /** Stems of each text. */
  texts: ReadonlySet<string>[];
  /** A label is looked for as a whole. */
  whole: boolean;
}

/** For each detector the label that says most of a remark, and how much. */
function labelsOf(remark: Suggestible): Known['labels'] {
  const places = [
    { weight: LABELLED.tags, texts: remark.tags, whole: true },
    { weight: LABELLED.name, texts: [remark.name] },
    { weight: LABELLED.description, texts: [remark.description] },
    { weight: LABELLED.transcript, texts: [remark.transcript] },
  ].map(({ weight, texts, whole = false }): Place => ({
    ...{ weight, whole },
    texts: texts.map((text) => new Set(stemsToCompare({ text, language: remark.language }))),
  }));
  const found = new Map<string, { label: string; weight: number }>();
  for (const { name, labels } of LABELS) {
    let best: { label: string; weight: number } | undefined;
    labels.forEach(({ label, stems }, rank) => {
      // The first labels of a detector mean it most.
      const weight = placed(places, stems) * (1 - 0.5 * (rank / labels.length));
      if (weight > (best?.weight ?? 0)) best = { label, weight };
    });
    if (best) found.set(name, best);
  }
  return found;
}

/** How much a label counts by the first place that has it: of a tag, one of its words says less than all of them. */
function placed(places: readonly Place[], label: readonly string[]): number {
  for (const { weight, texts, whole } of places) {
    const having = texts.filter((own) => label.every((stem) => own.has(stem)));
    if (having.length > 0)
      return whole ? weight * Math.max(...having.map(({ size }) => Math.sqrt(label.length / size))) : weight;
  }
  return 0;
}

/** Some detectors find something in every other passage; what is rare says more. */
function labelled({ labels }: Known, found: readonly Found[]): { score: number; best: Reason | undefined } {
  let [score, most] = [0, 0];
  let best: Reason | undefined;
  for (const { name, says, strength } of found) {
    const label = labels.get(name);
    if (!label) continue;
    const own = label.weight * strength;
    score = 1 - (1 - score) * (1 - own);
    if (own > most) [most, best] = [own, { why: 'label', label: label.label, says }];
  }
  return { score, best: most >= TELLING.label ? best : undefined };
}

const same = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase();

function scoreOf(known: Known, wanted: Wanted, vector: Vector, found: readonly Found[]): Suggestion {
  const { remark, uses, centroid } = known;
  const like = centroid ? cosine(vector, centroid) : 0;
  const { score: label, best } = labelled(known, found);
  const otherKind = wanted.kind !== undefined && !same(wanted.kind, remark.kind);
  const asked = wanted.criterion !== undefined && wanted.criterion !== '' && remark.criterion !== '';
  const otherCriterion = asked && !same(wanted.criterion!, remark.criterion);
  const score =
    (like + label / (1 + uses) ** 2) * (otherKind ? OTHER_KIND : 1) * (otherCriterion ? OTHER_CRITERION : 1) +
    OFTEN * Math.log(1 + uses);
  const reasons: Reason[] = [];
  if (like >= TELLING.like) reasons.push({ why: 'like', uses });
  if (best) reasons.push(best);
  if (asked && !otherCriterion) reasons.push({ why: 'criterion' });
  if (wanted.kind !== undefined && !otherKind) reasons.push({ why: 'kind' });
  if (reasons.length === 0 && uses > 0) reasons.push({ why: 'often', uses });
  return { id: remark.id, score, reasons };
}

/** The last place is kept for a remark that was never used and whose labels match, where none stands there by itself. */
function withOneNew(scored: readonly Suggestion[], known: readonly Known[]): Suggestion[] {
  const fresh = new Set(known.filter(({ uses }) => uses === 0).map(({ remark }) => remark.id));
  const first = scored.slice(0, MOST_SUGGESTED);
  if (first.some(({ id }) => fresh.has(id))) return first;
  const next = scored.find(({ id, reasons }) => fresh.has(id) && reasons.some(({ why }) => why === 'label'));
  return next ? [...first.slice(0, MOST_SUGGESTED - 1), next] : first;
}
