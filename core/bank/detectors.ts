import type { Detector } from './detector.ts';
import { abbreviation } from './detectors/abbreviation.ts';
import { abrupt } from './detectors/abrupt.ts';
import { agreement } from './detectors/agreement.ts';
import { apostrophe } from './detectors/apostrophe.ts';
import { calculation } from './detectors/calculation.ts';
import { claimWithoutSource } from './detectors/claim-without-source.ts';
import { colonSemicolon } from './detectors/colon-semicolon.ts';
import { commaSplice } from './detectors/comma-splice.ts';
import { connective } from './detectors/connective.ts';
import { contrast } from './detectors/contrast.ts';
import { doubledWord } from './detectors/doubled-word.ts';
import { ending } from './detectors/ending.ts';
import { example } from './detectors/example.ts';
import { figure } from './detectors/figure.ts';
import { firstPerson } from './detectors/first-person.ts';
import { fragment } from './detectors/fragment.ts';
import { heading } from './detectors/heading.ts';
import { heavyNouns } from './detectors/heavy-nouns.ts';
import { hedge } from './detectors/hedge.ts';
import { image } from './detectors/image.ts';
import { informal } from './detectors/informal.ts';
import { list } from './detectors/list.ts';
import { longSentence } from './detectors/long-sentence.ts';
import { manySentences } from './detectors/many-sentences.ts';
import { hasUnit } from './detectors/measured.ts';
import { method } from './detectors/method.ts';
import { missingCapital } from './detectors/missing-capital.ts';
import { missingComma } from './detectors/missing-comma.ts';
import { misspelling } from './detectors/misspelling.ts';
import { noReasoning } from './detectors/no-reasoning.ts';
import { numberWithoutUnit } from './detectors/number-without-unit.ts';
import { oneSided } from './detectors/one-sided.ts';
import { opening } from './detectors/opening.ts';
import { opinion } from './detectors/opinion.ts';
import { otherSide } from './detectors/other-side.ts';
import { passive } from './detectors/passive.ts';
import { question } from './detectors/question.ts';
import { quotation } from './detectors/quotation.ts';
import { reasoning } from './detectors/reasoning.ts';
import { repeatedWord } from './detectors/repeated-word.ts';
import { sameBeginnings } from './detectors/same-beginnings.ts';
import { sourceNamed } from './detectors/source-named.ts';
import { specificDetail } from './detectors/specific-detail.ts';
import { spokenFiller } from './detectors/spoken-filler.ts';
import { sweeping } from './detectors/sweeping.ts';
import { taskWords } from './detectors/task-words.ts';
import { technicalTerm } from './detectors/technical-term.ts';
import { tenseShift } from './detectors/tense-shift.ts';
import { tooExact } from './detectors/too-exact.ts';
import { unclearPronoun } from './detectors/unclear-pronoun.ts';
import { vague } from './detectors/vague.ts';
import { veryShort } from './detectors/very-short.ts';
import { wordy } from './detectors/wordy.ts';

/** All that is looked for in a passage. */
export const DETECTORS: readonly Detector[] = [
  claimWithoutSource,
  sourceNamed,
  longSentence,
  passive,
  repeatedWord,
  sameBeginnings,
  numberWithoutUnit,
  hasUnit,
  hedge,
  commaSplice,
  misspelling,
  firstPerson,
  heading,
  quotation,
  informal,
  vague,
  sweeping,
  connective,
  abrupt,
  opening,
  ending,
  example,
  question,
  fragment,
  list,
  tenseShift,
  agreement,
  image,
  calculation,
  tooExact,
  reasoning,
  noReasoning,
  otherSide,
  oneSided,
  technicalTerm,
  abbreviation,
  unclearPronoun,
  apostrophe,
  missingCapital,
  wordy,
  manySentences,
  veryShort,
  figure,
  contrast,
  method,
  opinion,
  spokenFiller,
  doubledWord,
  missingComma,
  colonSemicolon,
  specificDetail,
  taskWords,
  heavyNouns,
];
