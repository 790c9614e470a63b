import { ref, type Ref } from 'vue';
import { useDeed } from './use-deed.ts';

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
  const told = ref<Told>();
  const { busy, problem, attempt } = useDeed();
  return {
    ...{ busy, told },
    async attempt(deed) {
      const done = await attempt(async () => (told.value = { text: await deed() }));
      if (!done) told.value = { text: problem.value!, wrong: true };
    },
  };
}
