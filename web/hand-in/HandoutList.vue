<script setup lang="ts">
import { urlOf } from '#contract/endpoint';
import { handoutFile, type Handout } from '#contract/handouts';
import { byteSize } from '../wording/format.ts';

/** Files that an assignment hands out. */
defineProps<{ handouts: readonly Handout[] }>();
</script>

<template>
  <ul class="handouts" aria-label="Handed out">
    <li v-for="handout in handouts" :key="handout.id">
      <a :href="urlOf(handoutFile, { handout: handout.id })" download>{{ handout.name }}</a>
      <span class="figures quiet">{{ byteSize(handout.byteLength) }}</span>
      <slot :handout="handout" />
    </li>
  </ul>
</template>

<style scoped>
.handouts {
  margin: 8px 0;
  list-style: none;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: center;
}
</style>
