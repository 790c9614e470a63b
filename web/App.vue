<script setup lang="ts">
import { useOutbox } from './outbox/outbox.ts';

useOutbox();
</script>

<template>
  <v-app>
    <router-view />
  </v-app>
</template>
