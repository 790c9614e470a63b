import { sure, type Detector } from '../detector.ts';

const MEASURED =
  /\d\s*(?:%|‰|°\s?[CF]?|(?:[mckμ]?m|km|cm|mm|kg|g|mg|l|ml|ft|s|min|h|hrs?|Hz|N|J|W|V|ppt|psu|knots?)(?:\/\w+|[²³])?|met(?:re|er)s?|centimet(?:re|er)s?|kilomet(?:re|er)s?|millimet(?:re|er)s?|inch(?:es)?|feet|miles?|minutes?|hours?|seconds?|days?|degrees?|grams?|kilograms?|lit(?:re|er)s?)\b|\d\s*%/u;

export const hasUnit: Detector = {
  name: 'measured',
  says: 'measures something and gives the unit',
  labels: [
    'unit',
    'measurement',
    'measure',
    'data',
    'precise',
    'observation',
    'specific',
    'evidence',
    'figures',
    'detail',
  ],
  find: ({ text }) => sure(MEASURED.test(text)),
};
