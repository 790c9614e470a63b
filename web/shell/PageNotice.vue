<script setup lang="ts">
/** What concerns the whole page stands along its lower edge. */
defineProps<{ button: string }>();
defineEmits<{ press: [] }>();
</script>

<template>
  <div class="notice" role="alert">
    <span><slot /></span>
    <v-btn size="small" variant="outlined" @click="$emit('press')">{{ button }}</v-btn>
  </div>
</template>

<style scoped>
.notice {
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
