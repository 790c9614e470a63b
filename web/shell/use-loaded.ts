import { ref, shallowRef, watch, type Ref, type ShallowRef, type WatchSource } from 'vue';
import { sentenceOf } from '../session/api.ts';

export interface Loaded<T> {
  value: ShallowRef<T | undefined>;
  error: Ref<string | null>;
  load: () => Promise<void>;
}

/** Something from the server, asked for at once and again whenever the source changes. */
export function useLoaded<T>(ask: () => Promise<T>, source: WatchSource | WatchSource[] = () => undefined): Loaded<T> {
  const value = shallowRef<T>();
  const error = ref<string | null>(null);

  let asked = 0;

  /** Whoever has asked for something else since does not want this answer any more. */
  async function load(): Promise<void> {
    const mine = ++asked;
    error.value = null;
    try {
      const answer = await ask();
      if (mine === asked) value.value = answer;
    } catch (failure) {
      if (mine === asked) error.value = sentenceOf(failure);
    }
  }

  watch(source, load, { immediate: true });
  return { value, error, load };
}
