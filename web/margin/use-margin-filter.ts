import type { Remark } from '#contract/remarks';
import { computed, ref, watch, type ComputedRef, type Ref } from 'vue';

export interface MarginFilter {
  /** Kinds that are not shown. */
  hidden: Ref<Set<string>>;
  author: Ref<string>;
  tag: Ref<string>;
  authors: ComputedRef<{ id: string; name: string }[]>;
  tags: ComputedRef<string[]>;
  counts: ComputedRef<Map<string, number>>;
  shown: ComputedRef<Remark[]>;
  active: ComputedRef<boolean>;
  toggle(kind: string): void;
  clear(): void;
}

/** Which remarks stand in the margin: by kind, author and tag. What is filtered out is counted, never forgotten. */
export function useMarginFilter(remarks: () => readonly Remark[], work: () => unknown): MarginFilter {
  const hidden = ref(new Set<string>());
  const author = ref('');
  const tag = ref('');

  const authors = computed(() => [...new Map(remarks().map(({ author: one }) => [one.id, one])).values()]);
  const tags = computed(() => [...new Set(remarks().flatMap((remark) => remark.tags))].sort());
  const counts = computed(() => {
    const numbers = new Map<string, number>();
    for (const { kind } of remarks()) numbers.set(kind, (numbers.get(kind) ?? 0) + 1);
    return numbers;
  });
  const shown = computed(() =>
    remarks().filter(
      (remark) =>
        !hidden.value.has(remark.kind) &&
        (author.value === '' || remark.author.id === author.value) &&
        (tag.value === '' || remark.tags.includes(tag.value)),
    ),
  );
  const active = computed(() => hidden.value.size > 0 || author.value !== '' || tag.value !== '');

  function toggle(kind: string): void {
    const next = new Set(hidden.value);
    if (!next.delete(kind)) next.add(kind);
    hidden.value = next;
  }

  function clear(): void {
    hidden.value = new Set();
    author.value = tag.value = '';
  }

  // Nobody should miss a remark on one work because of what was hidden on another.
  watch(work, clear);
  return { hidden, author, tag, authors, tags, counts, shown, active, toggle, clear };
}
