<script setup lang="ts">
import { mdiMagnify } from '@mdi/js';
import { useRouter } from 'vue-router';
import OutboxState from './OutboxState.vue';
import { useSession } from '../session/session.ts';

defineProps<{ title: string }>();

const session = useSession();
const router = useRouter();

async function leave(): Promise<void> {
  await session.signOut();
  await router.push({ name: 'sign-in' });
}
</script>

<template>
  <header class="top">
    <router-link class="name" :to="{ name: 'home' }">Vivid Margin</router-link>
    <OutboxState />
    <v-btn v-if="session.person" size="small" :prepend-icon="mdiMagnify" :to="{ name: 'search' }">Find remarks</v-btn>
    <v-btn v-if="session.person?.teaches" size="small" :to="{ name: 'speech' }">Speech settings</v-btn>
    <span class="person">{{ session.person?.name }}</span>
    <v-btn v-if="session.person" size="small" @click="leave">Sign out</v-btn>
  </header>
  <main class="page">
    <h1>{{ title }}</h1>
    <slot />
  </main>
</template>

<style scoped>
.top {
  display: flex;
  align-items: center;
  gap: 16px;
  height: 48px;
  padding: 0 24px;
  border-bottom: 1px solid var(--hairline);
}
.name {
  margin-right: auto;
  font-weight: 650;
  text-decoration: none;
}
.top :deep(.v-btn) {
  font-size: 15px;
}
.person {
  color: var(--quiet);
}
.page {
  width: min(1080px, 100%);
  margin: 0 auto;
  padding: 32px 24px 64px;
}
h1 {
  font-family: var(--serif);
  font-weight: 500;
  font-size: 32px;
  line-height: 1.2;
  margin-bottom: 24px;
}
</style>
