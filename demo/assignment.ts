import type { Question } from '#core/folio';
import type { Marking } from '#core/grading';

export const COURSE = 'Reading the Shore';
/** Taught by one of its teachers alone. */
export const SECOND_COURSE = 'Counting the Tide';
export const TERMS = ['Winter', 'Spring'];

export interface SampleQuestion {
  kind: Question['kind'];
  prompt: string;
  choices?: string[];
  points: number;
}

export interface SampleWork {
  /** The student's login. */
  student: string;
  /** Files in `documents/`. */
  files?: string[];
  /** What was typed, in the order of the questions. */
  answers?: string[];
  /** How many days before the sample school is filled it came in. */
  daysAgo: number;
  /** Points for the whole work. */
  total?: number;
}

/** What a teacher has decided about a student. */
export interface SampleStanding {
  student: string;
  flag?: 'missing' | 'incomplete' | 'excused';
  extendedDaysAgo?: number;
}

export interface SampleAssignment {
  title: string;
  course?: typeof SECOND_COURSE;
  term?: string;
  category?: string;
  /** Per cent of the result of its course. */
  weight?: number;
  marking?: Partial<Marking>;
  scale?: typeof SCALE;
  anonymous?: boolean;
  standings?: SampleStanding[];
  brief: string;
  dueDaysAgo: number;
  rubric: SampleCriterion[];
  questions?: SampleQuestion[];
  /** Files that it hands out. */
  handouts?: { name: string; given: 'atOnce' | 'withReturn'; text: string }[];
  /** In the order in which they came in: a second work of one student is a second version. */
  works: SampleWork[];
}

/** Points of the four levels, lowest first. */
const LEVELS = ['Not yet', 'On the way', 'Secure', 'Strong'];

export interface SampleCriterion {
  title: string;
  description: string;
  levels: { title: string; description: string; points: number }[];
  /** Per cent. */
  weight?: number;
  bonus?: boolean;
}

const criterion = (title: string, description: string, points: number[], levels: string[]): SampleCriterion => ({
  title,
  description,
  levels: levels.map((text, index) => ({ title: LEVELS[index]!, description: text, points: points[index]! })),
});

export const LONG_RUBRIC: SampleCriterion[] = [
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

const short = (title: string, description: string, levels: string[]): SampleCriterion =>
  criterion(title, description, [1, 2.5, 4, 5], levels);

export const CLEAR = short('Clear at a glance', 'Whether somebody who was not there understands it.', [
  'One has to ask.',
  'One has to look twice.',
  'It says what it means.',
  'One remembers it the next day.',
]);
export const TRUE = short('True to the place', 'Whether what is shown was really seen.', [
  'It could be anywhere.',
  'Some of it is from here.',
  'It is from here, and from one day.',
  'It says also what was not seen.',
]);

const essay = (student: string, daysAgo: number): SampleWork => ({ student, files: [`${student}.docx`], daysAgo });

const fog = (student: string, daysAgo: number): SampleWork => ({ student, files: [`fog-${student}.md`], daysAgo });

export const ASSIGNMENTS: SampleAssignment[] = [
  {
    title: 'A walk along the shore',
    ...{ term: 'Winter', category: 'Essays', weight: 20 },
    standings: [
      { student: 'chidi-umeh', flag: 'missing' },
      { student: 'giulia-ferrante', flag: 'excused' },
      { student: 'jomo-wekesa', flag: 'incomplete' },
      { student: 'liang-meixiu', extendedDaysAgo: 0.5 },
    ],
    brief:
      'Walk one stretch of the Fennick shore. Say what you saw, what it tells about the place, and where your evidence ends. About 400 words, as a Word document.',
    dueDaysAgo: 2,
    rubric: LONG_RUBRIC,
    works: [
      essay('amaru-quispe', 6),
      essay('bronagh-tully', 5.4),
      essay('dagny-holmqvist', 4.1),
      essay('eleni-marathou', 3.9),
      essay('farid-noorzai', 3.2),
      essay('hoku-kalani', 3),
      essay('ines-bettencourt', 2.7),
      essay('jomo-wekesa', 2.4),
      essay('kateryna-bilyk', 2.1),
      essay('liang-meixiu', 0.8),
      { student: 'bronagh-tully', files: ['bronagh-tully-2.docx'], daysAgo: 0.6 },
    ],
  },
  {
    title: 'A place I know better than others',
    ...{ term: 'Winter', category: 'Essays', weight: 20 },
    marking: {
      shown: 'percent',
      decimals: 1,
      late: { grace: 30, unit: 'day', percent: 1000, of: 'possible', floor: 4000 },
    },
    brief: 'Write about one place on the estuary that you know better than most people do. Any text format will do.',
    dueDaysAgo: 1.75,
    rubric: LONG_RUBRIC.map((one, index) => ({ ...one, weight: [40, 40, 20][index]! })),
    works: [
      { student: 'sione-tuipulotu', files: ['sione-tuipulotu.pdf'], daysAgo: 1.9 },
      { student: 'thandiwe-moyo', files: ['thandiwe-moyo.odt'], daysAgo: 1.8 },
      { student: 'usha-ramanathan', files: ['usha-ramanathan.md'], daysAgo: 1.8 },
      { student: 'vahan-petrosyan', files: ['vahan-petrosyan.txt'], daysAgo: 1.7 },
      { student: 'wanja-gitau', files: ['wanja-gitau.html'], daysAgo: 1.6 },
    ],
  },
  {
    title: 'A pitch in six slides',
    ...{ term: 'Spring', category: 'Speaking', weight: 10 },
    marking: { shown: 'points', halfSteps: true },
    brief: 'Ask the harbour council for one thing. Not more than six slides; what you want to say goes into the notes.',
    dueDaysAgo: 1.4,
    rubric: [CLEAR, { ...TRUE, bonus: true }],
    works: [
      { student: 'mirza-hadzic', files: ['mirza-hadzic.pptx'], daysAgo: 1.5 },
      { student: 'nomvula-dlangamandla', files: ['nomvula-dlangamandla.odp'], daysAgo: 1.45 },
    ],
  },
  {
    title: 'A field sketch',
    brief: 'Draw one thing where it stands. Photograph the page, or scan it, and hand in the picture.',
    handouts: [
      {
        ...{ name: 'What to take along.txt', given: 'atOnce' },
        text: 'A soft pencil, something to lean on, a watch, and a coin to lie beside what you draw.\n',
      },
      {
        ...{ name: 'How I would label one.txt', given: 'withReturn' },
        text: 'Draw first. Then a line to each part, its name, how long it is, and the time of day.\n',
      },
    ],
    dueDaysAgo: 1.3,
    rubric: [CLEAR, TRUE],
    works: [
      { student: 'oyuna-batbayar', files: ['oyuna-batbayar.png'], daysAgo: 1.4 },
      { student: 'piotr-wysocki', files: ['piotr-wysocki.jpg'], daysAgo: 1.4 },
      { student: 'quyen-truong', files: ['quyen-truong.webp', 'xochitl-barrera.csv'], daysAgo: 1.35 },
    ],
  },
  {
    title: 'An interview on the quay',
    ...{ term: 'Spring', category: 'Speaking', weight: 10 },
    scale: [
      { grade: 'Passed', from: 50 },
      { grade: 'Not yet passed', from: 0 },
    ],
    brief: 'Ask somebody who works on the water one good question, and record the answer. Two minutes at the most.',
    dueDaysAgo: 1.2,
    rubric: [CLEAR, TRUE],
    works: [
      { student: 'rania-haddadin', files: ['rania-haddadin.ogg'], daysAgo: 1.3 },
      { student: 'zofia-krol', files: ['zofia-krol.mp3'], daysAgo: 1.3 },
      { student: 'aroha-ngata', files: ['aroha-ngata.m4a'], daysAgo: 1.25 },
      { student: 'bashir-osman', files: ['bashir-osman.wav'], daysAgo: 1.25 },
      { student: 'catrin-pryce', files: ['catrin-pryce.webm'], daysAgo: 1.25 },
      { student: 'dorji-wangmo', files: ['dorji-wangmo.mp4'], daysAgo: 1.21 },
    ],
  },
  {
    title: 'A week of tides',
    brief: 'Write down high and low water of one week as a table, with the height where you can measure it.',
    dueDaysAgo: 1.1,
    rubric: [TRUE],
    works: [
      { student: 'xochitl-barrera', files: ['xochitl-barrera.csv'], daysAgo: 1.2 },
      { student: 'yusuf-demirkan', files: ['yusuf-demirkan.xlsx'], daysAgo: 1.15 },
    ],
  },
  {
    title: 'Tide arithmetic',
    brief: 'Use the tide table of the ninth of March. Show how you got there where it says so.',
    dueDaysAgo: -3,
    rubric: [],
    questions: [
      { kind: 'number', prompt: 'High water is 4.9 m and low water 0.8 m. What is the range in metres?', points: 2 },
      {
        kind: 'choice',
        prompt: 'In which hour after low water does the water rise quickest?',
        choices: ['in the first', 'in the third', 'in the sixth'],
        points: 1,
      },
      { kind: 'short', prompt: 'What is the short time called in which the water stands still?', points: 1 },
      {
        kind: 'long',
        prompt:
          'The ferry needs 1.5 m at the stage, and the bottom there lies at 0.9 m above chart datum. Between which times can it land? Show how you got there.',
        points: 6,
      },
    ],
    works: [
      {
        student: 'giulia-ferrante',
        answers: [
          '4.1',
          'in the third',
          'slack water',
          'The ferry needs 0.9 + 1.5 = 2.4 m of tide.\nIn the third hour after low water half of the range has come in, that is 0.8 + 2.05 = 2.85 m.\nSo a little before three hours after low water there is enough, about ten past three in the afternoon, and the same before the next low water.',
        ],
        daysAgo: 1,
      },
      {
        student: 'chidi-umeh',
        answers: ['4,1', 'in the first', 'turn of the tide', 'It can land around high water.'],
        daysAgo: 0.9,
      },
    ],
  },
  {
    title: 'Fog, in a hundred words',
    course: SECOND_COURSE,
    brief: 'Describe one foggy hour so that somebody who was not there hears it. About a hundred words.',
    dueDaysAgo: 0.5,
    anonymous: true,
    marking: { shown: 'points', possible: 2000 },
    rubric: [],
    works: [{ ...fog('chidi-umeh', 0.9), total: 17 }, fog('hoku-kalani', 0.8), fog('kateryna-bilyk', 0.7)],
  },
];

export const SCALE = [
  { grade: 'Distinction', from: 85 },
  { grade: 'Merit', from: 70 },
  { grade: 'Pass', from: 50 },
  { grade: 'Not yet', from: 0 },
];
