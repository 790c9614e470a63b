<script setup lang="ts">
import { lostPage } from './lost-page.ts';

/** Says so where a page did not arrive. */
const load = (): void => location.assign(lostPage.value!);
</script>

<template>
  <div v-if="lostPage" class="lost" role="alert">
    <span>This page did not arrive. Check the network and try again; what you have done so far is kept.</span>
    <v-btn size="small" variant="outlined" @click="load">Try again</v-btn>
  </div>
</template>

<style scoped>
.lost {
  position: fixed;
  inset: auto 0 0;
  z-index: 3000;
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
  justify-content: center;
  padding: 12px 16px;
  background: var(--paper);
  border-top: 2px solid rgb(var(--v-theme-error));
}
</style>
