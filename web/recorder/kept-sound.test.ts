// @vitest-environment happy-dom
import { createHash } from 'node:crypto';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { keptSound, takeOfBlob } from './kept-sound.ts';

const blob = new Blob(['x'.repeat(500)], { type: 'audio/webm' });
const microphone = { type: 'device' as const };

/** A browser whose decoder makes so many seconds out of everything, two channels of them; or fails. */
function decodes(seconds: number | undefined): void {
  vi.stubGlobal(
    'OfflineAudioContext',
    class {
      decodeAudioData(): Promise<unknown> {
        if (seconds === undefined) return Promise.reject(new DOMException('', 'EncodingError'));
        const length = seconds * 48_000;
        const channel = (value: number) => new Float32Array(length).fill(value);
        return Promise.resolve({
          length,
          numberOfChannels: 2,
          getChannelData: (i: number) => channel(i === 0 ? 1 : 0),
        });
      }
    },
  );
}
afterEach(() => vi.unstubAllGlobals());

describe('keptSound', () => {
  it('measures length and outline, and is called by the SHA-256 of its bytes', async () => {
    decodes(2.5);
    const sound = await keptSound(blob, microphone, 2.4);
    expect(sound).toMatchObject({ duration: 2.5, microphone, picture: null });
    expect(new Set(sound!.peaks)).toEqual(new Set([128]));
    expect(sound!.sha256).toBe(createHash('sha256').update('x'.repeat(500)).digest('hex'));
    expect(sound!.blob).toBe(blob);
  });

  it('keeps what this browser cannot decode, as long as the clock says', async () => {
    decodes(undefined);
    expect(await keptSound(blob, microphone, 2.4)).toMatchObject({ duration: 2.4, peaks: [0] });
  });

  it('is nothing where there is no sound', async () => {
    decodes(0.05);
    expect(await keptSound(new Blob([]), microphone, 3)).toBeUndefined();
    expect(await keptSound(blob, microphone, 3)).toBeUndefined();
  });
});

describe('takeOfBlob', () => {
  it('of half an hour is kept without being decoded, with the outline that was drawn while speaking', async () => {
    decodes(undefined);
    const tops = Float32Array.from({ length: 80_000 }, (_, i) => (i < 40_000 ? 0 : 1));
    const take = await takeOfBlob(blob, microphone, 1800, { tops });
    expect(take).toMatchObject({ edit: null, sound: { duration: 1800 } });
    expect(take!.sound.peaks).toEqual([...new Array<number>(100).fill(0), ...new Array<number>(100).fill(255)]);
  });

  it('keeps the encoder’s file as it is where the browser cannot make another', async () => {
    decodes(3);
    const take = await takeOfBlob(blob, microphone, 3, { picture: 'camera' });
    expect(take).toMatchObject({ edit: null, sound: { blob, duration: 3, picture: 'camera' } });
    expect(await takeOfBlob(new Blob([]), microphone, 3)).toBeUndefined();
  });
});
