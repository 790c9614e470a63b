import { ref, shallowRef, watch, type Ref, type ShallowRef, type WatchSource } from 'vue';
import { sentenceOf } from './api.ts';

export interface Loaded<T> {
  value: ShallowRef<T | undefined>;
  error: Ref<string | null>;
  load: () => Promise<void>;
}

/** Something from the server, asked for at once and again whenever the source changes. */
export function useLoaded<T>(ask: () => Promise<T>, source: WatchSource = () => undefined): Loaded<T> {
  const value = shallowRef<T>();
  const error = ref<string | null>(null);

  async function load(): Promise<void> {
    error.value = null;
    try {
      value.value = await ask();
    } catch (failure) {
      error.value = sentenceOf(failure);
    }
  }

  watch(source, load, { immediate: true });
  return { value, error, load };
}
