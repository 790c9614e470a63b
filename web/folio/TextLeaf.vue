<script setup lang="ts">
import { blockStarts, type LeafOf } from '#core/folio';
import { computed } from 'vue';
import FolioBlock from './FolioBlock.vue';

/** Flowing text on a sheet of paper. */
const props = defineProps<{ leaf: LeafOf<'text'>; index: number }>();

const starts = computed(() => blockStarts(props.leaf.blocks, props.leaf.start));
</script>

<template>
  <div class="paper">
    <div class="measure">
      <p v-if="leaf.label !== 'Text'" class="name" :data-name="leaf.label" />
      <FolioBlock v-for="(block, at) in leaf.blocks" :key="at" :block="block" :starts="starts" />
    </div>
  </div>
</template>

<style scoped>
.paper {
  position: relative;
  padding: 40px 32px 56px;
  background: var(--paper);
  border: 1px solid var(--hairline);
}
.measure {
  max-width: 68ch;
  margin: 0 auto;
}
.name {
  margin-bottom: 1.2em;
}
.name::before {
  content: attr(data-name);
  color: var(--quiet);
  font: 14px var(--sans);
}
@media (max-width: 900px) {
  .paper {
    padding: 24px 20px;
  }
}
</style>
