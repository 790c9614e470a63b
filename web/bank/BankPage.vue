<script setup lang="ts">
import { clock } from '#core/audio';
import { BANK_PAGE, type BankedRemark } from '#contract/bank';
import { mdiMagnify, mdiPause, mdiPlay } from '@mdi/js';
import { computed, onBeforeUnmount, ref } from 'vue';
import { useMarginKey } from '../feedback/margin-key.ts';
import { usePlayer } from '../player/player.ts';
import { recordingUrl } from '../player/media-url.ts';
import InterruptedTake from '../recorder/InterruptedTake.vue';
import { provideRecordingActions } from '../recordings/recording-actions.ts';
import PageFrame from '../shell/PageFrame.vue';
import StateNote from '../shell/StateNote.vue';
import { useSession } from '../session/session.ts';
import { useDeed } from '../shell/use-deed.ts';
import { counted, dayAndTime, languageName } from '../wording/format.ts';
import BankFiles from './BankFiles.vue';
import BankedDetails from './BankedDetails.vue';
import HoldButton from './HoldButton.vue';
import { useBankActions } from './use-bank-actions.ts';
import { useBankList } from './use-bank-list.ts';
import { useRecordingNew } from './use-recording-new.ts';

/** All that a teacher has kept to say again. */
const list = useBankList();
const { query, filter, page, remarks, total, known, error, filters, order } = list;
const player = usePlayer();
const margin = useMarginKey();
const session = useSession();
provideRecordingActions(useBankActions().recordings);

const expanded = ref<string[]>([]);
const chosen = ref<string[]>([]);
const tag = ref('');
const { problem, attempt } = useDeed();
const recording = useRecordingNew(
  (banked) => (expanded.value = [banked]),
  () => margin.key.value[0]!.kind,
);
void recording.look();

const HEADERS = [
  { title: 'Name', key: 'name', sortable: true },
  { title: 'Criterion', key: 'criterion', sortable: false },
  { title: 'Tags', key: 'tags', sortable: false },
  { title: 'Said', key: 'uses', sortable: true, align: 'end' as const },
  { title: 'Heard', key: 'heard', sortable: false, align: 'end' as const },
  { title: 'Last said', key: 'lastUsedAt', sortable: true },
];
const ORDERS = { name: 'name', uses: 'used', lastUsedAt: 'lastUsed' } as const;
const sorted = (by: { key: string }[]): void => {
  order.value = by[0] ? ORDERS[by[0].key as keyof typeof ORDERS] : 'best';
};
const kinds = computed(() => (filters.value?.kinds ?? []).map((kind) => ({ value: kind, title: nameOf(kind) })));
const nameOf = (kind: string): string => `${margin.entry(kind).glyph} ${margin.entry(kind).name}`;
const chosenRemarks = computed(() => remarks.value.filter(({ id }) => chosen.value.includes(id)));
const saidOf = ({ recording: own, text }: BankedRemark): string => own?.transcript?.text ?? text;
const isPlaying = ({ recording: own }: BankedRemark): boolean =>
  own !== null && player.current.value === own.id && player.playing.value;

async function withChosen(deed: () => Promise<void>): Promise<void> {
  if (await attempt(deed)) chosen.value = [];
}
const tagAll = (): Promise<void> => withChosen(() => list.addTag(chosenRemarks.value, tag.value.trim()));

onBeforeUnmount(() => {
  recording.hush();
  player.stop();
});
</script>

<template>
  <PageFrame title="Remark bank">
    <InterruptedTake
      v-for="take in recording.interrupted.value"
      :key="take.id"
      :take="take"
      keep="Keep it in the bank"
      @keep="recording.keepInterrupted(take)"
      @drop="recording.dropInterrupted(take)"
    />
    <div class="row">
      <v-text-field
        v-model="query"
        class="find"
        type="search"
        density="compact"
        label="Find by any words"
        maxlength="200"
        autocomplete="off"
        :prepend-inner-icon="mdiMagnify"
      />
      <v-select v-model="filter.kind" class="filter" clearable label="Kind" :items="kinds" />
      <v-select
        v-model="filter.criterion"
        class="filter"
        clearable
        label="Criterion"
        :items="filters?.criteria ?? []"
      />
      <v-select v-model="filter.tag" class="filter" clearable label="Tag" :items="filters?.tags ?? []" />
      <v-select
        v-if="(filters?.languages.length ?? 0) > 1"
        v-model="filter.language"
        class="filter"
        clearable
        label="Language"
        :items="filters!.languages.map((value) => ({ value, title: languageName(value) }))"
      />
      <v-select
        v-if="(filters?.owners.length ?? 0) > 1"
        v-model="filter.owner"
        class="filter"
        clearable
        label="Whose"
        :items="filters!.owners"
        item-title="name"
        item-value="id"
      />
      <HoldButton
        :speaking="recording.speaking.value"
        label="Hold and speak a new one"
        @speak="recording.speak({})"
        @hush="recording.hush"
      />
    </div>
    <div class="row">
      <p class="fine figures" role="status">
        {{ filter.aside ? `${total} put aside; each goes after 30 days` : counted(total, 'remark') }}
      </p>
      <v-checkbox
        v-if="filter.aside || (filters?.aside ?? 0) > 0"
        v-model="filter.aside"
        :label="`Show what was put aside (${filters?.aside ?? 0})`"
      />
      <v-checkbox
        v-if="filter.unused || (filters?.unused ?? 0) > 0"
        v-model="filter.unused"
        :label="`Not said for a year (${filters?.unused ?? 0})`"
      />
      <template v-if="chosen.length > 0">
        <v-text-field v-model="tag" class="filter" density="compact" maxlength="40" label="A tag for all of them" />
        <v-btn size="small" variant="outlined" :disabled="tag.trim() === ''" @click="tagAll">Add the tag</v-btn>
        <v-btn size="small" variant="outlined" @click="withChosen(() => list.putAside(chosenRemarks, !filter.aside))">{{
          filter.aside ? 'Bring them back' : 'Put them aside'
        }}</v-btn>
      </template>
    </div>
    <p v-if="recording.problem.value ?? problem" class="refused" role="alert">
      {{ recording.problem.value ?? problem }}
    </p>
    <BankFiles class="out" @changed="list.reload" />
    <StateNote v-if="error" :error="error" @retry="list.reload" />
    <StateNote v-else-if="!known" busy />
    <StateNote v-else-if="filters?.total === 0 && filters.aside === 0">
      Nothing is kept yet. At the desk, press K on a remark that you will need again, or speak one here.
    </StateNote>
    <v-data-table-server
      v-else
      v-model:expanded="expanded"
      v-model="chosen"
      :headers="HEADERS"
      :items="remarks"
      :items-length="total"
      :items-per-page="BANK_PAGE"
      item-value="id"
      show-select
      density="comfortable"
      hide-default-footer
      @update:sort-by="sorted"
    >
      <template #no-data>Nothing in your bank fits. Try fewer words, or clear the filters.</template>
      <template #[`item.name`]="{ item, internalItem, toggleExpand, isExpanded }">
        <div class="cell" :class="`kind-${item.kind}`">
          <v-btn
            v-if="item.recording"
            :icon="isPlaying(item) ? mdiPause : mdiPlay"
            size="28"
            :aria-label="`${isPlaying(item) ? 'Pause' : 'Play'} “${item.name}”`"
            @click="player.toggle(item.recording.id, recordingUrl(item.recording))"
          />
          <button
            type="button"
            class="name"
            :aria-expanded="isExpanded(internalItem)"
            @click="toggleExpand(internalItem)"
          >
            <span class="glyph" aria-hidden="true">{{ margin.entry(item.kind).glyph }}</span>{{ ' '
            }}<strong>{{ item.name || 'Without a name' }}</strong>
            <kbd v-if="item.pinned">{{ item.pinned }}</kbd>
            <span v-if="item.recording" class="fine figures">{{ clock(item.recording.sound.duration) }}</span>
            <span v-if="item.owner.id !== session.person?.id" class="fine"> by {{ item.owner.name }}</span>
            <span class="said" :lang="item.language" dir="auto">{{ saidOf(item) }}</span>
          </button>
        </div>
      </template>
      <template #[`item.tags`]="{ item }">
        <span class="fine">{{ item.tags.join(', ') }}</span>
      </template>
      <template #[`item.heard`]="{ item }">
        <span class="figures">{{ item.uses > 0 ? `${item.heard} of ${item.uses}` : '' }}</span>
      </template>
      <template #[`item.uses`]="{ item }">
        <span class="figures">{{ item.uses }}</span>
      </template>
      <template #[`item.lastUsedAt`]="{ item }">
        <span class="figures fine">{{ item.lastUsedAt ? dayAndTime(item.lastUsedAt) : 'never' }}</span>
      </template>
      <template #expanded-row="{ columns, item }">
        <tr>
          <td :colspan="columns.length"><BankedDetails :key="item.id" :remark="item" :list="list" /></td>
        </tr>
      </template>
    </v-data-table-server>
    <v-pagination
      v-if="total > BANK_PAGE"
      v-model="page"
      density="compact"
      :length="Math.ceil(total / BANK_PAGE)"
      :total-visible="7"
    />
  </PageFrame>
</template>

<style scoped>
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 12px;
  align-items: center;
  margin-bottom: 10px;
}
.find {
  flex: 1 1 14rem;
}
.filter {
  flex: 0 1 150px;
}
.out {
  margin: 4px 0 12px;
  font-size: 14px;
}
.cell {
  display: flex;
  gap: 6px;
  align-items: flex-start;
  padding: 6px 0;
}
.name {
  text-align: start;
}
.name strong {
  margin-inline-end: 6px;
}
.glyph {
  color: var(--kind);
}
kbd {
  padding: 0 4px;
  margin-inline-end: 6px;
  font: inherit;
  font-size: 12px;
  border: 1px solid var(--hairline);
  border-radius: 3px;
}
.figures {
  white-space: nowrap;
}
.said {
  display: -webkit-box;
  overflow: hidden;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 1;
  color: var(--quiet);
  font-size: 13px;
}
:deep(.v-table) {
  background: transparent;
}
</style>
