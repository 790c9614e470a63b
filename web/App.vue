<script setup lang="ts">
import { useOutbox } from './outbox/outbox.ts';
import LostPage from './shell/LostPage.vue';
import NewVersion from './shell/NewVersion.vue';
import OtherPerson from './shell/OtherPerson.vue';

useOutbox();
</script>

<template>
  <v-app>
    <router-view />
    <LostPage />
    <NewVersion />
    <OtherPerson />
  </v-app>
</template>
