<script setup lang="ts">
import { useTemplateRef } from 'vue';

/** An input for files, behind a button that `open` is given to. */
defineProps<{
  /** What is to be chosen. */
  label: string;
  accept?: string;
  multiple?: boolean;
}>();
const emit = defineEmits<{ choose: [files: [File, ...File[]]] }>();
const input = useTemplateRef('input');

const open = (): void => input.value?.click();
function choose(): void {
  const [first, ...others] = input.value!.files ?? [];
  // The same file can be chosen again.
  input.value!.value = '';
  if (first) emit('choose', [first, ...others]);
}
</script>

<template>
  <slot :open="open" />
  <input
    ref="input"
    class="visually-hidden"
    type="file"
    tabindex="-1"
    :aria-label="label"
    :accept="accept"
    :multiple="multiple"
    @change="choose"
  />
</template>
