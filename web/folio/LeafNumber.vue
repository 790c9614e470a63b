<script setup lang="ts">
/** Which page, slide or part is shown; another can be typed. */
defineProps<{ at: number; most: number; label: string }>();
defineEmits<{ go: [number: number] }>();
</script>

<template>
  <v-text-field
    class="number"
    type="number"
    density="compact"
    hide-details
    min="1"
    :max="most"
    :model-value="at"
    :aria-label="label"
    @change="$emit('go', Number(($event.target as HTMLInputElement).value))"
  />
</template>

<style scoped>
.number {
  flex: 0 0 64px;
}
</style>
