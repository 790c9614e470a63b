import { CannotStrip, withoutNames } from '#core/nameless';
import { answerTasks } from '../threads/asked-thread.ts';

export interface ToStrip {
  bytes: Uint8Array;
  format: string;
}

answerTasks<ToStrip, 'cannot' | null>(
  ({ bytes, format }) => withoutNames(bytes, format),
  (error) => (error instanceof CannotStrip ? 'cannot' : null),
);
