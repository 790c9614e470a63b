import { answerTasks } from '../threads/asked-thread.ts';
import { CannotMark, writeMarks, type Refusal, type ToMark } from '#core/annotated-pdf';

answerTasks<ToMark, Refusal | null>(writeMarks, (error) => (error instanceof CannotMark ? error.why : null));
