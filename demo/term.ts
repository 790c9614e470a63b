import { CLEAR, LONG_RUBRIC, TRUE, type SampleCriterion } from './assignment.ts';

/** A course whose first term is over: what a gradebook looks like when it is full. */
export const TERM_COURSE = 'Letters from the Tideline';
export const TERM_NAMES = ['Autumn', 'Winter'];
/** Those who are in no story of the other courses. */
export const NOT_IN_TERM = [
  'amaru-quispe',
  'bronagh-tully',
  'chidi-umeh',
  'eleni-marathou',
  'hoku-kalani',
  'ines-bettencourt',
  'bashir-osman',
  'zofia-krol',
];

export interface TermAssignment {
  title: string;
  term: 'Autumn' | 'Winter';
  category: 'Logs' | 'Letters' | 'Talks';
  brief: string;
  dueDaysAgo: number;
  rubric: SampleCriterion[];
  /** Without a rubric: what it is out of, and each grade is typed. */
  possible?: number;
  extra?: boolean;
  /** Typed, and not returned yet. */
  draft?: boolean;
  /** Nobody has handed in anything. */
  coming?: boolean;
}

const SHORT = [CLEAR, TRUE];
const log = (title: string, dueDaysAgo: number, brief: string): TermAssignment => ({
  ...{ title, dueDaysAgo, brief, term: 'Autumn', category: 'Logs', rubric: SHORT },
});
const letter = (title: string, dueDaysAgo: number, brief: string): TermAssignment => ({
  ...{ title, dueDaysAgo, brief, term: 'Autumn', category: 'Letters', rubric: LONG_RUBRIC },
});

export const TERM: TermAssignment[] = [
  log('First sounding', 96, 'Drop a line from the stage at one hour, and write down what you learned.'),
  log('Words for mud', 89, 'Find five people’s words for what you sank into. Say who uses which.'),
  letter('A letter to the harbour office', 80, 'Ask for one thing that is not in their calendar, so that they answer.'),
  log('What the gulls leave', 73, 'One square metre of strand, and all that lies in it.'),
  letter('Three maps of one bay', 61, 'Write to a friend which of the three maps you would sail by, and why.'),
  { ...log('Seminar: reading aloud', 54, 'Read your log to the others.'), category: 'Talks', rubric: [], possible: 10 },
  log('The ferry timetable, read closely', 47, 'What does a timetable say about the people it is for?'),
  letter('A letter that was never sent', 36, 'To somebody on the other shore. Not more than a page.'),
  log('Looking back on the autumn', 26, 'Which of your logs would you write again, and how?'),
  { ...log('Beach clean', 20, 'Half a morning with a bag.'), category: 'Talks', rubric: [], possible: 2, extra: true },
  {
    ...log('Seminar: one object', 6, 'Bring one thing, and say where it has been.'),
    term: 'Winter',
    category: 'Talks',
    rubric: [],
    possible: 10,
    draft: true,
  },
  { ...letter('A letter in winter', -9, 'The same shore, half a year later.'), term: 'Winter', coming: true },
];

/** Beginnings, middles and ends, out of which each student's page is put together. */
export const OPENINGS = [
  'I went down before it was light, because the water was to be lowest then.',
  'Nobody had told me how cold the rail of the stage is in the morning.',
  'The first thing I did was to stand still and count to a hundred.',
  'My grandmother walked here every day, and she never wrote anything down.',
  'There was a wind from the land, so that the shore smelled of hay.',
  'I had borrowed the line from the ferryman, who wanted it back by noon.',
  'I took the later bus, and so I missed what I had come to see.',
  'It rained for the whole hour, and I wrote with a pencil for that reason.',
];
export const MIDDLES = [
  'At the third post the mud came up to my knee, and at the fourth it did not.',
  'Everybody on this side says slob, and everybody on the other side says ooze.',
  'I found eleven shells, a cork, and half of a letter that I could not read.',
  'The water was obviously higher than it had been in the week before.',
  'Between the stage and the light there are four depths on the chart and five in the water.',
  'The timetable knows three kinds of Sunday, and none of them is for people who work.',
  'The gulls drop the mussels on the slipway, always from about the same height.',
  'He told me that the channel moves by a boat’s length each year, to the north.',
  'Where the weed ends the stones are warm, and where it begins they are not.',
  'I measured it twice, with a step of mine, which is seventy centimetres.',
  'The oldest of the maps shows a church where there is a sandbank now.',
  'It was always like this here, and it will always be.',
];
export const ENDS = [
  'I would go again at high water, to see what of this is still true.',
  'That is all I know for sure; the rest is what I was told.',
  'I do not know yet what this means, but I shall ask the harbour office.',
  'The line is back with the ferryman, and it is dry.',
  'What I wrote first was prettier, and this is what I saw.',
  'Somebody who was not there could find the place by this page, I hope.',
];
