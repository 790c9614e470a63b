import { drawingsOf, inkAbout } from '#core/ink';
import { textOfWords, wordsWithin } from '#core/transcript';
import type { Remark } from '#contract/remarks';
import type { Work } from '#contract/submissions';
import type { useFeedbackActions } from '../../feedback/use-feedback-actions.ts';
import type { KeptSound } from '../../outbox/kept.ts';
import { soundBlob } from '../../player/media-url.ts';
import { decode, renderSound } from '../../recorder/sound-work.ts';
import type { Part } from './use-parts.ts';

interface Made {
  work: Work;
  /** The talk-through. */
  remark: Remark;
  parts: readonly Part[];
  onProgress: (share: number) => void;
}

/**
 * Makes a remark of each part that was not thrown away, with its own sound, words and strokes; the talk-through is put aside.
 * @returns the ids of what was made, in the order of the parts
 */
export async function makeParts(
  actions: ReturnType<typeof useFeedbackActions>,
  { work, remark, parts, onProgress }: Made,
): Promise<string[]> {
  const { samples, rate } = await decode(await (await soundBlob(remark.recording!)).arrayBuffer());
  const wanted = parts.filter(({ thrown, start, end }) => !thrown && end > start);
  const sounds: KeptSound[] = [];
  // All sounds first, so that nothing is made where one of them cannot be.
  for (const { start, end } of wanted) {
    const piece = samples.slice(Math.round(start * rate), Math.round(end * rate));
    const kept = [{ start: 0, end: piece.length / rate }];
    const { blob, sha256, duration, peaks } = await renderSound(piece, rate, { kept, levelled: false });
    sounds.push({ blob, sha256, duration, peaks, microphone: { type: 'device' }, picture: null });
    onProgress(sounds.length / wanted.length);
  }
  const { transcript } = remark.recording!;
  const made: string[] = [];
  for (const [index, part] of wanted.entries()) {
    const id = crypto.randomUUID();
    const { ink, elsewhere } = inkAbout(part.anchor, part.strokes);
    const text = transcript ? textOfWords(wordsWithin(transcript.words, part)) : '';
    const draft = transcript && text !== '' ? { language: transcript.language, text, engine: transcript.engine } : null;
    const kind = part.kind ?? remark.kind;
    await actions.make(work.id, {
      ...{ id, anchor: part.anchor, kind, recording: { id, sound: sounds[index]!, edit: null, draft } },
      words: { ink: ink.length > 0 ? ink : null, private: remark.private },
    });
    made.push(id);
    for (const drawing of drawingsOf(elsewhere, work.folio)) {
      const drawn = crypto.randomUUID();
      const words = { ink: drawing.ink, private: remark.private };
      await actions.make(work.id, { id: drawn, anchor: drawing.anchor, kind, words });
      made.push(drawn);
    }
  }
  await actions.putAside(remark);
  return made;
}
