import { sure, type Detector } from '../detector.ts';

export const taskWords: Detector = {
  name: 'task-words',
  says: 'speaks about the task itself',
  labels: ['task', 'brief', 'answer the question', 'relevance', 'off topic', 'focus', 'thesis', 'purpose', 'signpost'],
  find: ({ text }) =>
    sure(
      /\b(?:this (?:essay|report|presentation|paper|assignment|sketch|talk)|in this (?:essay|report|paper)|i (?:will|am going to|shall) (?:write|talk|discuss|explain|show|describe|argue)|my (?:essay|topic|project|aim)|the (?:aim|question|task|assignment))\b/iu.test(
        text,
      ),
    ),
};
