import { sure, type Detector } from '../detector.ts';

export const figure: Detector = {
  name: 'figure',
  says: 'speaks of a figure, a table or a graph',
  labels: [
    'figure',
    'caption',
    'label',
    'axis',
    'graph',
    'table',
    'chart',
    'diagram',
    'labels',
    'key',
    'scale',
    'legend',
  ],
  find: ({ text }) =>
    sure(
      /\b(?:fig(?:ure|\.)|table|graph|chart|diagram|axis|axes|sketch|picture|photo(?:graph)?|map|plot(?:ted)?|scale|legend|drawing|slide)\b/iu.test(
        text,
      ),
    ),
};
