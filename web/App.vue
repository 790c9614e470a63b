<script setup lang="ts">
import { useOutbox } from './outbox/outbox.ts';
import LostPage from './shell/LostPage.vue';

useOutbox();
</script>

<template>
  <v-app>
    <router-view />
    <LostPage />
  </v-app>
</template>
