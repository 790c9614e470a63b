import { writeMarks, type ToMark } from '#core/annotated-pdf';
import { placePassages, type UnplacedMark } from './place-passages.ts';

/**
 * A file with marks in it, each passage exactly where its letters are drawn.
 * @throws CannotMark
 */
export async function markFile(task: ToMark<UnplacedMark>): Promise<Uint8Array> {
  const marks = await placePassages(task.marks, task.format === 'pdf' ? task.bytes : undefined);
  return writeMarks({ ...task, marks });
}
