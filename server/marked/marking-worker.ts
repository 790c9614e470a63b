import { CannotMark, type Refusal, type ToMark } from '#core/annotated-pdf';
import { answerTasks } from '../threads/asked-thread.ts';
import { markFile } from './mark-file.ts';
import type { UnplacedMark } from './place-passages.ts';

answerTasks<ToMark<UnplacedMark>, Refusal | null>(markFile, (error) =>
  error instanceof CannotMark ? error.why : null,
);
