<script setup lang="ts">
import { useOutbox } from './shared/outbox.ts';

useOutbox();
</script>

<template>
  <v-app>
    <router-view />
  </v-app>
</template>
