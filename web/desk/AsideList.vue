<script setup lang="ts">
import type { Remark } from '#contract/remarks';
import { clock } from '#core/audio';
import { useRemarkName } from '../feedback/use-anchor-name.ts';

/** Remarks that were put aside: they can be brought back for 30 days. */
defineProps<{ remarks: readonly Remark[] }>();
defineEmits<{ back: [remark: Remark] }>();

const nameOf = useRemarkName();
</script>

<template>
  <details v-if="remarks.length > 0" class="aside">
    <summary>Put aside: {{ remarks.length }}</summary>
    <ul>
      <li v-for="remark in remarks" :key="remark.id">
        <span class="name">{{ nameOf(remark) }}</span>
        <span v-if="remark.recording" class="figures">{{ clock(remark.recording.sound.duration) }}</span>
        <v-btn size="x-small" variant="outlined" @click="$emit('back', remark)">Bring back</v-btn>
      </li>
    </ul>
  </details>
</template>

<style scoped>
.aside {
  margin-top: 16px;
  color: var(--quiet);
  font-size: 13px;
}
ul {
  list-style: none;
}
li {
  display: flex;
  align-items: center;
  gap: 8px;
  margin-top: 6px;
}
.name {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
