import { sure, type Detector } from '../detector.ts';

export const method: Detector = {
  name: 'method',
  says: 'tells how something was done',
  labels: [
    'method',
    'procedure',
    'method section',
    'replicate',
    'steps',
    'sample',
    'fair test',
    'variable',
    'how',
    'reliability',
    'repeat',
  ],
  find: ({ text }) =>
    sure(
      /\b(?:i|we|they|was|were)\s+(?:\w+ly\s+)?(?:measured|counted|recorded|weighed|timed|collected|sampled|observed|asked|interviewed|walked|marked|noted|compared|repeated|used|took|placed|put)\b/iu.test(
        text,
      ),
    ),
};
