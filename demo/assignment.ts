export const COURSE = 'Reading the Shore';

export const ASSIGNMENT = {
  title: 'A walk along the shore',
  brief:
    'Walk one stretch of the Fennick shore. Say what you saw, what it tells about the place, and where your evidence ends. About 400 words, as a Word document.',
};

/** Points of the four levels, lowest first. */
const LEVELS = ['Not yet', 'On the way', 'Secure', 'Strong'];

export interface SampleCriterion {
  title: string;
  description: string;
  levels: { title: string; description: string; points: number }[];
}

const criterion = (title: string, description: string, points: number[], levels: string[]): SampleCriterion => ({
  title,
  description,
  levels: levels.map((text, index) => ({ title: LEVELS[index]!, description: text, points: points[index]! })),
});

export const RUBRIC: SampleCriterion[] = [
  criterion(
    'Observation',
    'What was seen, and how exactly.',
    [2, 5, 7.5, 10],
    [
      'Says that something was there.',
      'Describes it, in general words.',
      'Describes it so that we could find it.',
      'Notices what most people walk past.',
    ],
  ),
  criterion(
    'Evidence',
    'How we know, and how surely.',
    [2, 5, 7.5, 10],
    [
      'Claims stand alone.',
      'Some claims have a reason.',
      'Claims are measured or have a source.',
      'Says also what would prove it wrong.',
    ],
  ),
  criterion(
    'Line of thought',
    'Whether one thing leads to the next.',
    [1, 2.5, 4, 5],
    [
      'A list of things seen.',
      'An order, but no direction.',
      'Each part prepares the next.',
      'The end could not be guessed and yet follows.',
    ],
  ),
];

export const SCALE = [
  { grade: 'Distinction', from: 85 },
  { grade: 'Merit', from: 70 },
  { grade: 'Pass', from: 50 },
  { grade: 'Not yet', from: 0 },
];

/** How many days before the sample school is filled each essay came in; the work was due two days before. */
export const HANDED_IN: Record<string, number> = {
  'amaru-quispe': 6,
  'bronagh-tully': 5.4,
  'dagny-holmqvist': 4.1,
  'eleni-marathou': 3.9,
  'farid-noorzai': 3.2,
  'hoku-kalani': 3,
  'ines-bettencourt': 2.7,
  'jomo-wekesa': 2.4,
  'kateryna-bilyk': 2.1,
  'liang-meixiu': 0.8,
};
export const DUE_DAYS_AGO = 2;
