import { soundswallower } from './soundswallower.ts';
import { SPEECH_RATE } from './speech-rate.ts';

/**
 * Seconds in which the voice activity detector hears a voice: noise and silence have none.
 * @param samples one channel at SPEECH_RATE
 */
export async function voiceSeconds(samples: Float32Array): Promise<number> {
  const { Endpointer } = await soundswallower();
  const endpointer = new Endpointer({ samprate: SPEECH_RATE, mode: 3 });
  const size = endpointer.get_frame_size();
  let seconds = 0;
  for (let at = 0; at + size <= samples.length; at += size)
    if (endpointer.process(samples.subarray(at, at + size))) seconds += size / SPEECH_RATE;
  return seconds;
}
