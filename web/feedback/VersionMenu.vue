<script setup lang="ts">
import type { Work } from '#contract/submissions';
import { computed } from 'vue';
import LateMenu from '../shell/LateMenu.vue';
import { dayAndTime } from '../wording/format.ts';

/** Which version this is, and the way to the others. */
const props = defineProps<{ work: Work; route: 'desk' | 'returned' }>();

const newest = computed(() => props.work.versions[0]?.version ?? props.work.version);
const entries = computed(() =>
  props.work.versions.map(({ id, version, handedInAt, returnedAt }) => ({
    title: `Version ${version}`,
    subtitle: `handed in ${dayAndTime(handedInAt)}${returnedAt ? ', returned' : ''}`,
    to: { name: props.route, params: { submission: id } },
    active: id === props.work.id,
  })),
);
</script>

<template>
  <LateMenu v-if="work.versions.length > 1" v-slot="{ attributes }" :entries="entries">
    <button v-bind="attributes" type="button" class="figures version" :class="{ old: work.version < newest }">
      version {{ work.version }} of {{ newest }}
    </button>
  </LateMenu>
</template>

<style scoped>
.version {
  padding: 1px 8px;
  color: var(--quiet);
  font-size: 13px;
  border: 1px solid var(--hairline);
  border-radius: 10px;
  white-space: nowrap;
}
.old {
  color: var(--ink);
  border-style: dashed;
}
</style>
