<script setup lang="ts">
import type { Remark } from '#contract/remarks';
import type { Work } from '#contract/submissions';
import { mdiRedo, mdiUndo } from '@mdi/js';
import { computed } from 'vue';
import { counted } from '../../wording/format.ts';
import PartCard from './PartCard.vue';
import { useParts, type Part } from './use-parts.ts';

/** The remarks that a talk-through would make; where each begins can be mended. */
const props = defineProps<{ remark: Remark; work: Work }>();
defineEmits<{ make: [parts: readonly Part[]]; close: [] }>();

const list = useParts(
  () => props.remark,
  () => props.work,
);
const { parts, problem, canUndo, canRedo } = list;
const left = computed(() => (parts.value ?? []).filter(({ thrown }) => !thrown).length);
</script>

<template>
  <p v-if="problem" class="refused" role="alert">{{ problem }}</p>
  <p v-else-if="!parts" class="quiet" role="status">Listening for pauses …</p>
  <p v-else-if="parts.length === 0" class="quiet">
    Nothing was selected or drawn in this talk-through, so it stays one remark.
  </p>
  <template v-else>
    <p class="intro">
      As it is, your student hears one talk-through and sees what you did. Or each passage becomes a remark of its own.
    </p>
    <div class="row">
      <v-btn size="small" variant="flat" color="primary" :disabled="left === 0" @click="$emit('make', parts)"
        >Make {{ counted(left, 'remark') }}</v-btn
      >
      <v-btn size="small" variant="outlined" @click="$emit('close')">Leave it one</v-btn>
      <span class="tools">
        <v-btn :icon="mdiUndo" size="28" aria-label="Undo" :disabled="!canUndo" @click="list.undo()" />
        <v-btn :icon="mdiRedo" size="28" aria-label="Redo" :disabled="!canRedo" @click="list.redo()" />
      </span>
    </div>
    <ol aria-label="Parts">
      <PartCard
        v-for="(part, index) in parts"
        :key="index"
        :part="part"
        :index="index"
        :before="parts[index - 1]"
        :last="index === parts.length - 1"
        :remark="remark"
        :list="list"
      />
    </ol>
  </template>
</template>

<style scoped>
.intro {
  color: var(--quiet);
}
.intro,
.quiet {
  line-height: 1.35;
}
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
  margin: 8px 0;
}
.tools {
  margin-left: auto;
}
ol {
  padding: 0;
  list-style: none;
}
</style>
