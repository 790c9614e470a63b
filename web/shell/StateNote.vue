<script setup lang="ts">
/** An empty, loading or failed state: says what is, and what to do. */
defineProps<{ busy?: boolean; error?: string | null }>();
defineEmits<{ retry: [] }>();
</script>

<template>
  <div class="note" :role="error ? 'alert' : 'status'">
    <template v-if="error">
      <p>{{ error }}</p>
      <v-btn variant="outlined" @click="$emit('retry')">Try again</v-btn>
    </template>
    <p v-else-if="busy">One moment …</p>
    <slot v-else />
  </div>
</template>

<style scoped>
.note {
  display: flex;
  align-items: center;
  gap: 16px;
  padding: 20px 0;
  color: var(--quiet);
}
</style>
