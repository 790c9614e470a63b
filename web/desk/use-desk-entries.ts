import type { Work } from '#contract/submissions';
import { computed, type ComputedRef } from 'vue';
import { aboutOf } from '../recorder/take-kind.ts';
import { useRecorder } from '../recorder/use-recorder.ts';
import { marginEntries, type MarginEntry } from '../margin/entries.ts';
import type { Draft } from '../remark/draft.ts';
import { WRITING } from './use-writing.ts';
import { REMARK_TAKE } from './voice/remark-take.ts';

/** Stands for the remark that is being spoken, before it has a ribbon. */
export const SPEAKING = 'speaking';

/** Stands for what will come from the bank, while it is being chosen. */
export const BANKING = 'banking';

/** What stands in the margin: the remarks, those of earlier versions, and the one that is being spoken or written. */
export function useDeskEntries(
  work: () => Work | undefined,
  remarks: () => readonly MarginEntry[],
  draft: () => Draft | null,
  banking: () => MarginEntry | undefined,
): ComputedRef<MarginEntry[]> {
  const recorder = useRecorder();
  // Typing changes a draft with every key, but not where it stands.
  const written = computed((before?: MarginEntry | null): MarginEntry | null => {
    const now = draft();
    if (!now) return null;
    if (before && before.kind === now.kind && sameAnchor(before.anchor, now.anchor)) return before;
    return { id: WRITING, anchor: now.anchor, kind: now.kind };
  });
  return computed(() => {
    const folio = work()?.folio;
    if (!folio) return [];
    const purpose = recorder.purpose.value;
    const about = purpose?.place === work()?.id ? aboutOf(REMARK_TAKE, purpose) : undefined;
    const spoken = about ? [{ id: SPEAKING, anchor: about.anchor, kind: about.kind, ink: about.ink ?? null }] : [];
    const banked = banking();
    return marginEntries(folio, [
      ...remarks(),
      ...spoken,
      ...(banked ? [banked] : []),
      ...(written.value ? [written.value] : []),
    ]);
  });
}

const sameAnchor = (a: MarginEntry['anchor'], b: MarginEntry['anchor']): boolean =>
  a === b || JSON.stringify(a) === JSON.stringify(b);
