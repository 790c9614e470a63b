import { sure, type Detector } from '../detector.ts';

export const tooExact: Detector = {
  name: 'too-exact',
  says: 'gives more digits than can be known',
  labels: ['rounding', 'round', 'significant figures', 'precision', 'decimal', 'decimal places', 'accuracy', 'digits'],
  find: ({ text }) => sure(/\d[.,]\d{3,}(?!\d|,\d{3})/u.test(text)),
};
