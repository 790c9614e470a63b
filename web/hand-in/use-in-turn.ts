import { onScopeDispose, ref, type Ref } from 'vue';
import { usePlayer } from '../player/player.ts';

/** A part of a recording, in seconds. */
export interface Part {
  id: string;
  url: string;
  start: number;
  end: number;
}

/** Plays parts of recordings one after the other. */
export function useInTurn(): {
  /** By which name the parts are played; none where nothing is. */
  going: Ref<string | undefined>;
  play(name: string, parts: readonly Part[]): Promise<void>;
  stop(): void;
} {
  const player = usePlayer();
  const going = ref<string>();
  let left: Part[] = [];

  async function next(): Promise<void> {
    const part = left.shift();
    if (part) await player.playStretch(part.id, part.url, part);
    else going.value = undefined;
  }

  function stop(): void {
    left = [];
    if (going.value) player.stop();
    going.value = undefined;
  }

  player.onEnded(() => going.value !== undefined && void next());
  onScopeDispose(stop);
  return {
    going,
    stop,
    async play(name, parts) {
      left = [...parts];
      going.value = name;
      await next();
    },
  };
}
