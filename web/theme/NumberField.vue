<script setup lang="ts">
import { computed, ref } from 'vue';

/** A number that counts once it is typed to its end: with Enter, a step, or on leaving the field. */
const props = withDefaults(defineProps<{ modelValue: number; precision?: number }>(), { precision: 0 });
const emit = defineEmits<{ 'update:modelValue': [value: number] }>();

/** What the field shows; being focused and left must not change what has more places. */
const rounded = (value: number): number => Number(value.toFixed(props.precision));
const shown = computed(() => rounded(props.modelValue));
const typed = ref<number | null>(null);

function settle(): void {
  const value = typed.value;
  typed.value = null;
  if (value !== null && rounded(value) !== shown.value) emit('update:modelValue', value);
}
</script>

<template>
  <v-number-input
    class="figures"
    :model-value="shown"
    :precision="precision"
    :min-fraction-digits="precision"
    @update:model-value="typed = $event"
    @change="settle"
    @keydown.enter="settle"
    @blur="settle"
  />
</template>
