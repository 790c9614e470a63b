import type { Kind } from '../contract/margin-key.ts';
import type { SaidWords } from '../contract/said.ts';

export interface WrittenRemark {
  /** The student's login; it is about the first work that they handed in. */
  student: string;
  passage: string;
  kind: Kind;
  words: Partial<SaidWords>;
  /** By the second teacher of the course. */
  second?: boolean;
}

/** Remarks of the sample school that nobody spoke. */
export const WRITTEN: readonly WrittenRemark[] = [
  {
    student: 'amaru-quispe',
    passage: 'My neighbour is right that a strand line contains rubbish',
    kind: 'next',
    words: {
      suggestion: 'My neighbour is right that this strand line contained rubbish',
      text: 'You saw one line on one day. Claim that much and no more.',
    },
  },
  {
    student: 'amaru-quispe',
    passage: 'they put the bill under a piece of weed, threw it over, and ate what ran',
    kind: 'strength',
    words: { reaction: '👏' },
  },
  {
    student: 'amaru-quispe',
    passage: 'it takes all three lines away',
    kind: 'question',
    words: {
      text: 'The harbour office keeps a calendar of the clearings. Would the dates help you?',
      link: 'https://example.org/harbour-office/clearings',
      tags: ['sources'],
    },
    second: true,
  },
  {
    student: 'dagny-holmqvist',
    passage: 'In front of the wall there is hardly any sand',
    kind: 'strength',
    words: { stamp: { drawing: 'eye', size: 2.5 } },
  },
  {
    student: 'dagny-holmqvist',
    passage: 'It would be better to take the wall away and bring sand',
    kind: 'repair',
    words: { suggestion: 'It might be better to take the wall away and bring sand' },
  },
  {
    student: 'dagny-holmqvist',
    passage: 'he said that he sleeps well',
    kind: 'next',
    words: { text: 'She asked me for an interview form. I have sent her ours.', private: true, tags: ['interview'] },
    second: true,
  },
];
