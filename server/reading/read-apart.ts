import { problems } from '../errors.ts';
import { heavyWork } from '../threads/heavy-work.ts';
import { OverLimit, runTask, TaskRefused } from '../threads/one-task.ts';
import { NotReadable, readText, type Readings, type TextTask } from './read-text.ts';

/** What is shorter is read at once: that takes less time than to begin a thread. */
const SHORT = 64 * 1024;
const LIMITS = { memory: 512, cpu: 10 };

/**
 * Reads a text from outside; a long one in a thread, in turn with what others ask for and with limits.
 * @param who asks, and has one turn at a time
 * @throws NotReadable or ProblemError
 */
export async function readTextApart<Kind extends TextTask['kind']>(
  who: string,
  task: TextTask & { kind: Kind },
): Promise<Readings[Kind]> {
  if (task.text.length <= SHORT) return readText(task) as Readings[Kind];
  try {
    return await heavyWork.take(who, () => runTask<Readings[Kind]>('reading', task, LIMITS));
  } catch (error) {
    if (error instanceof TaskRefused) throw new NotReadable();
    throw error instanceof OverLimit ? problems.textTooLarge() : error;
  }
}
