import { audibleSpan, keptSeconds, levelled, peaks, splice, type SoundEdit, type Span } from '#core/audio';

/** Of the outline of a recording. */
export const PEAKS = 200;
/** Less silence than this at an end is not worth cutting. */
const LEAST_SILENCE = 0.1;

export interface Rendition {
  samples: Float32Array<ArrayBuffer>;
  edit: SoundEdit;
  /** Seconds. */
  duration: number;
  peaks: number[];
}

/** What a fresh take becomes by itself: without the silence at its ends, as loud as all others. */
export function freshEdit(samples: Float32Array, rate: number): SoundEdit {
  const whole = { start: 0, end: samples.length / rate };
  const found = audibleSpan(samples, rate);
  return { kept: [found ? worthCutting(whole, found) : whole], levelled: true };
}

const worthCutting = (whole: Span, found: Span): Span => ({
  start: found.start - whole.start > LEAST_SILENCE ? found.start : whole.start,
  end: whole.end - found.end > LEAST_SILENCE ? found.end : whole.end,
});

/** The samples that are heard after an edit, and how they look. */
export function render(samples: Float32Array, rate: number, edit: SoundEdit): Rendition {
  const kept = splice(samples, rate, edit.kept);
  const heard = (edit.levelled ? levelled(kept, rate) : kept) as Float32Array<ArrayBuffer>;
  return { samples: heard, edit, duration: keptSeconds(edit.kept), peaks: peaks(heard, PEAKS) };
}
