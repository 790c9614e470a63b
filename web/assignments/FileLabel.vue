<script setup lang="ts">
/** Words that are pressed to choose a file; all else is said to the input. */
defineOptions({ inheritAttrs: false });
defineProps<{ label: string }>();
const emit = defineEmits<{ choose: [files: File[]] }>();

function choose(event: Event): void {
  const input = event.target as HTMLInputElement;
  const files = [...(input.files ?? [])];
  // The same file can be chosen again.
  input.value = '';
  if (files.length > 0) emit('choose', files);
}
</script>

<template>
  <label class="file">{{ label }}<input v-bind="$attrs" type="file" @change="choose" /></label>
</template>

<style scoped>
.file {
  font-size: 14px;
  font-weight: 500;
  cursor: pointer;
}
input {
  position: absolute;
  width: 1px;
  height: 1px;
  opacity: 0;
}
.file:focus-within {
  outline: 2px solid currentColor;
  outline-offset: 3px;
}
</style>
