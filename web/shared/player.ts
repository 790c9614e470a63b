import { createGlobalState, useEventListener } from '@vueuse/core';
import { ref, type Ref } from 'vue';

export interface Player {
  /** What is playing or paused: the id that `toggle` was called with. */
  current: Ref<string | undefined>;
  playing: Ref<boolean>;
  /** Seconds. */
  position: Ref<number>;
  problem: Ref<string | undefined>;
  toggle(id: string, url: string): Promise<void>;
  seek(seconds: number): void;
  stop(): void;
}

/** The one player of the app: two remarks never speak at once, and nothing speaks by itself. */
export const usePlayer = createGlobalState((): Player => {
  const audio = new Audio();
  audio.preload = 'auto';
  const current = ref<string>();
  const playing = ref(false);
  const position = ref(0);
  const problem = ref<string>();

  useEventListener(audio, 'play', () => {
    playing.value = true;
    requestAnimationFrame(follow);
  });
  useEventListener(audio, 'pause', () => (playing.value = false));
  useEventListener(audio, 'ended', () => {
    playing.value = false;
    position.value = 0;
  });

  function follow(): void {
    if (!playing.value) return;
    position.value = audio.currentTime;
    requestAnimationFrame(follow);
  }

  async function toggle(id: string, url: string): Promise<void> {
    problem.value = undefined;
    if (current.value === id && playing.value) return audio.pause();
    if (current.value !== id || audio.error) {
      audio.src = url;
      current.value = id;
      position.value = 0;
    }
    try {
      await audio.play();
    } catch (error) {
      if (error instanceof DOMException && error.name === 'AbortError') return;
      playing.value = false;
      problem.value = 'This recording cannot be played at the moment. Check the network and try again.';
    }
  }

  function seek(seconds: number): void {
    audio.currentTime = seconds;
    position.value = seconds;
  }

  function stop(): void {
    audio.pause();
    current.value = undefined;
    position.value = 0;
  }

  return { current, playing, position, problem, toggle, seek, stop };
});
