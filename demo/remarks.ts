import type { Anchor } from '#core/anchor';
import type { Kind } from '../contract/margin-key.ts';
import { BANK } from './bank.ts';
import { GREETINGS } from './greetings.ts';
import { NOTES } from './notes.ts';
import type { SpokenLine } from './spoken-line.ts';

export interface SampleRemark extends SpokenLine {
  /** Words of the work. */
  passage?: string;
  /** What else it is about; the whole work where there is neither. */
  anchor?: Exclude<Anchor, { type: 'passage' | 'answer' }>;
  /** The number of the question whose answer it is about, from 0. */
  question?: number;
  kind: Kind;
  /** Nobody has read yet what a machine heard: its words are in `voices/NAME.draft.json`. */
  draft?: true;
  /** The same words in other languages. */
  translations?: Record<string, string>;
  heard?: 'begun' | 'finished';
  /** The student says that it is dealt with in their next version. */
  dealt?: true;
  reply?: { text: string; spoken?: SpokenLine };
}

export interface SampleFeedback {
  /** The student's login; it is about the first work that they handed in. */
  student: string;
  returned: boolean;
  /** A teacher says that it may go out. */
  ready?: boolean;
  /** Level chosen for each criterion, counted from 0; undefined where it is not scored yet. */
  levels: (number | undefined)[];
  /** Points given to answers. */
  points?: number[];
  remarks: SampleRemark[];
  /** Remarks of the bank that were said again, by their names there, and about which words of the work. */
  fromBank?: { banked: string; passage: string; heard?: true }[];
}

export const FEEDBACK: SampleFeedback[] = [
  {
    student: 'amaru-quispe',
    returned: true,
    levels: [3, 1, 2],
    remarks: [
      {
        name: 'amaru-whole',
        voice: 'slt',
        kind: 'next',
        text: 'Amaru, I read this with great pleasure. You look closely, and you know where your knowledge ends. The next step is evidence. Wherever a number comes from somebody else, tell us who, when, and how they counted.',
        heard: 'finished',
      },
      {
        name: 'amaru-calendar',
        voice: 'slt',
        passage: 'The three lines are therefore a calendar, and the oldest day stands at the top.',
        kind: 'strength',
        text: 'This is the sentence that your essay stands on. You looked at three lines of weed, and saw time. Keep it exactly as it is.',
        translations: {
          ar: 'هذه هي الجملة التي يقوم عليها مقالك. نظرت إلى ثلاثة خطوط من الأعشاب ورأيت الزمن. اتركها كما هي تمامًا.',
          es: 'Esta es la frase en la que se apoya tu ensayo. Miraste tres líneas de algas y viste el tiempo. Déjala exactamente como está.',
        },
        heard: 'finished',
      },
      {
        name: 'amaru-obvious',
        voice: 'slt',
        passage: 'The reason is obvious.',
        kind: 'repair',
        text: 'When you write that a reason is obvious, the reader stops looking. Take these four words out, and your explanation becomes stronger.',
        heard: 'finished',
      },
      {
        name: 'amaru-enough',
        voice: 'slt',
        passage: 'I did not lift enough of it to be sure',
        kind: 'question',
        text: 'I like that you say this. How many patches would have been enough? Give me a number, and say why.',
        heard: 'finished',
        reply: { text: 'I lifted five. Would twenty be enough, if I spread them over the whole line?' },
      },
      {
        name: 'amaru-turnstones',
        voice: 'slt',
        passage: 'there used to be forty turnstones here, and now there are six',
        kind: 'next',
        text: 'Who told you, and when was there last a count? In your next version, say where these two numbers come from, because your argument rests on them.',
        heard: 'begun',
      },
    ],
  },
  {
    student: 'bronagh-tully',
    returned: true,
    levels: [3, 3, 1],
    fromBank: [
      { banked: 'bank-detail', passage: 'Instead you can lay a ruler along the line.', heard: true },
      {
        banked: 'bank-fair',
        passage:
          'Drying out explains the upper edges, in my opinion, because every kind goes up as far as it can bear.',
      },
    ],
    remarks: [
      {
        name: 'bronagh-whole',
        voice: 'rms',
        kind: 'strength',
        text: 'Bronagh, this is careful work. You measured, and then you thought about what you had measured. Give your ending as much room as your table.',
        heard: 'finished',
        dealt: true,
        reply: {
          text: 'I gave the ending more room: it says now what surprised me, and what I do not understand yet.',
        },
      },
      {
        name: 'bronagh-time',
        voice: 'rms',
        passage: 'So the bands are really a measure of time, not of height.',
        kind: 'strength',
        text: 'Here you turn a table of heights into an idea. That is the best moment of the essay.',
        heard: 'finished',
        dealt: true,
      },
      {
        name: 'bronagh-lower',
        voice: 'rms',
        passage: 'It does not explain the lower ones.',
        kind: 'question',
        text: 'A good doubt. What could you do on the slip, with a brush and some patience, to find out whether one weed keeps the other away?',
        reply: {
          text: '',
          spoken: {
            name: 'bronagh-reply',
            voice: 'awb',
            text: 'I could clear a small square of the lower weed, and see if the upper one moves in.',
          },
        },
      },
    ],
  },
  {
    student: 'dagny-holmqvist',
    returned: false,
    levels: [2, undefined, undefined],
    remarks: [
      {
        name: 'dagny-planned',
        voice: 'slt',
        passage: 'nobody who planned it can have thought about the second half of this sentence',
        kind: 'question',
        text: 'How could you find out what they thought? There may be a plan, or a letter, that you could ask to see.',
      },
      {
        name: 'dagny-thud',
        voice: 'slt',
        passage: 'on the sand there is a hiss, at the wall there is a thud',
        kind: 'strength',
        text: 'I can hear this. You make the physics audible without one technical word.',
        draft: true,
      },
      {
        name: 'dagny-everybody',
        voice: 'slt',
        passage: 'Everybody knows that walls cause erosion.',
        kind: 'repair',
        text: 'If everybody knows it, you need not say it. If they do not, this is the place where your measurement belongs. The metre and a half is your evidence. Use it here.',
      },
    ],
  },
  {
    student: 'sione-tuipulotu',
    returned: false,
    levels: [3, undefined, undefined],
    fromBank: [
      { banked: 'bank-method', passage: 'Forty-one people answered.' },
      { banked: 'bank-central', passage: 'The timetable pretends that the estuary is a road.' },
      {
        banked: 'bank-weigh',
        passage: 'Against this it is said that people cannot plan with times that change from day to day.',
      },
    ],
    remarks: [
      {
        name: 'sione-when',
        voice: 'rms',
        passage: 'whether the ferry lands is a question of when, and hardly ever of weather.',
        kind: 'strength',
        text: 'One short word carries this whole sentence. Well found.',
      },
      {
        name: 'sione-missing',
        voice: 'rms',
        passage: 'so they are missing from my forty-one.',
        kind: 'next',
        text: 'You see the hole in your own count. Say how you would go and find the people in it.',
      },
    ],
  },
  {
    student: 'mirza-hadzic',
    returned: false,
    ready: true,
    levels: [3, 2],
    remarks: [
      {
        name: 'mirza-table',
        voice: 'slt',
        anchor: { type: 'region', leaf: 1, x: 0.06, y: 0.27, width: 0.68, height: 0.4 },
        kind: 'question',
        text: 'Three numbers would be enough here. Which three would you shout across the water?',
      },
      {
        name: 'mirza-sentence',
        voice: 'slt',
        passage: 'Twenty-two of seventy-seven trips should never have begun.',
        kind: 'strength',
        text: 'Say this sentence slowly, and then say nothing for a while.',
      },
    ],
  },
  {
    student: 'oyuna-batbayar',
    returned: false,
    levels: [undefined, 2],
    remarks: [
      {
        name: 'oyuna-edge',
        voice: 'slt',
        anchor: { type: 'region', leaf: 0, x: 0.62, y: 0.25, width: 0.33, height: 0.2 },
        kind: 'question',
        text: 'You write that the edge is sharp, but your line is soft here. What did you see?',
      },
      {
        name: 'oyuna-wrack',
        voice: 'slt',
        anchor: { type: 'region', leaf: 0, x: 0.2, y: 0.63, width: 0.5, height: 0.1 },
        kind: 'strength',
        text: 'Three strokes, and it is wrack and nothing else.',
      },
    ],
  },
  {
    student: 'rania-haddadin',
    returned: false,
    levels: [2, undefined],
    remarks: [
      {
        name: 'rania-question',
        voice: 'slt',
        anchor: { type: 'span', leaf: 0, start: 0.2, end: 2.2 },
        kind: 'next',
        text: 'This question can be answered with a number. Ask one that needs a story.',
      },
    ],
  },
  {
    student: 'xochitl-barrera',
    returned: false,
    levels: [],
    remarks: [
      {
        name: 'xochitl-reading',
        voice: 'rms',
        anchor: { type: 'cells', leaf: 0, top: 7, left: 4, bottom: 7, right: 6 },
        kind: 'strength',
        text: 'You say which figure is not your own. That makes me believe all the others.',
      },
    ],
  },
  {
    student: 'giulia-ferrante',
    returned: false,
    levels: [],
    points: [2, 1, 1],
    remarks: [
      {
        name: 'giulia-rule',
        voice: 'rms',
        question: 3,
        kind: 'next',
        text: 'The answer is right. In the exam I will want to see the rule of twelfths beside it.',
      },
    ],
  },
];

export const spokenLines = (): SpokenLine[] => [
  ...FEEDBACK.flatMap(({ remarks }) => remarks).flatMap((remark) => [
    remark,
    ...(remark.reply?.spoken ? [remark.reply.spoken] : []),
  ]),
  ...BANK,
  ...GREETINGS,
  ...NOTES,
];
