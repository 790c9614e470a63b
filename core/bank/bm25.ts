/** How quickly more of the same word stops counting, and how much the length of a field does. */
export const SATURATION = 1.2;
export const LENGTH_SHARE = 0.75;

/**
 * How much a word tells that few documents have. S. Robertson, H. Zaragoza: “The Probabilistic Relevance Framework: BM25 and
 * Beyond” (2009), section 3.3; with one added inside the logarithm, as is common practice, so that it is never negative.
 * @param documents how many there are
 * @param having how many of them have the word
 */
export const rarity = (documents: number, having: number): number =>
  Math.log(1 + (documents - having + 0.5) / (having + 0.5));

/**
 * How often a word counts as being in a field, by the field's length (the same, equation 3.17).
 * @param length of the field by the mean length of such fields
 */
export const normalised = (count: number, length: number, share = LENGTH_SHARE): number =>
  count / (1 - share + share * length);

/** The same again and again counts less and less (the same, equation 3.15): from 0 to 1. */
export const saturated = (frequency: number, saturation = SATURATION): number => frequency / (saturation + frequency);
