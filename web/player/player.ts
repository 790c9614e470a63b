import { createEventHook, createGlobalState, useEventListener, useLocalStorage, type EventHookOn } from '@vueuse/core';
import { ref, watchEffect, type Ref } from 'vue';
import { playsFrom } from './local-media.ts';

/** How fast recordings can be played; their pitch stays. */
export const RATES = [0.75, 1, 1.25, 1.5, 1.75, 2] as const;

export interface Player {
  /** What is playing or paused: the id that `toggle` was called with. */
  current: Ref<string | undefined>;
  playing: Ref<boolean>;
  /** Seconds. */
  position: Ref<number>;
  problem: Ref<string | undefined>;
  /** 1 is as it was spoken. It is remembered. */
  rate: Ref<number>;
  /** What plays, for those who show its picture. */
  element: HTMLVideoElement;
  toggle(id: string, url: string): Promise<void>;
  seek(seconds: number): void;
  /** Plays from a moment in seconds, also where something else plays. */
  playFrom(id: string, url: string, seconds: number): Promise<void>;
  /** Plays a stretch once, and ends there. */
  playStretch(id: string, url: string, stretch: { start: number; end: number }): Promise<void>;
  /** Plays a stretch again and again, until something else is asked for. */
  loop(id: string, url: string, stretch: { start: number; end: number }): Promise<void>;
  stop(): void;
  /** Something has been played to its end. */
  onEnded: EventHookOn<string>;
  nextRate(): void;
}

/** The one player of the app: two remarks never speak at once, and nothing speaks by itself. */
export const usePlayer = createGlobalState((): Player => {
  const element = document.createElement('video');
  element.preload = 'auto';
  element.playsInline = true;
  const current = ref<string>();
  const playing = ref(false);
  const position = ref(0);
  const problem = ref<string>();
  const rate = useLocalStorage('playback-rate', 1);
  const ended = createEventHook<string>();

  watchEffect(() => {
    element.preservesPitch = true;
    element.defaultPlaybackRate = element.playbackRate = rate.value;
  });
  useEventListener(element, 'play', () => {
    playing.value = true;
    requestAnimationFrame(follow);
  });
  useEventListener(element, 'pause', () => (playing.value = false));
  useEventListener(element, 'ended', () => {
    playing.value = false;
    position.value = 0;
    void ended.trigger(current.value!);
  });

  playsFrom(() => element.src);

  let looped: { start: number; end: number } | undefined;
  /** Seconds at which what is played ends before its end. */
  let until: number | undefined;

  function follow(): void {
    if (!playing.value) return;
    if (looped && element.currentTime >= looped.end) element.currentTime = looped.start;
    if (until !== undefined && element.currentTime >= until) return endHere();
    position.value = element.currentTime;
    requestAnimationFrame(follow);
  }

  function endHere(): void {
    until = undefined;
    element.pause();
    void ended.trigger(current.value!);
  }

  async function toggle(id: string, url: string): Promise<void> {
    looped = undefined;
    if (current.value !== id) until = undefined;
    if (current.value === id && playing.value) return element.pause();
    await play(id, url);
  }

  async function playFrom(id: string, url: string, seconds: number): Promise<void> {
    looped = until = undefined;
    await play(id, url, seconds);
  }

  async function playStretch(id: string, url: string, { start, end }: { start: number; end: number }): Promise<void> {
    looped = undefined;
    until = end;
    await play(id, url, start);
  }

  async function loop(id: string, url: string, stretch: { start: number; end: number }): Promise<void> {
    until = undefined;
    await play(id, url, stretch.start);
    looped = stretch;
  }

  async function play(id: string, url: string, from?: number): Promise<void> {
    problem.value = undefined;
    // A sound that was edited has another address.
    if (current.value !== id || element.error || !element.src.endsWith(url)) {
      element.src = url;
      current.value = id;
      position.value = 0;
    }
    try {
      // Before anything is loaded a moment cannot be gone to; it is kept until then.
      if (from !== undefined) seek(from);
      await element.play();
    } catch (error) {
      if (error instanceof DOMException && error.name === 'AbortError') return;
      playing.value = false;
      problem.value = 'This recording cannot be played at the moment. Check the network and try again.';
    }
  }

  function seek(seconds: number): void {
    element.currentTime = seconds;
    position.value = seconds;
  }

  function stop(): void {
    looped = until = undefined;
    element.pause();
    current.value = undefined;
    position.value = 0;
  }

  function nextRate(): void {
    rate.value = RATES.find((faster) => faster > rate.value) ?? RATES[0];
  }

  return {
    current,
    playing,
    position,
    problem,
    rate,
    element,
    toggle,
    seek,
    playFrom,
    playStretch,
    loop,
    stop,
    onEnded: ended.on,
    nextRate,
  };
});
