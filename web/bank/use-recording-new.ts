import { ref } from 'vue';
import { useInterruptedTakes } from '../recorder/use-interrupted-takes.ts';
import { useRecorder, type Take } from '../recorder/use-recorder.ts';
import { BANK_PLACE, BANKED_TAKE } from './banked-take.ts';
import { useBankActions } from './use-bank-actions.ts';

const NEW = { name: 'New remark', text: '', link: null, reaction: null, suggestion: null, tags: [] };

/** Speaks a new remark right into the bank. */
export function useRecordingNew(onKept: (banked: string) => void, kind: () => string) {
  const recorder = useRecorder();
  const actions = useBankActions();
  const speaking = ref(false);

  async function keep({ id, sound, edit }: Take): Promise<void> {
    const about = { ...NEW, kind: kind(), criterion: '', description: '', gap: null };
    await actions.keep({ banked: id, about, recording: { id, sound, edit, draft: null }, from: null });
    await recorder.kept({ id });
    onKept(id);
  }

  async function speak(): Promise<void> {
    if (speaking.value) return;
    speaking.value = true;
    try {
      const take = await recorder.record({ type: BANKED_TAKE.type, place: BANK_PLACE, about: {} });
      if (take && !take.thrown) await keep(take);
    } finally {
      recorder.preview.value = undefined;
      speaking.value = false;
    }
  }

  return {
    ...{ speaking, speak, problem: recorder.problem },
    hush: (): void => recorder.stop(),
    ...useInterruptedTakes(BANKED_TAKE, () => BANK_PLACE, keep),
  };
}
