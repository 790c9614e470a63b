<script setup lang="ts">
import { findInBank, type BankedRemark } from '#contract/bank';
import type { NotePlace } from '#contract/notes';
import { computed, ref, shallowRef } from 'vue';
import HoldButton from '../bank/HoldButton.vue';
import { useBankActions } from '../bank/use-bank-actions.ts';
import InterruptedTake from '../recorder/InterruptedTake.vue';
import TakeClock from '../recorder/TakeClock.vue';
import { useSpokenTake } from '../recorder/use-spoken-take.ts';
import { provideRecordingActions } from '../recordings/recording-actions.ts';
import { call } from '../session/api.ts';
import { useDeed } from '../shell/use-deed.ts';
import NoteCard from './NoteCard.vue';
import { NOTE_TAKE } from './note-take.ts';
import { useNotes } from './use-notes.ts';

/** What is said in one place without a work, and the way to say more: by voice, out of the bank, in writing. For teachers. */
const props = defineProps<{
  course: string;
  at: NotePlace;
  /** What one of them is called, e.g. "the note on this course". */
  label: string;
  /** What pressing the button makes, e.g. "a message to everyone". */
  makes: string;
}>();

const notes = useNotes(() => props.course);
provideRecordingActions(useBankActions().recordings);
const { problem, attempt } = useDeed();
const found = shallowRef<BankedRemark[]>([]);
const again = ref<string | null>(null);
const text = ref<string>();
const here = computed(() => notes.at(props.at));

const takes = useSpokenTake(
  NOTE_TAKE,
  () => props.course,
  ({ id, sound, edit }, at) => notes.speak(at, { id, sound, edit, draft: null }),
);
const { speaking } = takes;
void takes.look();
const interrupted = computed(() =>
  takes.interrupted.value.filter(({ about }) => JSON.stringify(about) === JSON.stringify(props.at)),
);

async function lookFor(query: string): Promise<void> {
  found.value = await call(findInBank, { body: { query } }).then(
    ({ remarks }) => remarks,
    () => [],
  );
}

async function sayAgain(id: string | null): Promise<void> {
  const banked = found.value.find((one) => one.id === id);
  if (banked) await attempt(() => notes.sayAgain(props.at, banked));
  again.value = null;
}

async function write(): Promise<void> {
  const said = text.value?.trim() ?? '';
  text.value = undefined;
  if (said) await attempt(() => notes.write(props.at, said));
}
</script>

<template>
  <div class="part">
    <NoteCard
      v-for="note in here"
      :key="note.id"
      :note="note"
      teaches
      :label="label"
      @aside="attempt(() => notes.putAside(note))"
    />
    <InterruptedTake
      v-for="take in interrupted"
      :key="take.id"
      :take="take"
      keep="Keep it here"
      @keep="takes.keepInterrupted(take)"
      @drop="takes.dropInterrupted(take)"
    />
    <div class="row">
      <HoldButton :speaking="speaking" :label="`Hold and speak ${makes}`" @speak="takes.speak(at)" @hush="takes.hush" />
      <TakeClock v-if="speaking" />
      <v-autocomplete
        v-model="again"
        class="bank"
        density="compact"
        variant="outlined"
        hide-details
        no-filter
        clearable
        label="Or from your bank"
        :items="found"
        item-title="name"
        item-value="id"
        no-data-text="Type words of a banked remark"
        @update:search="lookFor"
        @update:model-value="sayAgain"
      />
      <v-btn v-if="text === undefined" size="small" :aria-label="`Or write it: ${makes}`" @click="text = ''"
        >Or write it</v-btn
      >
    </div>
    <form v-if="text !== undefined" class="row" @submit.prevent="write">
      <v-textarea v-model="text" :label="`Text of ${makes}`" maxlength="20000" autofocus />
      <v-btn size="small" variant="flat" color="primary" type="submit">Keep</v-btn>
    </form>
    <p v-if="takes.problem.value" class="refused" role="alert">{{ takes.problem.value }}</p>
    <p v-if="problem" class="refused" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
.part {
  margin: 8px 0 12px;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
  max-width: 760px;
}
.bank {
  flex: 0 1 280px;
}
</style>
