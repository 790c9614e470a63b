import { sure, type Detector } from '../detector.ts';

export const calculation: Detector = {
  name: 'calculation',
  says: 'calculates',
  labels: [
    'calculation',
    'working',
    'show your working',
    'arithmetic',
    'steps',
    'maths',
    'math',
    'method',
    'equation',
    'formula',
  ],
  find: ({ text }) =>
    sure(
      /\d\s*(?:[+×*÷/=−]|-\s)\s*\d|=\s*[-−]?\d|\b(?:times|divided by|multiplied by|plus|minus|subtract|average|mean|total)\b.*\d/iu.test(
        text,
      ),
    ),
};
