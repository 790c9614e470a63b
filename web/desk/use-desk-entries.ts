import type { Remark } from '#contract/remarks';
import type { Work } from '#contract/submissions';
import { computed, type ComputedRef } from 'vue';
import { useRecorder } from '../recorder/use-recorder.ts';
import { marginEntries, type MarginEntry } from '../shared/margin/entries.ts';

/** Stands for the remark that is being spoken, before it has a ribbon. */
export const SPEAKING = 'speaking';

/** What stands in the margin: the remarks, those of earlier versions, and the one that is being spoken. */
export function useDeskEntries(
  work: () => Work | undefined,
  remarks: () => readonly Pick<Remark, 'id' | 'kind' | 'anchor'>[],
): ComputedRef<MarginEntry[]> {
  const recorder = useRecorder();
  return computed(() => {
    const folio = work()?.folio;
    if (!folio) return [];
    const purpose = recorder.purpose.value;
    const now = purpose?.type === 'remark' ? [{ id: SPEAKING, anchor: purpose.anchor, kind: purpose.kind }] : [];
    return marginEntries(folio, [...remarks(), ...now]);
  });
}
