<script setup lang="ts">
import { mdiMicrophone } from '@mdi/js';

/** Records while it is held, by hand or with the space bar. */
defineProps<{ speaking: boolean; label: string; disabled?: boolean }>();
const emit = defineEmits<{ speak: []; hush: [] }>();

function press(event: KeyboardEvent): void {
  if (!event.repeat) emit('speak');
}
</script>

<template>
  <button
    type="button"
    class="hold"
    :class="{ speaking }"
    :disabled="disabled"
    @pointerdown.prevent="$emit('speak')"
    @pointerup="$emit('hush')"
    @pointercancel="$emit('hush')"
    @pointerleave="speaking && $emit('hush')"
    @keydown.space.prevent="press"
    @keyup.space.prevent="$emit('hush')"
    @blur="speaking && $emit('hush')"
  >
    <v-icon :icon="mdiMicrophone" size="16" aria-hidden="true" />
    {{ speaking ? 'Let go when you have said it' : label }}
  </button>
</template>

<style scoped>
.hold {
  padding: 6px 12px;
  font-weight: 550;
  border: 1px solid currentColor;
  border-radius: 4px;
  touch-action: none;
}
.hold.speaking {
  background: var(--ink);
  color: var(--paper);
}
.hold:disabled {
  opacity: 0.5;
}
</style>
