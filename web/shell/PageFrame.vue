<script setup lang="ts">
import ShellHead from './ShellHead.vue';

defineProps<{ title: string }>();
</script>

<template>
  <ShellHead />
  <main class="page">
    <h1>{{ title }}</h1>
    <slot />
  </main>
</template>

<style scoped>
.page {
  width: min(1080px, 100%);
  margin: 0 auto;
  padding: 32px 24px 64px;
}
h1 {
  font-family: var(--serif);
  font-weight: 500;
  font-size: 32px;
  line-height: 1.2;
  margin-bottom: 24px;
  overflow-wrap: anywhere;
}
@media (max-width: 600px) {
  .page {
    padding: 20px 14px 48px;
  }
}
</style>
