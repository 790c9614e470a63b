import { joinedTranscript } from '#core/transcript';
import type { BankedRemark } from '#contract/bank';
import type { Recording } from '#contract/recordings';
import type { Transcript } from '#contract/transcripts';
import type { KeptSound } from '../outbox/kept.ts';
import { soundBlob } from '../player/media-url.ts';
import { decode, greetSound } from '../recorder/sound-work.ts';

export interface Greeted {
  sound: KeptSound;
  /** Null where a machine has to listen to it. */
  transcript: Transcript | null;
}

/** The moment of its gap, in seconds; undefined where it has none, or nobody knows when its words are said. */
export function gapOf({ gap, recording }: Pick<BankedRemark, 'gap' | 'recording'>): number | undefined {
  const words = recording?.transcript?.words ?? [];
  const [before, after] = gap === null ? [] : [words[gap - 1], words[gap]];
  return before && after ? (before.end + after.start) / 2 : undefined;
}

/**
 * A banked remark with a greeting before it, or in its gap.
 * @throws Error where the browser cannot join sounds, or one of them is not here
 */
export async function greetWith(banked: BankedRemark, greeting: Recording): Promise<Greeted> {
  const recording = banked.recording!;
  const [hello, remark] = await Promise.all([samplesOf(greeting), samplesOf(recording)]);
  const gap = gapOf(banked);
  const joined = await greetSound({ greeting: hello.samples, banked: remark.samples, rate: hello.rate, gap });
  const { blob, sha256, duration, peaks } = joined;
  const first = joined.banked.length > 1 ? joined.banked[0] : undefined;
  const parts = [
    ...(first ? [{ transcript: recording.transcript, ...first }] : []),
    { transcript: greeting.transcript, ...joined.greeting },
    { transcript: recording.transcript, ...joined.banked.at(-1)! },
  ];
  const known = parts.flatMap(({ transcript, ...part }) => (transcript ? [{ transcript, ...part }] : []));
  return {
    sound: { blob, sha256, duration, peaks, microphone: { type: 'device' }, picture: null },
    transcript: known.length === parts.length ? joinedTranscript(known) : null,
  };
}

const samplesOf = async (recording: Recording) => decode(await (await soundBlob(recording)).arrayBuffer());
