import { ref, type Ref } from 'vue';
import { sentenceOf } from '../session/api.ts';

/** What became of it, as a sentence. */
export interface Told {
  text: string;
  wrong?: boolean;
}

export interface Telling {
  busy: Ref<boolean>;
  told: Ref<Told | undefined>;
  /** Does something that the server may refuse, and tells what became of it. */
  attempt(deed: () => Promise<string>): Promise<void>;
}

/** Like `useDeed`, where one also wants to read that it was done. */
export function useTold(): Telling {
  const busy = ref(false);
  const told = ref<Told>();
  async function attempt(deed: () => Promise<string>): Promise<void> {
    busy.value = true;
    try {
      told.value = { text: await deed() };
    } catch (failure) {
      told.value = { text: sentenceOf(failure), wrong: true };
    } finally {
      busy.value = false;
    }
  }
  return { busy, told, attempt };
}
