<script setup lang="ts">
import PageFrame from './PageFrame.vue';
</script>

<template>
  <PageFrame title="Nothing here">
    <p>There is no page at this address. <router-link :to="{ name: 'home' }">Go to the home page</router-link>.</p>
  </PageFrame>
</template>
