import type { Anchor } from '#core/anchor';
import type { Folio } from '#core/folio';
import { findInBank, suggestFromBank, type BankedRemark, type Reason } from '#contract/bank';
import { computed, ref, watch, type ComputedRef, type Ref } from 'vue';
import { call } from '../session/api.ts';
import { useLoaded } from '../shell/use-loaded.ts';
import { aroundOf } from './around.ts';

export interface Choice {
  remark: BankedRemark;
  reasons: Reason[];
  /** The digit that drops it, while nothing is typed. */
  key: number | undefined;
}

interface Place {
  submission: string;
  folio: Folio;
  anchor: Anchor;
}

export interface BankPicker {
  query: Ref<string>;
  choices: ComputedRef<Choice[]>;
  /** Undefined until the first answer. */
  known: ComputedRef<boolean>;
  error: Ref<string | null>;
  /** The criterion that the passage is most likely about, by its title. */
  criterion: ComputedRef<string | null>;
  at: Ref<number>;
  step(by: 1 | -1): void;
  load(): Promise<void>;
}

const MOST_KEYS = 9;

/** What the bank has for a place of a work: what is likeliest while nothing is typed, what is found otherwise. */
export function useBankPicker(place: () => Place, kind: () => string | null): BankPicker {
  const query = ref('');
  const at = ref(0);
  const { value, error, load } = useLoaded(
    () => ask(place(), query.value.trim(), kind()),
    [query, () => JSON.stringify(place().anchor), kind],
  );
  const choices = computed(() => withKeys(value.value?.choices ?? [], query.value.trim() === ''));
  watch(choices, (now) => (at.value = Math.min(at.value, Math.max(0, now.length - 1))));
  watch(query, () => (at.value = 0));
  return {
    ...{ query, choices, error, load, at },
    known: computed(() => value.value !== undefined),
    criterion: computed(() => value.value?.criterion ?? null),
    step: (by) => (at.value = Math.min(choices.value.length - 1, Math.max(0, at.value + by))),
  };
}

type Unkeyed = Omit<Choice, 'key'>;

async function ask(
  { submission, folio, anchor }: Place,
  query: string,
  kind: string | null,
): Promise<{ criterion: string | null; choices: Unkeyed[] }> {
  if (query !== '') {
    const { remarks } = await call(findInBank, { body: { query, kind } });
    return { criterion: null, choices: remarks.map((remark) => ({ remark, reasons: [] })) };
  }
  const body = { ...aroundOf(folio, anchor), kind, criterion: null };
  const { criterion, suggestions } = await call(suggestFromBank, { params: { submission }, body });
  return { criterion, choices: suggestions };
}

/** Who is pinned keeps their digit; the others get those that are left, in their order. */
export function withKeys(found: readonly Unkeyed[], keyed: boolean): Choice[] {
  if (!keyed) return found.map((choice) => ({ ...choice, key: undefined }));
  const taken = new Set(found.map(({ remark }) => remark.pinned));
  const free = Array.from({ length: MOST_KEYS }, (_, index) => index + 1).filter((digit) => !taken.has(digit));
  return found.map((choice) => ({ ...choice, key: choice.remark.pinned ?? free.shift() }));
}
