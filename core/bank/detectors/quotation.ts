import { sure, type Detector } from '../detector.ts';

const QUOTED = /["“«][^"”»]{12,600}["”»]|[‘'][^‘’']{15,600}[’'](?!\p{L})/u;
/** What follows takes the quotation up. */
const explains = (after: string): boolean =>
  /^[\s"”»’'.,)\d]*(?:\([^()]*\)[.,\s]*)?(?:this|these|here|that is|in other words|the (?:word|phrase|image|writer|author)|which|by)\b/iu.test(
    after,
  );

export const quotation: Detector = {
  name: 'quotation',
  says: 'quotes',
  labels: [
    'quotation',
    'quote',
    'quoting',
    'analysis',
    'comment',
    'integrate',
    'explain',
    'embed',
    'introduce quotation',
    'speech marks',
  ],
  find: ({ text, after }) => sure(QUOTED.test(text)) * (explains(after) ? 0.5 : 1),
};
