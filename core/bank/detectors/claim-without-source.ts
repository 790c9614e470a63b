import { sure, type Detector } from '../detector.ts';
import { namesSource } from './source-named.ts';

/** Words by which a text says that something is so, or that many know it. */
const CLAIM =
  /\b(?:clearly|obvious(?:ly)?|of course|undoubtedly|without (?:a )?doubt|certainly|proves?|proven|studies|research(?:ers)?|scientists?|experts?|statistics|surveys?|(?:most|many|some) people|people (?:say|think|believe)|everyone|everybody|it is (?:well )?known|known (?:to|that)|known for|the fact that|it is (?:said|believed|thought)|shows? that|has been shown|caus(?:es|ed)|leads? to|results? in|due to|the (?:main|biggest|only) (?:reason|cause)|per ?cent|%)/iu;

export const claimWithoutSource: Detector = {
  name: 'claim-without-source',
  says: 'claims something and names no source near it',
  labels: [
    'source',
    'evidence',
    'citation',
    'cite',
    'reference',
    'support',
    'proof',
    'claim',
    'unsupported',
    'assertion',
    'referencing',
    'back up',
  ],
  find: ({ text, around }) => sure(CLAIM.test(text) && !namesSource(around)),
};
