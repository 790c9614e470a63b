<script setup lang="ts">
import type { GradeCell } from '#contract/gradebook';
import { useLocalStorage } from '@vueuse/core';
import { storeToRefs } from 'pinia';
import { defineAsyncComponent, nextTick, onBeforeUnmount, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import ShellHead from '../shell/ShellHead.vue';
import StateNote from '../shell/StateNote.vue';
import { useLoaded } from '../shell/use-loaded.ts';
import CellStrip from './CellStrip.vue';
import type { ShownAs } from './cell-words.ts';
import FilterBar from './FilterBar.vue';
import { useGradebookStore } from './gradebook-store.ts';
import GradeGrid from './GradeGrid.vue';
import { useGrid } from './use-grid.ts';
import { useShown } from './use-shown.ts';

/** All results of a course beside each other. */
const props = defineProps<{ course: string }>();

const route = useRoute();
const router = useRouter();
const store = useGradebookStore();
const { book, supposed } = storeToRefs(store);
const { error, load } = useLoaded(
  () => store.load(props.course),
  () => props.course,
);
const shown = useShown(
  () => props.course,
  () => book.value,
);
const as = useLocalStorage<ShownAs>('gradebook-shown-as', 'points');
const pageRows = ref(10);
const supposing = ref(false);
const setting = ref(false);
const filing = ref(false);
const SchemePanel = defineAsyncComponent(() => import('./SchemePanel.vue'));
const FilesPanel = defineAsyncComponent(() => import('./FilesPanel.vue'));

const grid = useGrid({
  shown,
  book: () => book.value,
  pageRows: () => pageRows.value,
  apply: (change) => (supposing.value ? store.suppose(change) : void store.change(props.course, change)),
  open: ({ submission }: GradeCell) => void openDesk(submission!),
});

/** Whoever comes back from the desk finds the cell that they left. */
async function openDesk(submission: string): Promise<void> {
  const { row, column } = grid.cell.value!;
  await router.replace({ query: { student: row.id, assignment: column!.id } });
  await router.push({ name: 'desk', params: { submission } });
}
const { student, assignment } = route.query;
const stop = watch(
  book,
  async (now) => {
    if (now?.course.id !== props.course) return;
    await nextTick(() => stop());
    const [row, column] = [
      shown.rows.value.findIndex(({ id }) => id === student),
      shown.columns.value.findIndex(({ id }) => id === assignment),
    ];
    if (row >= 0 && column >= 0) grid.select({ row, column });
  },
  { immediate: true },
);

watch(supposing, (on) => on || store.forgetSupposed());
onBeforeUnmount(store.forgetSupposed);
</script>

<template>
  <ShellHead />
  <main class="page">
    <StateNote v-if="!book || book.course.id !== course" :busy="!error" :error="error" @retry="load" />
    <template v-else>
      <header>
        <h1>
          Gradebook
          <router-link :to="{ name: 'course', params: { course } }">{{ book.course.title }}</router-link>
        </h1>
        <v-btn size="small" :to="{ name: 'charts', params: { course } }">Charts</v-btn>
        <v-btn size="small" :disabled="!grid.canUndo.value" @click="grid.undo">Undo</v-btn>
        <v-btn
          size="small"
          :aria-pressed="supposing"
          :variant="supposing ? 'flat' : 'text'"
          @click="supposing = !supposing"
          >What if</v-btn
        >
        <v-btn size="small" :aria-expanded="filing" @click="((filing = !filing), (setting = false))">Files</v-btn>
        <v-btn size="small" :aria-expanded="setting" @click="((setting = !setting), (filing = false))"
          >How the course is graded</v-btn
        >
      </header>
      <p v-if="supposing" class="notice" role="status">
        What if: type what you like. The course grades follow, and nothing is kept{{
          supposed.length > 0 ? ` (${supposed.length} supposed)` : ''
        }}.
        <v-btn size="small" variant="outlined" @click="supposing = false">Back to what is</v-btn>
      </p>
      <FilterBar v-model:as="as" :book="book" :shown="shown" />
      <StateNote v-if="book.columns.length === 0"
        >There are no assignments in this course yet.
        <router-link :to="{ name: 'course', params: { course } }">Make the first one</router-link></StateNote
      >
      <StateNote v-else-if="book.rows.length === 0"
        >There are no students in this course yet.
        <router-link :to="{ name: 'members', params: { course } }">Add them</router-link></StateNote
      >
      <StateNote v-else-if="shown.rows.value.length === 0"
        >No student is called so.
        <v-btn variant="outlined" @click="shown.filter.value.search = ''"
          >Show all {{ book.rows.length }}</v-btn
        ></StateNote
      >
      <div v-else class="work">
        <div class="table">
          <GradeGrid
            :shown="shown"
            :grid="grid"
            :as="as"
            :focused="student !== undefined"
            :title="`Grades of ${book.course.title}`"
            @page-rows="pageRows = $event"
          />
          <CellStrip :book="book" :grid="grid" @open="openDesk" />
          <p class="legend">
            <span><i class="draft">17</i> draft: only teachers see it</span>
            <span>17 returned</span>
            <span>▮ heard, ▯ not heard yet</span>
            <span>Type to grade; m missing, e excused, i incomplete; o opens the desk</span>
          </p>
        </div>
        <FilesPanel v-if="filing" :book="book" :grid="grid" @changed="load" @close="filing = false" />
        <SchemePanel v-if="setting" :book="book" @close="setting = false" />
      </div>
    </template>
  </main>
</template>

<style scoped>
.page {
  display: flex;
  flex-direction: column;
  gap: 10px;
  height: calc(100dvh - var(--head, 57px));
  min-height: 520px;
  padding: 12px 20px 8px;
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 8px;
  align-items: center;
}
h1 {
  flex: 1;
  font-family: var(--serif);
  font-weight: 500;
  font-size: 24px;
}
h1 a {
  margin-left: 8px;
  color: var(--quiet);
  font-size: 17px;
}
.notice {
  display: flex;
  gap: 12px;
  align-items: center;
  padding: 6px 10px;
  border: 1px dashed var(--ink);
  border-radius: 4px;
}
.work {
  display: flex;
  flex: 1;
  gap: 12px;
  min-height: 0;
}
.table {
  display: flex;
  flex: 1;
  flex-direction: column;
  gap: 6px;
  min-width: 0;
}
.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 20px;
  color: var(--quiet);
  font-size: 13px;
}
.draft {
  text-decoration: underline dotted;
  text-underline-offset: 3px;
}
</style>
