<script setup lang="ts">
import type { BankedRemark } from '#contract/bank';
import { mdiMagnify } from '@mdi/js';
import { computed, nextTick, onMounted, useTemplateRef, watch } from 'vue';
import { usePlayer } from '../player/player.ts';
import { recordingUrl } from '../player/media-url.ts';
import StateNote from '../shell/StateNote.vue';
import BankChoice from './BankChoice.vue';
import type { BankPicker } from './use-bank-picker.ts';

/** Finds a banked remark and drops it, by hand or by keys alone. */
const props = defineProps<{ picker: BankPicker }>();
const emit = defineEmits<{ drop: [remark: BankedRemark]; close: [] }>();

const player = usePlayer();

const list = useTemplateRef('list');
const field = useTemplateRef('field');
const { query, choices, known, error, at } = props.picker;
const active = computed(() => choices.value[at.value]);

onMounted(() => field.value?.focus());
watch(at, () => void nextTick(() => list.value?.children[at.value]?.scrollIntoView({ block: 'nearest' })));

function audition(): void {
  const recording = active.value?.remark.recording;
  if (recording) void player.toggle(recording.id, recordingUrl(recording));
}

/** Whether the cursor stands behind all that was typed. */
const atEnd = ({ target }: KeyboardEvent): boolean =>
  target instanceof HTMLInputElement && target.selectionStart === target.value.length;

function press(event: KeyboardEvent): void {
  const digit = query.value === '' && /^[1-9]$/u.test(event.key) ? Number(event.key) : undefined;
  if (digit !== undefined) drop(choices.value.find(({ key }) => key === digit)?.remark);
  else if (event.key === 'Enter') drop(active.value?.remark);
  else if (event.key === 'ArrowDown') props.picker.step(1);
  else if (event.key === 'ArrowUp') props.picker.step(-1);
  else if (event.key === 'ArrowRight' && atEnd(event)) audition();
  else if (event.key === 'Escape') emit('close');
  else return;
  event.preventDefault();
  event.stopPropagation();
}

function drop(remark: BankedRemark | undefined): void {
  if (remark) emit('drop', remark);
}
</script>

<template>
  <search>
    <v-text-field
      ref="field"
      v-model="query"
      class="field"
      type="search"
      density="compact"
      label="Find in your bank"
      maxlength="200"
      autocomplete="off"
      :prepend-inner-icon="mdiMagnify"
      @keydown="press"
    />
    <StateNote v-if="error" :error="error" @retry="picker.load" />
    <StateNote v-else-if="!known" busy />
    <p v-else-if="choices.length === 0 && query" class="fine" role="status">
      Nothing in your bank has these words. Try fewer, or another form.
    </p>
    <p v-else-if="choices.length === 0" class="fine" role="status">
      Your bank is empty. Go to a remark that you will need again and press K.
    </p>
    <ol v-else ref="list" aria-label="Banked remarks">
      <BankChoice
        v-for="(choice, index) in choices"
        :key="choice.remark.id"
        :choice="choice"
        :active="index === at"
        @drop="drop(choice.remark)"
      />
    </ol>
    <p class="visually-hidden" role="status">{{ active?.remark.name || active?.remark.text }}</p>
  </search>
</template>

<style scoped>
ol {
  list-style: none;
}
.field {
  margin: 8px 0;
}
</style>
