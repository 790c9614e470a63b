<script setup lang="ts">
import type { WorkState } from '#core/workflow';
import type { ClassStates } from '#contract/submissions';
import { WORK_STATES } from '../wording/work-state.ts';
import { shortNames } from '../wording/short-names.ts';
import { computed, nextTick, useTemplateRef, watch } from 'vue';

/** The class at a glance: everybody, and how far they are. */
const props = defineProps<{ students: ClassStates['students']; student: string }>();

const list = useTemplateRef('list');
const names = computed(() => shortNames(props.students.map(({ name }) => name)));
const signOf = (state: WorkState | null) => WORK_STATES[state ?? 'none'];

// The class comes later than the work; its states change often.
watch(
  () => `${props.student} ${props.students.length}`,
  async () => {
    await nextTick();
    list.value?.querySelector('[aria-current]')?.scrollIntoView({ block: 'nearest', inline: 'center' });
  },
  { immediate: true },
);
</script>

<template>
  <nav class="class" aria-label="Class">
    <ol ref="list">
      <li v-for="(one, index) in students" :key="one.student">
        <component
          :is="one.submission ? 'router-link' : 'span'"
          class="one"
          :class="one.state ?? 'none'"
          :to="one.submission ? { name: 'desk', params: { submission: one.submission } } : undefined"
          :aria-current="one.student === student ? 'true' : undefined"
          :title="`${one.name}: ${signOf(one.state).name}`"
        >
          <span aria-hidden="true" class="sign">{{ signOf(one.state).sign }}</span>
          <span aria-hidden="true">{{ names[index] }}</span>
          <span class="visually-hidden">{{ one.name }}: {{ signOf(one.state).name }}</span>
        </component>
      </li>
    </ol>
  </nav>
</template>

<style scoped>
.class {
  min-width: 0;
}
ol {
  display: flex;
  overflow-x: auto;
  scrollbar-width: none;
  list-style: none;
}
.one {
  position: relative;
  display: flex;
  align-items: center;
  gap: 4px;
  height: 30px;
  padding: 0 8px;
  color: var(--quiet);
  font-size: 13px;
  text-decoration: none;
  white-space: nowrap;
  border-bottom: 2px solid transparent;
}
a.one:hover {
  color: var(--ink);
}
a.one:focus-visible {
  outline-offset: -2px;
}
[aria-current] {
  color: var(--ink);
  font-weight: 650;
  border-color: var(--ink);
}
.sign {
  width: 1em;
  text-align: center;
}
.waiting .sign,
.back .sign {
  color: var(--ink);
}
.none {
  opacity: 1;
}
</style>
