<script setup lang="ts">
import { lostPage } from './lost-page.ts';
import PageNotice from './PageNotice.vue';

/** Says so where a page did not arrive. */
const load = (): void => location.assign(lostPage.value!);
</script>

<template>
  <PageNotice v-if="lostPage" button="Retry" @press="load"
    >Couldn’t load this page. Check your connection and try again. Your changes are saved.</PageNotice
  >
</template>
