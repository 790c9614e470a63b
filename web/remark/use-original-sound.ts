import { remarkOriginalPath, type Remark } from '#contract/remarks';
import { useOutbox } from '../outbox/outbox.ts';
import { soundBlob } from '../player/sound-url.ts';

/** Fetches a recording as it was spoken. The server has it; one that is not there yet is the one that plays. */
export function useOriginalSound(): (remark: Remark) => Promise<ArrayBuffer> {
  const outbox = useOutbox();
  return async (remark) => {
    if (outbox.stateOf(remark.id) !== 'saved') return (await soundBlob(remark)).arrayBuffer();
    const answer = await fetch(remarkOriginalPath(remark.id));
    if (!answer.ok) throw new Error('not here');
    return answer.arrayBuffer();
  };
}
