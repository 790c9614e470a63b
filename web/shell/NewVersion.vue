<script setup lang="ts">
import { isOutdated } from './new-version.ts';
import PageNotice from './PageNotice.vue';

/** Says so where a part of this version of the app is gone. What waits to be sent is kept over the reload. */
const reload = (): void => location.reload();
</script>

<template>
  <PageNotice v-if="isOutdated" button="Reload" @press="reload">A new version is ready.</PageNotice>
</template>
