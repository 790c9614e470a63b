<script setup lang="ts">
import { explainCourse, formatHundredths } from '#core/grading';
import { readCell, type CellStory, type CellValue, type Gradebook } from '#contract/gradebook';
import { computed, ref, shallowRef, watch } from 'vue';
import { call, sentenceOf } from '../session/api.ts';
import { dayAndTime } from '../wording/format.ts';
import { cellWords } from './cell-words.ts';
import type { Grid } from './use-grid.ts';

/** What stands in the active cell, how it came about, and where it leads. */
const props = defineProps<{ book: Gradebook; grid: Grid }>();
const emit = defineEmits<{ open: [submission: string] }>();

const { cell: at, problem } = props.grid;
const story = shallowRef<CellStory>();
const failure = ref<string>();
const telling = ref(false);

const place = computed(() => {
  const now = at.value;
  return now?.column && { assignment: now.column.id, student: now.row.id };
});
const lines = computed(() => {
  const now = at.value;
  if (!now || now.column) return [];
  return explainCourse(
    props.book.columns,
    now.row.cells.map((cell) => cell ?? undefined),
    props.book.scheme,
  );
});

async function load(): Promise<void> {
  const asked = place.value;
  story.value = failure.value = undefined;
  if (!telling.value || !asked) return;
  try {
    const answer = await call(readCell, { params: asked });
    if (place.value?.student === asked.student && place.value.assignment === asked.assignment) story.value = answer;
  } catch (error) {
    failure.value = sentenceOf(error);
  }
}
watch([() => place.value?.assignment, () => place.value?.student, telling, () => at.value?.cell], load);

const valueWords = ({ points, flag, returned }: CellValue): string =>
  `${flag ?? (points === null ? 'nothing' : formatHundredths(points))}${returned ? ', returned' : ''}`;
</script>

<template>
  <section class="strip" aria-label="The cell">
    <p v-if="problem" class="refused" role="alert">{{ problem }}</p>
    <div v-if="at" class="row">
      <p class="what">
        <strong>{{ at.row.name }}</strong>
        <template v-if="at.column">
          · {{ at.column.title }}: <span aria-live="polite">{{ cellWords(at.cell) }}</span></template
        >
        <template v-else> · {{ book.course.title }}</template>
      </p>
      <v-btn v-if="at.cell?.submission" size="small" variant="outlined" @click="emit('open', at.cell.submission)"
        >Open at the desk</v-btn
      >
      <v-btn
        v-else-if="!at.column"
        size="small"
        variant="outlined"
        :to="{ name: 'report', params: { course: book.course.id, student: at.row.id } }"
        >Report to print<span class="visually-hidden"> of {{ at.row.name }}</span></v-btn
      >
      <v-btn v-if="at.column" size="small" :aria-expanded="telling" @click="telling = !telling">{{
        telling ? 'Close its history' : 'How it came about'
      }}</v-btn>
    </div>
    <p v-for="line in lines" :key="line" class="line">{{ line }}</p>
    <div v-if="telling && at?.column" class="story">
      <p v-if="failure" class="refused">{{ failure }}</p>
      <template v-if="story">
        <p v-if="story.explanation" class="line">{{ story.explanation }}</p>
        <p v-if="story.changes.length === 0" class="line">Nothing has been changed here yet.</p>
        <table v-else class="listing">
          <thead>
            <tr>
              <th scope="col">When</th>
              <th scope="col">Who</th>
              <th scope="col">From</th>
              <th scope="col">To</th>
              <th scope="col">Why</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(change, index) in story.changes" :key="index">
              <td class="figures">{{ dayAndTime(change.at) }}</td>
              <td>{{ change.by ?? 'by itself' }}</td>
              <td class="figures">{{ valueWords(change.was) }}</td>
              <td class="figures">{{ valueWords(change.now) }}</td>
              <td>{{ change.why }}</td>
            </tr>
          </tbody>
        </table>
      </template>
    </div>
  </section>
</template>

<style scoped>
.strip {
  min-height: 40px;
  max-height: 34vh;
  overflow-y: auto;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: center;
}
.what {
  flex: 1 1 300px;
}
.line {
  font-size: 14px;
}
.story {
  margin-top: 6px;
}
</style>
