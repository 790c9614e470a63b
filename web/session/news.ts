import { readNotices } from '#contract/notices';
import { defineStore } from 'pinia';
import { ref } from 'vue';
import { call } from './api.ts';
import { useSession } from './session.ts';

/** How much is new for the person who is signed in, as the head of every page says it. */
export const useNews = defineStore('news', () => {
  const session = useSession();
  const unseen = ref(0);
  let owner: string | undefined;

  /** Asks once for each person; where that fails it is asked for again the next time. */
  async function ensure(): Promise<void> {
    const person = session.person?.id;
    if (person === undefined || owner === person) return;
    owner = person;
    unseen.value = 0;
    try {
      const { news, seenAt } = await call(readNotices);
      unseen.value = news.filter(({ at }) => seenAt === null || at > seenAt).length;
    } catch {
      owner = undefined;
    }
  }

  const seen = (): void => void (unseen.value = 0);
  return { unseen, ensure, seen };
});
