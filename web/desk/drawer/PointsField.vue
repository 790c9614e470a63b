<script setup lang="ts">
import { formatHundredths, parseHundredths } from '#core/grading';
import { computed, ref } from 'vue';

/** Points that are typed, of so many. What cannot be given stays there with a sentence, and changes nothing. */
const props = defineProps<{ label: string; points: number | null; most: number }>();
const emit = defineEmits<{ points: [points: number | null] }>();

/** What is being typed, so that news from elsewhere does not wipe it out. */
const draft = ref<string>();
const shown = computed(() => draft.value ?? (props.points === null ? '' : formatHundredths(props.points)));
const refused = ref(false);

function give(): void {
  if (draft.value === undefined) return;
  const points = draft.value.trim() === '' ? null : parseHundredths(draft.value);
  refused.value = points === undefined || (points !== null && (points < 0 || points > props.most));
  if (points === undefined || refused.value) return;
  draft.value = undefined;
  emit('points', points);
}
</script>

<template>
  <div class="given">
    <v-text-field
      inputmode="decimal"
      class="figures"
      density="compact"
      hide-details
      :model-value="shown"
      :aria-label="`${label}, of ${formatHundredths(most)}`"
      :error="refused"
      @update:model-value="draft = $event"
      @change="give"
      @keydown.enter="($event.target as HTMLInputElement).blur()"
    />
    <span class="figures">of {{ formatHundredths(most) }}</span>
    <slot />
  </div>
  <p v-if="refused" class="refused" role="alert">
    A number from 0 to {{ formatHundredths(most) }}, with at most two decimals.
  </p>
</template>

<style scoped>
.given {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  padding: 4px 0;
}
.given .v-text-field {
  flex: 0 0 76px;
}
.refused {
  font-size: 13px;
}
</style>
