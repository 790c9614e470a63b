import { sure, type Detector } from '../detector.ts';

const CONCLUDES =
  /\b(?:in conclusion|to conclude|to sum up|in summary|overall|all in all|in the end|to summarise|to summarize|in short|ultimately)\b/iu;

export const ending: Detector = {
  name: 'ending',
  says: 'ends the work',
  labels: ['conclusion', 'ending', 'summary', 'close', 'final', 'end', 'closing', 'last sentence'],
  find: ({ text, after }) => Math.max(sure(after.trim().length < 20) * 0.6, sure(CONCLUDES.test(text))),
};
