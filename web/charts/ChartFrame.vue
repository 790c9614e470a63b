<script setup lang="ts">
import { ref } from 'vue';
import type { RouteLocationRaw } from 'vue-router';

export interface ChartRow {
  cells: string[];
  /** The work behind it. */
  to?: RouteLocationRaw | undefined;
}

/** A chart with what it says in a sentence, and the same as a table. */
defineProps<{ title: string; says: string; head: string[]; rows: ChartRow[] }>();
const asTable = ref(false);
</script>

<template>
  <section class="chart" :aria-label="title">
    <header>
      <h2>{{ title }}</h2>
      <v-btn size="small" :aria-pressed="asTable" @click="asTable = !asTable">{{
        asTable ? 'As a chart' : 'As a table'
      }}</v-btn>
    </header>
    <p class="says">{{ says }}</p>
    <p v-if="rows.length === 0" class="quiet">There is nothing to draw yet.</p>
    <div v-else-if="asTable" class="table">
      <table class="listing">
        <thead>
          <tr>
            <th v-for="name in head" :key="name" scope="col">{{ name }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(row, index) in rows" :key="index">
            <template v-for="(cell, column) in row.cells" :key="column">
              <th v-if="column === 0" scope="row">
                <router-link v-if="row.to" :to="row.to">{{ cell }}</router-link>
                <template v-else>{{ cell }}</template>
              </th>
              <td v-else class="figures">{{ cell }}</td>
            </template>
          </tr>
        </tbody>
      </table>
    </div>
    <slot v-else />
  </section>
</template>

<style scoped>
.chart {
  padding: 14px 16px;
  background: var(--paper);
  border: 1px solid var(--hairline);
  border-radius: 4px;
}
header {
  display: flex;
  gap: 12px;
  justify-content: space-between;
  align-items: center;
}
h2 {
  font-size: 15px;
  font-weight: 650;
}
.says {
  margin-bottom: 8px;
  color: var(--quiet);
  font-size: 14px;
}
.table {
  max-height: 320px;
  overflow: auto;
}
table {
  width: 100%;
}
.chart :deep(svg) {
  display: block;
  width: 100%;
  height: auto;
  overflow: visible;
  font-size: 12px;
}
.chart :deep(svg text) {
  fill: var(--ink);
}
.chart :deep(svg .mark) {
  fill: color-mix(in srgb, var(--ink) 62%, var(--paper));
}
.chart :deep(a:hover .mark) {
  fill: var(--ink);
}
.chart :deep(svg .quiet) {
  fill: var(--quiet);
}
.chart :deep(svg a:focus-visible) {
  outline: 2px solid var(--ink);
}
</style>
