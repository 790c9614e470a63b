import type { Ref } from 'vue';
import { useRouter } from 'vue-router';
import { useSitting, type Deed } from '../feedback/sitting.ts';
import type { Notice } from './notice.ts';

/** Undo and redo for the whole sitting. What was undone is told, and shown where it is about another student. */
export function useUndo(submission: () => string, notice: Ref<Notice | undefined>) {
  const router = useRouter();
  const sitting = useSitting();

  async function show(deed: Deed | undefined, what: string): Promise<void> {
    if (!deed) return;
    if (deed.submission !== submission()) await router.push({ name: 'desk', params: { submission: deed.submission } });
    notice.value = { text: `${what}: ${deed.label}.` };
  }

  /** The way back that the notice offers. */
  async function wayBack(): Promise<void> {
    const { undo: back } = notice.value ?? {};
    notice.value = undefined;
    await back?.();
  }

  return {
    undo: async (): Promise<void> => show(await sitting.undo(), 'Undone'),
    redo: async (): Promise<void> => show(await sitting.redo(), 'Done again'),
    wayBack,
  };
}
