import type { SpokenLine } from './spoken-line.ts';

/** What is said about no work: to everyone in an assignment, or in its instructions; by the title of the assignment. */
export interface SampleNote extends SpokenLine {
  place: 'instructions' | 'class';
  assignment: string;
  /** Students who have heard it, by their logins. */
  heardBy: string[];
}

export const NOTES: SampleNote[] = [
  {
    name: 'note-walk',
    voice: 'slt',
    place: 'class',
    assignment: 'A walk along the shore',
    heardBy: ['bronagh-tully'],
    text: 'Good evening, all of you. I have walked with ten of you now, and no two saw the same shore. One thing for everybody: when you give a number, say how you came to it.',
  },
  {
    name: 'note-sketch',
    voice: 'slt',
    place: 'instructions',
    assignment: 'A field sketch',
    heardBy: [],
    text: 'Take a soft pencil and sit down. Draw for ten minutes before you write a single word on the page.',
  },
];
