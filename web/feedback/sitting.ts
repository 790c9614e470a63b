import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import type { Change } from './changes/index.ts';
import { useFeedback } from './feedback-store.ts';

/** Something that was done at the desk, with the way back and forth. */
export interface Deed {
  submission: string;
  /** What was done, in the words that follow “Undo:”. */
  label: string;
  undo: Change;
  redo: Change;
}

/** What was done since the desk was opened, across all students, so that it can be undone in turn. */
export const useSitting = defineStore('sitting', () => {
  const store = useFeedback();
  const done = shallowRef<readonly Deed[]>([]);
  const undone = shallowRef<readonly Deed[]>([]);

  function remember(deed: Deed): void {
    done.value = [...done.value, deed];
    undone.value = [];
  }

  /** @returns what was undone, so that it can be told and shown */
  async function undo(): Promise<Deed | undefined> {
    const deed = done.value.at(-1);
    if (!deed) return undefined;
    done.value = done.value.slice(0, -1);
    undone.value = [...undone.value, deed];
    await store.add(deed.submission, deed.undo);
    return deed;
  }

  async function redo(): Promise<Deed | undefined> {
    const deed = undone.value.at(-1);
    if (!deed) return undefined;
    undone.value = undone.value.slice(0, -1);
    done.value = [...done.value, deed];
    await store.add(deed.submission, deed.redo);
    return deed;
  }

  return {
    remember,
    undo,
    redo,
    next: computed(() => done.value.at(-1)),
    nextRedo: computed(() => undone.value.at(-1)),
  };
});
