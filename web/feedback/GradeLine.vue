<script setup lang="ts">
import { formatHundredths, type Grade } from '#core/grading';

defineProps<{ grade: Grade }>();
</script>

<template>
  <p class="grade figures">
    <strong v-if="grade.grade">{{ grade.grade }}</strong>
    <span>{{ formatHundredths(grade.points) }} of {{ formatHundredths(grade.possible) }} points</span>
    <span>{{ formatHundredths(grade.percentage) }} %</span>
  </p>
</template>

<style scoped>
.grade {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 12px;
}
strong {
  font-family: var(--serif);
  font-size: 22px;
  font-weight: 560;
  flex-basis: 100%;
}
</style>
