// @vitest-environment happy-dom
import { expect, it, vi } from 'vitest';
import { pictureSource } from './picture-source.ts';

class Track extends EventTarget {
  stop = vi.fn();
}
const track = new Track();
const getDisplayMedia = vi.fn(() => Promise.resolve({ getVideoTracks: () => [track], getTracks: () => [track] }));
vi.stubGlobal('navigator', { mediaDevices: { getDisplayMedia } });

it('is open until it is closed; the browser’s own button ends it too', async () => {
  const onEnded = vi.fn();
  const source = pictureSource(onEnded);
  expect(await source.open('screen')).toBeUndefined();
  expect(source.stream.value).toBeDefined();
  track.dispatchEvent(new Event('ended'));
  expect(onEnded).toHaveBeenCalledOnce();
  source.close();
  expect([source.stream.value, track.stop.mock.calls.length]).toEqual([undefined, 1]);
});

it('says in a sentence why it is not there', async () => {
  getDisplayMedia.mockRejectedValueOnce(new DOMException('', 'NotAllowedError'));
  const source = pictureSource(vi.fn());
  expect(await source.open('screen')).toMatch(/screen/);
  expect(source.stream.value).toBeUndefined();
});
