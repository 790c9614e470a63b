<script setup lang="ts">
import { computed } from 'vue';
import { useSession } from '../session/session.ts';
import PageFrame from '../shell/PageFrame.vue';
import OwnWorkList from './OwnWorkList.vue';
import ToMark from './ToMark.vue';

/** What waits for a teacher, and a student's own work. Somebody may be both. */
const session = useSession();
const teaches = computed(() => session.person?.teaches === true);
const both = computed(() => teaches.value && session.person?.learns === true);
</script>

<template>
  <PageFrame :title="teaches ? 'What waits for you' : 'Your work'">
    <ToMark v-if="teaches" />
    <h2 v-if="both" class="own">Your own work</h2>
    <OwnWorkList v-if="!teaches || both" />
  </PageFrame>
</template>

<style scoped>
.own {
  margin: 48px 0 16px;
  font-family: var(--serif);
  font-weight: 500;
  font-size: 26px;
}
</style>
