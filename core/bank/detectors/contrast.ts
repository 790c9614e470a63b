import { sure, type Detector } from '../detector.ts';

export const contrast: Detector = {
  name: 'contrast',
  says: 'compares',
  labels: ['comparison', 'compare', 'contrast', 'similarities', 'differences'],
  find: ({ text }) =>
    sure(
      /\b(?:(?:more|less|higher|lower|bigger|smaller|larger|longer|shorter|faster|slower|better|worse|\w+er) than|compared (?:to|with)|whereas|unlike|in contrast|both|similar(?:ly)?|the same as|differs?|different from|while the)\b/iu.test(
        text,
      ),
    ),
};
