import { sure, type Detector } from '../detector.ts';

export const opening: Detector = {
  name: 'opening',
  says: 'opens the work',
  labels: ['introduction', 'opening', 'hook', 'thesis', 'beginning', 'intro', 'start', 'first sentence', 'title'],
  find: ({ before }) => sure(before.replace(/^[^\n]{0,80}\n/u, '').trim().length < 40),
};
