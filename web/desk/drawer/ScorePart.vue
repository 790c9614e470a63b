<script setup lang="ts">
/** What is scored on its own: a criterion or a question. */
defineProps<{
  title: string;
  about: string;
  disabled: boolean;
  /** It is not scored yet. */
  open: boolean;
}>();
</script>

<template>
  <fieldset :disabled="disabled" :data-open="open || undefined">
    <legend>{{ title }}</legend>
    <p class="about">{{ about }}</p>
    <slot />
  </fieldset>
</template>

<style scoped>
fieldset {
  position: relative;
  border: 0;
  padding: 0;
  min-width: 0;
}
legend {
  padding: 0;
  font-weight: 650;
}
.about {
  color: var(--quiet);
  font-size: 13px;
  margin-bottom: 4px;
}
</style>
