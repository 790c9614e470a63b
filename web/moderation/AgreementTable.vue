<script setup lang="ts">
import type { Moderation } from '#contract/moderation';
import { agreementByCriterion } from '#core/moderation';
import { computed } from 'vue';
import { agreementWords, measureWords, percentWords, shiftWords } from './words.ts';

/** How far two markers agree about each criterion. */
const props = defineProps<{ moderation: Moderation }>();

const lines = computed(() =>
  agreementByCriterion(
    props.moderation.rubric,
    props.moderation.compared.map(({ first, secondScores }) => ({ first, second: secondScores })),
  ),
);
const titleOf = (criterion: string): string => props.moderation.rubric.find(({ id }) => id === criterion)?.title ?? '';
</script>

<template>
  <section aria-labelledby="agreement">
    <h2 id="agreement">How far both agree</h2>
    <p>{{ agreementWords(moderation.works, lines) }}</p>
    <table class="listing">
      <thead>
        <tr>
          <th scope="col">Criterion</th>
          <th scope="col">The same level</th>
          <th scope="col">At most one apart</th>
          <th scope="col">Kappa</th>
          <th scope="col">Alpha</th>
          <th scope="col">{{ moderation.marker }} is</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="line in lines" :key="line.criterion">
          <th scope="row">{{ titleOf(line.criterion) }}</th>
          <td class="figures">{{ percentWords(line.exact) }}</td>
          <td class="figures">{{ percentWords(line.adjacent) }}</td>
          <td class="figures">{{ measureWords(line.kappa) }}</td>
          <td class="figures">{{ measureWords(line.alpha) }}</td>
          <td>{{ shiftWords(line.shift) }}</td>
        </tr>
      </tbody>
    </table>
    <details>
      <summary>What kappa and alpha say</summary>
      <p class="quiet">
        1 is full agreement, 0 what chance alone would bring. Kappa is Cohen’s with quadratic weights: two levels apart
        count four times as much as one. Alpha is Krippendorff’s for ordered levels. A dash stands where all levels are
        the same, so that there is nothing to tell apart. Points that were typed count as the level next to them.
      </p>
    </details>
  </section>
</template>

<style scoped>
h2 {
  margin: 24px 0 6px;
}
table {
  margin: 10px 0;
}
.quiet {
  max-width: 68ch;
}
summary {
  color: var(--quiet);
  font-size: 13px;
}
</style>
