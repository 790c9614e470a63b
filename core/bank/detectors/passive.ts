import { sure, type Detector } from '../detector.ts';

const IRREGULAR =
  'known|shown|seen|done|made|given|taken|found|held|built|kept|left|lost|sent|told|thought|brought|caught|cut|put|set|read|written|driven|broken|chosen|drawn|eaten|grown|thrown|worn|begun|felt|laid|led|met|paid|said|sold|spent|understood|won|blown|carried|swept|dug';
const PASSIVE = new RegExp(
  `\\b(?:is|are|was|were|be|been|being|gets?|got)\\s+(?:\\w+ly\\s+|not\\s+|also\\s+|then\\s+|often\\s+)?(?:\\w{2,}ed|${IRREGULAR})\\b`,
  'iu',
);

export const passive: Detector = {
  name: 'passive',
  says: 'is in the passive voice',
  labels: ['passive', 'passive voice', 'active', 'active voice', 'voice', 'agent', 'who did it'],
  find: ({ text }) => sure(PASSIVE.test(text)),
};
