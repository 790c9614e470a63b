import { doTask } from '../threads/one-task.ts';
import { NotReadable, readText, type TextTask } from './read-text.ts';

await doTask<TextTask>(readText, (error) => (error instanceof NotReadable ? '' : undefined));
