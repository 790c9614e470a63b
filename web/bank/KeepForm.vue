<script setup lang="ts">
import type { Rubric } from '#core/grading';
import { addressing, namedIn, tokens } from '#core/transcript';
import { findAlike, mergeBanked } from '#contract/bank';
import type { Remark } from '#contract/remarks';
import { computed, nextTick, onMounted, ref, shallowRef, useTemplateRef } from 'vue';
import { call } from '../session/api.ts';
import { useDeed } from '../shell/use-deed.ts';
import { useLoaded } from '../shell/use-loaded.ts';
import { listOf } from '../wording/format.ts';
import BankedFields from './BankedFields.vue';
import { cutWords } from './cut-words.ts';
import { keepDraftOf } from './keep-draft.ts';
import { useBankActions } from './use-bank-actions.ts';

/** A remark on its way into the bank: what it is called there, and how it is made general. */
const props = defineProps<{
  remark: Remark;
  rubric: Rubric;
  /** Of the class, so that none of them stays in what is said to everybody. */
  names: readonly string[];
}>();
const emit = defineEmits<{ kept: [name: string]; cancel: [] }>();

const actions = useBankActions();
const fields = useTemplateRef('fields');
const criterion = props.rubric.find(({ id }) => id === props.remark.criterion)?.title ?? '';
const draft = ref(keepDraftOf(props.remark, criterion));
const cuts = ref(false);
const { busy, problem, attempt } = useDeed();
/** One that says nearly the same and gives way to this one. */
const instead = shallowRef<string>();

const transcript = computed(() => props.remark.recording?.transcript ?? undefined);
const said = computed(() => `${transcript.value?.text ?? ''} ${props.remark.text}`.trim());
const words = computed(() => transcript.value?.words.map(({ word }) => word) ?? []);
const named = computed(() => addressing(words.value, namedIn(words.value, props.names)));
const namedInText = computed(() => {
  const words = tokens(`${draft.value.name} ${draft.value.text}`).map(({ text }) => text);
  return namedIn(words, props.names).map((index) => words[index]!);
});
const namedWords = computed(() => named.value.map((index) => words.value[index]).join(' '));

const { value: alike } = useLoaded(async () =>
  said.value === ''
    ? []
    : (await call(findAlike, { body: { text: said.value, language: transcript.value?.language ?? 'en' } })).banked,
);

onMounted(() => void nextTick(() => fields.value?.focus()));

async function keep(): Promise<void> {
  const banked = crypto.randomUUID();
  await attempt(async () => {
    // The copy is cut; what stands on the work stays as it was said.
    const cut = cuts.value && props.remark.recording ? await cutWords(props.remark.recording, named.value) : undefined;
    await actions.keep({ banked, about: draft.value, recording: null, from: props.remark.id });
    if (cut) await actions.recordings.setSound({ ...props.remark.recording!, id: banked }, cut.sound, cut.edit);
    if (instead.value) await call(mergeBanked, { params: { banked: instead.value }, body: { into: banked } });
    emit('kept', draft.value.name);
  });
}
</script>

<template>
  <form @submit.prevent="keep" @keydown.esc.stop="$emit('cancel')">
    <section v-if="alike && alike.length > 0" class="nudge" role="status">
      <p>Your bank has nearly the same: “{{ alike[0]!.name || alike[0]!.text }}”.</p>
      <v-checkbox
        :model-value="instead !== undefined"
        label="Put this one in its place"
        @update:model-value="instead = $event ? alike![0]!.id : undefined"
      />
    </section>
    <section v-if="named.length > 0" class="nudge" role="status">
      <p>It says “{{ namedWords }}”. From the bank, others will hear that too.</p>
      <v-checkbox v-model="cuts" label="Cut that out of the sound" />
    </section>
    <p v-if="namedInText.length > 0" class="nudge" role="status">
      {{ listOf(namedInText) }} is somebody in this class. A general name is found more easily.
    </p>
    <BankedFields
      ref="fields"
      v-model="draft"
      :criteria="rubric.map(({ title }) => title)"
      :spoken="remark.recording !== null"
    />
    <p v-if="problem" class="refused" role="alert">{{ problem }}</p>
    <div class="end">
      <v-btn size="small" @click="$emit('cancel')">Not now</v-btn>
      <v-btn size="small" variant="flat" color="primary" type="submit" :loading="busy">Keep</v-btn>
    </div>
  </form>
</template>

<style scoped>
.nudge {
  margin: 8px 0;
  padding: 8px 10px;
  background: var(--ground);
  border-radius: 4px;
  font-size: 13px;
}
.end {
  display: flex;
  justify-content: flex-end;
  gap: 6px;
  margin-top: 12px;
}
</style>
