<script setup lang="ts">
import { readEntry } from '#core/gradebook';
import { formatHundredths } from '#core/grading';
import type { GradeRow } from '#contract/gradebook';
import { computed, ref } from 'vue';
import { counted } from '../wording/format.ts';
import type { Grid } from './use-grid.ts';
import type { ShownColumn } from './use-shown.ts';

/** What can be done to all of a column. */
const props = defineProps<{ column: ShownColumn; rows: readonly GradeRow[]; grid: Grid; target: HTMLElement }>();
const emit = defineEmits<{ sort: []; close: [] }>();

const value = ref('');
const problem = ref<string>();

const cellOf = ({ cells }: GradeRow) => cells[props.column.at] ?? null;
/** Whose grade can be typed here: nobody's whose work has been returned, or has no name. */
const free = computed(() =>
  props.rows.filter((row) => {
    const cell = cellOf(row);
    return !row.left && !cell?.nameless && cell?.state !== 'returned';
  }),
);
const empty = computed(() => free.value.filter((row) => (cellOf(row)?.points ?? null) === null && !cellOf(row)?.flag));
const drafts = computed(() => props.rows.filter((row) => cellOf(row)?.entered && !cellOf(row)?.returned));

function give(to: readonly GradeRow[]): void {
  const entry = readEntry(value.value, props.column.possible);
  problem.value = 'problem' in entry ? entry.problem : undefined;
  if ('problem' in entry) return;
  props.grid.giveAll(props.column, to, entry);
  emit('close');
}
function missing(): void {
  props.grid.giveAll(props.column, empty.value, { flag: 'missing' });
  emit('close');
}
function giveOut(): void {
  props.grid.giveAll(props.column, drafts.value, { returned: true });
  emit('close');
}
</script>

<template>
  <v-menu
    :model-value="true"
    :target="target"
    :close-on-content-click="false"
    location="bottom"
    @update:model-value="emit('close')"
  >
    <div class="menu">
      <p class="whole">{{ column.title }}</p>
      <router-link :to="{ name: 'assignment', params: { assignment: column.id } }">Open the assignment</router-link>
      <router-link :to="{ name: 'return', params: { assignment: column.id } }">Look through and return</router-link>
      <v-btn size="small" @click="(emit('sort'), emit('close'))">Sort by it</v-btn>
      <form @submit.prevent="give(empty)">
        <v-text-field
          v-model="value"
          density="compact"
          hide-details="auto"
          :label="column.possible === null ? 'Give a grade' : `Give out of ${formatHundredths(column.possible)}`"
          placeholder="10, 80%, m"
          :error-messages="problem ? [problem] : []"
        />
        <v-btn size="small" type="submit" :disabled="value.trim() === '' || empty.length === 0"
          >to the {{ counted(empty.length, 'empty one') }}</v-btn
        >
        <v-btn size="small" :disabled="value.trim() === '' || free.length === 0" @click="give(free)"
          >to everyone ({{ free.length }})</v-btn
        >
      </form>
      <v-btn size="small" :disabled="empty.length === 0" @click="missing"
        >Mark the {{ counted(empty.length, 'empty one') }} missing, so 0</v-btn
      >
      <v-btn v-if="drafts.length > 0" size="small" variant="flat" color="primary" @click="giveOut"
        >Return {{ counted(drafts.length, 'typed grade') }}</v-btn
      >
    </div>
  </v-menu>
</template>

<style scoped>
.menu {
  display: grid;
  gap: 8px;
  justify-items: start;
  width: 290px;
  padding: 14px 16px;
  background: var(--paper);
  border: 1px solid var(--hairline);
  border-radius: 4px;
}
.whole {
  font-weight: 600;
}
form {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  width: 100%;
}
form > .v-input {
  flex: 1 0 100%;
}
</style>
