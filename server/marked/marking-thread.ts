import { askedThread, type AskedThread } from '../threads/asked-thread.ts';
import { problems } from '../errors.ts';
import type { Refusal, ToMark } from '#core/annotated-pdf';
import type { UnplacedMark } from './place-passages.ts';

/** Files are marked apart from the server's own thread. */
export const markingThread = (): AskedThread<ToMark<UnplacedMark>> =>
  askedThread<ToMark<UnplacedMark>, Refusal | null>('marking', {
    refused: (why) => (why === 'protected' ? problems.fileProtected() : problems.cannotMark()),
    silent: () => problems.cannotMark(),
  });
