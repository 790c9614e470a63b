import type { Anchor } from '#core/anchor';
import type { SaidWords } from '#contract/said';
import { StorageSerializers, useLocalStorage } from '@vueuse/core';
import { computed, type ComputedRef, type Ref } from 'vue';
import { hexDigest } from '../session/digest.ts';
import { useSession } from '../session/session.ts';
import { rememberBytes } from '../player/local-media.ts';
import { useFeedbackActions } from '../feedback/use-feedback-actions.ts';
import { emptyDraft, type Draft } from '../remark/draft.ts';

/** Stands for the remark that is being written, before it has a ribbon. */
export const WRITING = 'writing';

export interface Writing {
  /** Null while nobody writes. */
  draft: Ref<Draft | null>;
  begin(anchor: Anchor, kind: string, content?: Partial<SaidWords>): void;
  /** Makes a remark of the draft. */
  save(file: File | undefined): Promise<void>;
  /** Makes a remark without a draft: a reaction, a stamp. */
  put(anchor: Anchor, kind: string, content: Partial<SaidWords>): Promise<void>;
  cancel(): void;
}

/** Remarks that are written instead of spoken. A draft is in the browser's storage, so that a closed tab loses nothing. */
export function useWriting(submission: () => string, onMade: (remark: string) => void): Writing {
  const session = useSession();
  const actions = useFeedbackActions();
  const drafts = useLocalStorage<Record<string, Draft> | null>(`drafts:${session.person?.id}`, null, {
    serializer: StorageSerializers.object,
  });
  const draft = computed({
    get: () => drafts.value?.[submission()] ?? null,
    set: (next) => {
      const { [submission()]: _before, ...others } = drafts.value ?? {};
      drafts.value = next ? { ...others, [submission()]: next } : others;
    },
  });

  async function make({ anchor, kind, content }: Draft, file?: File): Promise<void> {
    const id = crypto.randomUUID();
    const attached = file && {
      blob: file,
      name: file.name,
      byteLength: file.size,
      sha256: await hexDigest(await file.arrayBuffer()),
    };
    if (attached) rememberBytes(attached);
    await actions.make(submission(), { id, anchor, kind, words: content, file: attached ?? null });
    onMade(id);
  }

  return {
    draft: draft as ComputedRef<Draft | null> as Ref<Draft | null>,
    begin: (anchor, kind, content) => (draft.value ??= emptyDraft(anchor, kind, content)),
    async save(file) {
      if (!draft.value) return;
      await make(draft.value, file);
      draft.value = null;
    },
    put: (anchor, kind, content) => make(emptyDraft(anchor, kind, content)),
    cancel: () => (draft.value = null),
  };
}
