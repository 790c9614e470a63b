import type { Kind } from '../contract/remarks.ts';

export type Voice = 'rms' | 'slt' | 'awb';

/** What is said in the sample school. The words are spoken once by `make/voices.ts` and shipped as Opus. */
export interface SpokenLine {
  /** Names the file in `voices/`. */
  name: string;
  voice: Voice;
  text: string;
}

export interface SampleRemark extends SpokenLine {
  /** Words of the work; the whole work where there are none. */
  passage?: string;
  kind: Kind;
  heard?: 'begun' | 'finished';
  reply?: { text: string; spoken?: SpokenLine };
}

export interface SampleFeedback {
  /** The student's document in `documents/`. */
  essay: string;
  returned: boolean;
  /** Level chosen for each criterion, counted from 0; undefined where it is not scored yet. */
  levels: (number | undefined)[];
  remarks: SampleRemark[];
}

export const FEEDBACK: SampleFeedback[] = [
  {
    essay: 'amaru-quispe',
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
    essay: 'bronagh-tully',
    returned: true,
    levels: [3, 3, 1],
    remarks: [
      {
        name: 'bronagh-whole',
        voice: 'rms',
        kind: 'strength',
        text: 'Bronagh, this is careful work. You measured, and then you thought about what you had measured. Give your ending as much room as your table.',
        heard: 'finished',
      },
      {
        name: 'bronagh-time',
        voice: 'rms',
        passage: 'So the bands are really a measure of time, not of height.',
        kind: 'strength',
        text: 'Here you turn a table of heights into an idea. That is the best moment of the essay.',
        heard: 'finished',
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
    essay: 'dagny-holmqvist',
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
];

export const spokenLines = (): SpokenLine[] =>
  FEEDBACK.flatMap(({ remarks }) => remarks).flatMap((remark) => [
    remark,
    ...(remark.reply?.spoken ? [remark.reply.spoken] : []),
  ]);
