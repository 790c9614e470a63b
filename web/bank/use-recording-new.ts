import { useSpokenTake, type SpokenTake } from '../recorder/use-spoken-take.ts';
import { BANK_PLACE, BANKED_TAKE } from './banked-take.ts';
import { useBankActions } from './use-bank-actions.ts';

const NEW = { name: 'New remark', text: '', link: null, reaction: null, suggestion: null, tags: [], language: null };

/** Speaks a new remark right into the bank. */
export function useRecordingNew(onKept: (banked: string) => void, kind: () => string): SpokenTake<unknown> {
  const actions = useBankActions();
  return useSpokenTake<unknown>(
    BANKED_TAKE,
    () => BANK_PLACE,
    async ({ id, sound, edit }) => {
      const about = { ...NEW, kind: kind(), criterion: '', description: '', gap: null };
      await actions.keep({ banked: id, about, recording: { id, sound, edit, draft: null }, from: null });
      onKept(id);
    },
  );
}
