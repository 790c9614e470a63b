<script setup lang="ts">
import { computed } from 'vue';
import { useMarginKey } from '../../feedback/margin-key.ts';

/** The kind of the next remark, by the keys 1 to 9. */
defineProps<{ kind: string }>();
defineEmits<{ kind: [index: number] }>();

/** More names than these do not fit beside each other. */
const MOST_NAMES = 4;

const margin = useMarginKey();
const short = computed(() => margin.key.value.length > MOST_NAMES);
</script>

<template>
  <div class="key" role="radiogroup" aria-label="Kind of the next remark" @mousedown.prevent>
    <button
      v-for="(info, index) in margin.key.value"
      :key="info.kind"
      type="button"
      role="radio"
      :aria-checked="info.kind === kind"
      :class="`kind-${info.kind}`"
      :aria-label="info.name"
      :title="info.name"
      @click="$emit('kind', index)"
    >
      <span aria-hidden="true">{{ info.glyph }}</span>
      <span v-if="!short || info.kind === kind"> {{ info.name }} </span>
      <kbd aria-hidden="true">{{ index + 1 }}</kbd>
    </button>
  </div>
</template>

<style scoped>
.key {
  display: flex;
  gap: 4px;
}
.key button {
  display: flex;
  align-items: center;
  gap: 4px;
  padding: 4px 8px;
  color: var(--kind);
  font-weight: 600;
  font-size: 13px;
  border: 1px solid transparent;
  border-radius: 4px;
  white-space: nowrap;
}
.key button[aria-checked='true'] {
  border-color: var(--kind);
}
kbd {
  color: var(--quiet);
  font: inherit;
  font-weight: 400;
}
</style>
