// @vitest-environment happy-dom
import { createHash } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { keptSound } from './kept-sound.ts';

const blob = new Blob(['x'.repeat(500)], { type: 'audio/webm' });
const microphone = { type: 'device' as const };
const decodesTo = (duration: number, samples: number[]): BaseAudioContext =>
  ({
    decodeAudioData: () => Promise.resolve({ duration, getChannelData: () => Float32Array.from(samples) }),
  }) as unknown as BaseAudioContext;
const decodesNothing = {
  decodeAudioData: () => Promise.reject(new DOMException('', 'EncodingError')),
} as unknown as BaseAudioContext;

describe('keptSound', () => {
  it('measures length and outline, and is called by the SHA-256 of its bytes', async () => {
    const sound = await keptSound(decodesTo(2.5, [0, 1, -0.5]), blob, microphone, 2.4);
    expect(sound).toMatchObject({ duration: 2.5, peaks: [0, 255, 128], microphone });
    expect(sound!.sha256).toBe(createHash('sha256').update('x'.repeat(500)).digest('hex'));
    expect(sound!.blob).toBe(blob);
  });

  it('keeps what this browser cannot decode, as long as the clock says', async () => {
    expect(await keptSound(decodesNothing, blob, microphone, 2.4)).toMatchObject({ duration: 2.4, peaks: [0] });
  });

  it('is nothing where there is no sound', async () => {
    expect(await keptSound(decodesNothing, new Blob([]), microphone, 3)).toBeUndefined();
    expect(await keptSound(decodesTo(0.05, [0]), blob, microphone, 3)).toBeUndefined();
  });
});
