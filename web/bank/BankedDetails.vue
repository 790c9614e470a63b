<script setup lang="ts">
import { findInBank, MOST_PINNED, mergeBanked, type BankedRemark } from '#contract/bank';
import { mdiAccountVoice, mdiContentCut } from '@mdi/js';
import { computed, ref, shallowRef } from 'vue';
import RecordingView from '../recordings/RecordingView.vue';
import { call } from '../session/api.ts';
import BankedFields from './BankedFields.vue';
import GapWords from './GapWords.vue';
import type { KeepDraft } from './keep-draft.ts';
import { useSession } from '../session/session.ts';
import { useDeed } from '../shell/use-deed.ts';
import SharedWith from './SharedWith.vue';
import UseList from './UseList.vue';
import type { BankList } from './use-bank-list.ts';

/** One banked remark, with all that can be done to it. */
const props = defineProps<{ remark: BankedRemark; list: BankList }>();

const { filters } = props.list;
const session = useSession();
const mine = computed(() => props.remark.owner.id === session.person?.id);
const cutting = ref(false);
const gapping = ref(false);
const hasWords = computed(() => (props.remark.recording?.transcript?.words.length ?? 0) > 1);
const { problem, attempt } = useDeed();
const draftOf = ({
  name,
  text,
  link,
  reaction,
  suggestion,
  tags,
  kind,
  criterion,
  description,
  gap,
  language,
}: BankedRemark) => ({
  ...{ name, text, link, reaction, suggestion, tags, kind, criterion, description, gap, language },
});
const draft = ref<KeepDraft>(draftOf(props.remark));
const changed = computed(() => JSON.stringify(draft.value) !== JSON.stringify(draftOf(props.remark)));
const KEYS = [
  { value: null, title: 'no key of its own' },
  ...Array.from({ length: MOST_PINNED }, (_, index) => ({ value: index + 1, title: `${index + 1}` })),
];

const others = shallowRef<BankedRemark[]>([]);
const into = ref<string | null>(null);

async function save(): Promise<void> {
  await attempt(() =>
    props.list.change(props.remark.id, { ...draft.value, language: draft.value.language ?? props.remark.language }),
  );
  draft.value = draftOf(props.list.remarks.value.find(({ id }) => id === props.remark.id) ?? props.remark);
}

async function lookFor(query: string): Promise<void> {
  const { remarks } = await call(findInBank, { body: { query } }).catch(() => ({ remarks: [] }));
  others.value = remarks.filter(({ id }) => id !== props.remark.id);
}

async function merge(): Promise<void> {
  await attempt(async () => {
    await call(mergeBanked, { params: { banked: props.remark.id }, body: { into: into.value! } });
    await props.list.reload();
  });
}
</script>

<template>
  <div class="details" :class="`kind-${remark.kind}`">
    <div class="said">
      <template v-if="remark.recording">
        <RecordingView
          v-model:cutting="cutting"
          :recording="remark.recording"
          :label="`“${remark.name}”`"
          live
          :mendable="mine"
        />
        <v-btn
          v-if="mine && !remark.recording.sound.picture"
          size="small"
          :prepend-icon="mdiContentCut"
          :aria-expanded="cutting"
          @click="cutting = !cutting"
          >Edit the sound</v-btn
        >
        <v-btn
          v-if="mine && hasWords && remark.gap === null && !gapping"
          size="small"
          :prepend-icon="mdiAccountVoice"
          @click="gapping = true"
          >Say the name in its middle</v-btn
        >
        <GapWords
          v-if="mine && hasWords && (gapping || remark.gap !== null)"
          :remark="remark"
          @gap="attempt(() => list.change(remark.id, { gap: $event }))"
        />
      </template>
      <p v-else class="text" dir="auto">{{ remark.text }}</p>
      <h3>Where you said it</h3>
      <UseList :banked="remark.id" @changed="list.reload" />
    </div>
    <section v-if="!mine" class="about">
      <p>{{ remark.owner.name }} shares this with you.</p>
      <p class="fine">
        {{
          remark.lendsVoice
            ? 'You may drop it on a work in their voice.'
            : 'Dropped on a work, it gives you its words, for you to speak.'
        }}
      </p>
    </section>
    <form v-else class="about" @submit.prevent="save">
      <BankedFields
        v-model="draft"
        :criteria="filters?.criteria ?? []"
        :tags="filters?.tags ?? []"
        :spoken="remark.recording !== null"
      />
      <div class="end">
        <v-btn size="small" variant="flat" color="primary" type="submit" :disabled="!changed">Save</v-btn>
      </div>
      <v-select
        label="Key in the bank at the desk"
        :items="KEYS"
        :model-value="remark.pinned"
        @update:model-value="attempt(() => list.change(remark.id, { pinned: $event }))"
      />
      <SharedWith :remark="remark" @change="(change) => attempt(() => list.change(remark.id, change))" />
      <div class="row">
        <v-autocomplete
          v-model="into"
          density="compact"
          variant="outlined"
          hide-details
          no-filter
          label="Merge it into another"
          :items="others"
          item-title="name"
          item-value="id"
          @update:search="lookFor"
        />
        <v-btn size="small" variant="outlined" :disabled="!into" @click="merge">Merge</v-btn>
      </div>
      <v-btn size="small" variant="outlined" @click="attempt(() => list.putAside([remark], remark.asideAt === null))">
        {{ remark.asideAt ? 'Bring it back' : 'Put it aside' }}
      </v-btn>
      <p v-if="problem" class="refused" role="alert">{{ problem }}</p>
    </form>
  </div>
</template>

<style scoped>
.details {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 340px);
  gap: 12px 32px;
  padding: 12px 8px 20px;
}
.about {
  display: grid;
  gap: 10px;
  align-content: start;
}
.row {
  display: flex;
  gap: 8px;
  align-items: center;
}
.end {
  display: flex;
  justify-content: flex-end;
}
h3 {
  margin: 14px 0 2px;
  font-size: 14px;
}
.text {
  white-space: pre-wrap;
}
@media (max-width: 860px) {
  .details {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
