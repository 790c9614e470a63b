import { shallowRef, type ShallowRef } from 'vue';
import { openPicture, pictureSentence } from './microphone.ts';

export interface PictureSource {
  /** The camera or the screen, while it is open. */
  stream: ShallowRef<MediaStream | undefined>;
  /** @returns what is wrong, as a sentence; undefined where it is open now */
  open(what: 'camera' | 'screen'): Promise<string | undefined>;
  close(): void;
}

/** @param onEnded the browser has a button of its own to end the sharing of a screen */
export function pictureSource(onEnded: () => void): PictureSource {
  const stream = shallowRef<MediaStream>();
  return {
    stream,
    async open(what) {
      try {
        stream.value = await openPicture(what);
        for (const track of stream.value.getVideoTracks()) track.addEventListener('ended', onEnded);
        return undefined;
      } catch (error) {
        return pictureSentence(error, what);
      }
    },
    close() {
      for (const track of stream.value?.getTracks() ?? []) track.stop();
      stream.value = undefined;
    },
  };
}
