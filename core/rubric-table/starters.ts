import type { PlainCriterion } from './rubric-table.ts';

const LEVELS = ['Not yet', 'On the way', 'Secure', 'Strong'];

const criterion = (
  title: string,
  description: string,
  points: readonly number[],
  texts: readonly string[],
): PlainCriterion => ({
  ...{ title, description },
  levels: points.map((value, index) => ({
    title: LEVELS[index + LEVELS.length - points.length]!,
    description: texts[index]!,
    points: value * 100,
  })),
});

/** Rubrics to begin with, invented for this app. */
export const STARTERS: { title: string; rubric: PlainCriterion[] }[] = [
  {
    title: 'An essay that argues',
    rubric: [
      criterion(
        'Claim',
        'What the essay wants us to believe.',
        [0, 2, 4, 6],
        [
          'We cannot tell.',
          'There is a topic, but nothing to disagree with.',
          'A claim that somebody could dispute.',
          'A claim that changes how we see the matter.',
        ],
      ),
      criterion(
        'Support',
        'Why we should.',
        [0, 3, 6, 9],
        [
          'Opinions only.',
          'Reasons, of which some belong to the claim.',
          'Reasons with evidence that we could check.',
          'The strongest objection is met, too.',
        ],
      ),
      criterion(
        'Path',
        'How one thing leads to the next.',
        [0, 2, 4, 5],
        [
          'A heap.',
          'An order that could be another one.',
          'Each paragraph needs the one before it.',
          'We are led without noticing.',
        ],
      ),
    ],
  },
  {
    title: 'A report of something tried',
    rubric: [
      criterion(
        'Question',
        'What was to be found out.',
        [0, 2, 4],
        ['It is not said.', 'It is said, but cannot be answered by trying.', 'It can be answered by what was done.'],
      ),
      criterion(
        'Method',
        'What was done, so that we could do it again.',
        [0, 3, 6, 8],
        [
          'Left out.',
          'The main steps.',
          'All steps, with amounts and times.',
          'Also what was done so that nothing else explains the result.',
        ],
      ),
      criterion(
        'Result',
        'What came of it.',
        [0, 3, 6, 8],
        [
          'Impressions.',
          'Numbers without units, or without a table.',
          'Numbers that a reader can follow.',
          'Also how sure they are.',
        ],
      ),
    ],
  },
  {
    title: 'Something said to an audience',
    rubric: [
      criterion(
        'For whom',
        'Whether it is made for those who listen.',
        [0, 2, 4],
        ['It could be for anybody.', 'It names them.', 'It begins with what they know and want.'],
      ),
      criterion(
        'One thing',
        'What we take home.',
        [0, 2, 4, 5],
        [
          'Nothing in particular.',
          'Many things of the same size.',
          'One thing, and what supports it.',
          'One thing that we can say again in our own words.',
        ],
      ),
      criterion(
        'Voice',
        'Pace, pauses, and whether it is spoken or read out.',
        [0, 2, 4],
        ['Hard to follow.', 'Clear, and read out.', 'Spoken to us.'],
      ),
    ],
  },
];
