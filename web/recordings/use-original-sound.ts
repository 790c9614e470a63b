import { urlOf } from '#contract/endpoint';
import { recordingOriginal, type Recording } from '#contract/recordings';
import { useOutbox } from '../outbox/outbox.ts';
import { soundBlob } from '../player/media-url.ts';

/** The bytes of a recording as it was spoken. The server has them; one that is not there yet is the one that plays. */
export function useOriginalSound(): (recording: Recording) => Promise<ArrayBuffer> {
  const outbox = useOutbox();
  return async (recording) => {
    if (outbox.stateOf(recording.id) !== 'saved') return (await soundBlob(recording)).arrayBuffer();
    const answer = await fetch(urlOf(recordingOriginal, { recording: recording.id }));
    if (!answer.ok) throw new Error('The original is not here');
    return answer.arrayBuffer();
  };
}
