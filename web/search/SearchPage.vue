<script setup lang="ts">
import { watchDebounced } from '@vueuse/core';
import { ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import PageFrame from '../shell/PageFrame.vue';
import SearchRemarks from './SearchRemarks.vue';

const route = useRoute();
const router = useRouter();
const words = ref(String(route.query.words ?? ''));

// In the address, so that a search is still there when somebody comes back to it.
watchDebounced(words, () => route.name === 'search' && router.replace({ query: { words: words.value } }), {
  debounce: 400,
});
</script>

<template>
  <PageFrame title="Find remarks">
    <SearchRemarks v-model="words" class="search" />
  </PageFrame>
</template>

<style scoped>
.search {
  display: block;
  max-width: 46rem;
}
</style>
