import {
  BANK_PAGE,
  changeBanked,
  findInBank,
  putBankedAside,
  readBankFilters,
  type BankedChange,
  type BankedRemark,
} from '#contract/bank';
import { refDebounced, useIntervalFn } from '@vueuse/core';
import { computed, onBeforeUnmount, reactive, ref, watch } from 'vue';
import { call } from '../session/api.ts';
import { useLoaded } from '../shell/use-loaded.ts';
import { useBankActions } from './use-bank-actions.ts';

type Order = 'best' | 'name' | 'newest' | 'used' | 'lastUsed';

/** Milliseconds without a key, after which the words are looked for. */
const PATIENCE = 120;
/** How often it is asked whether words have been made out. */
const LISTENING_MILLISECONDS = 2000;

/** The bank as its own page shows it: found, filtered, in order, page by page. */
export function useBankList() {
  const actions = useBankActions();
  const query = ref('');
  const wanted = refDebounced(query, PATIENCE);
  const filter = reactive({
    kind: null as string | null,
    criterion: null as string | null,
    language: null as string | null,
    tag: null as string | null,
    owner: null as string | null,
    unused: false,
    aside: false,
  });
  const order = ref<Order>('best');
  const page = ref(1);
  watch([wanted, filter, order], () => (page.value = 1));

  const list = useLoaded(
    () =>
      call(findInBank, {
        body: { query: wanted.value.trim(), ...filter, order: order.value, offset: (page.value - 1) * BANK_PAGE },
      }),
    [wanted, () => ({ ...filter }), order, page],
  );
  const filters = useLoaded(() => call(readBankFilters));
  const remarks = computed(() => list.value.value?.remarks ?? []);

  async function reload(): Promise<void> {
    await Promise.all([list.load(), filters.load()]);
  }
  onBeforeUnmount(actions.onSent(() => void reload()));

  const listening = computed(() => remarks.value.some(({ recording }) => isListenedTo(recording?.speech?.state)));
  const asking = useIntervalFn(() => void list.load(), LISTENING_MILLISECONDS, { immediate: false });
  watch(listening, (now) => (now ? asking.resume() : asking.pause()), { immediate: true });

  return {
    ...{ query, filter, order, page, remarks, reload },
    total: computed(() => list.value.value?.total ?? 0),
    known: computed(() => list.value.value !== undefined),
    error: list.error,
    filters: filters.value,
    async change(banked: string, change: BankedChange): Promise<void> {
      await call(changeBanked, { params: { banked }, body: change });
      await reload();
    },
    async putAside(remarks: readonly BankedRemark[], aside: boolean): Promise<void> {
      for (const { id } of remarks) await call(putBankedAside, { params: { banked: id }, body: { aside } });
      await reload();
    },
    /** One tag more on all of these. */
    async addTag(remarks: readonly BankedRemark[], tag: string): Promise<void> {
      for (const { id, tags } of remarks)
        if (!tags.includes(tag)) await call(changeBanked, { params: { banked: id }, body: { tags: [...tags, tag] } });
      await reload();
    },
  };
}
export type BankList = ReturnType<typeof useBankList>;

const isListenedTo = (state: string | undefined): boolean => state === 'queued' || state === 'running';
