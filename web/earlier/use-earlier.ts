import type { Anchor } from '#core/anchor';
import { placeEarlier, readEarlier, type EarlierRemark, type Work } from '#contract/submissions';
import { useLocalStorage } from '@vueuse/core';
import { computed, shallowRef, watch, type ComputedRef, type Ref, type ShallowRef } from 'vue';
import { call, sentenceOf } from '../session/api.ts';

export interface Earlier {
  all: ShallowRef<EarlierRemark[]>;
  /** Whether they stand in the margin. */
  shown: Readonly<Ref<boolean>>;
  toggle(): void;
  /** Those that have a place in this version, and are shown. */
  placed: ComputedRef<(EarlierRemark & { anchor: Anchor })[]>;
  lost: ComputedRef<EarlierRemark[]>;
  error: Ref<string | undefined>;
  load(): Promise<void>;
  /** Puts a remark where its teacher says, or nowhere. */
  place(earlier: EarlierRemark, anchor: Anchor | null): Promise<void>;
}

/** Remarks on earlier versions of the work that is open. The work itself never waits for them. */
export function useEarlier(work: () => Work | undefined): Earlier {
  const all = shallowRef<EarlierRemark[]>([]);
  const error = shallowRef<string>();
  const shown = useLocalStorage('earlier-remarks', true);

  async function load(): Promise<void> {
    const here = work();
    all.value = [];
    error.value = undefined;
    if (!here || here.version <= Math.min(...here.versions.map(({ version }) => version))) return;
    try {
      const answer = await call(readEarlier, { params: { submission: here.id } });
      if (work()?.id === here.id) all.value = answer;
    } catch (failure) {
      error.value = sentenceOf(failure);
    }
  }

  async function place(earlier: EarlierRemark, anchor: Anchor | null): Promise<void> {
    const params = { submission: work()!.id, remark: earlier.remark.id };
    error.value = undefined;
    try {
      const answer = await call(placeEarlier, { params, body: { anchor } });
      all.value = all.value.map((one) => (one.remark.id === answer.remark.id ? answer : one));
    } catch (failure) {
      error.value = sentenceOf(failure);
    }
  }

  watch(
    () => work()?.id,
    () => void load(),
    { immediate: true },
  );

  return {
    all,
    shown,
    toggle: () => (shown.value = !shown.value),
    placed: computed(() =>
      shown.value ? all.value.flatMap((one) => (one.anchor ? [{ ...one, anchor: one.anchor }] : [])) : [],
    ),
    lost: computed(() => all.value.filter(({ anchor }) => !anchor)),
    error,
    load,
    place,
  };
}
