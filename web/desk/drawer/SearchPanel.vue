<script setup lang="ts">
import { useSessionStorage } from '@vueuse/core';
import SearchRemarks from '../../search/SearchRemarks.vue';
import SidePanel from '../../shell/SidePanel.vue';

defineEmits<{ close: [] }>();

/** The same search goes on when a hit has been opened. */
const words = useSessionStorage('search-words', '');
</script>

<template>
  <SidePanel title="Find remarks" @close="$emit('close')">
    <SearchRemarks v-model="words" />
  </SidePanel>
</template>
