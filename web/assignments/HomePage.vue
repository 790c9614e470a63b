<script setup lang="ts">
import { useSession } from '../session/session.ts';
import OwnWorkPage from './OwnWorkPage.vue';
import ToMarkPage from './ToMarkPage.vue';

const session = useSession();
</script>

<template>
  <ToMarkPage v-if="session.person?.teaches" />
  <OwnWorkPage v-else-if="session.person" />
</template>
