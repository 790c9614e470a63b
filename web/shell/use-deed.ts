import { ref, type Ref } from 'vue';
import { sentenceOf } from '../session/api.ts';

export interface Deed {
  /** It is being done. */
  busy: Ref<boolean>;
  /** Why it was not done, as a sentence. */
  problem: Ref<string | undefined>;
  /** Does something that the server may refuse. @returns whether it was done */
  attempt(deed: () => Promise<unknown>): Promise<boolean>;
}

/** What somebody asks for: it takes a while, and is done or says why it is not. */
export function useDeed(): Deed {
  const busy = ref(false);
  const problem = ref<string>();
  async function attempt(deed: () => Promise<unknown>): Promise<boolean> {
    busy.value = true;
    problem.value = undefined;
    try {
      await deed();
      return true;
    } catch (failure) {
      problem.value = sentenceOf(failure);
      return false;
    } finally {
      busy.value = false;
    }
  }
  return { busy, problem, attempt };
}
