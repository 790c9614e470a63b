<script setup lang="ts">
import type { Told } from './use-told.ts';

/** What became of something. */
defineProps<{ told: Told | undefined }>();
</script>

<template>
  <p v-if="told" class="fine" :class="{ refused: told.wrong }" :role="told.wrong ? 'alert' : 'status'">
    {{ told.text }}
    <slot />
  </p>
</template>
