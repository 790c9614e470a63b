<script setup lang="ts">
import { formatHundredths } from '#core/grading';
import type { Feedback } from '#contract/submissions';
import { computed } from 'vue';
import { counted, dayAndTime, listOf } from '../wording/format.ts';

/** What another return changed, and what is still to come. */
const props = defineProps<{ feedback: Feedback }>();
defineEmits<{ go: [remark: string] }>();

const changes = computed(() => {
  const { changed, rubric, questions } = props.feedback;
  if (!changed) return [];
  const titles = [
    ...rubric.filter(({ id }) => changed.scores.includes(id)).map(({ title }) => title),
    ...questions.flatMap(({ id }, index) => (changed.scores.includes(id) ? [`Question ${index + 1}`] : [])),
  ];
  const { grade } = changed;
  return [
    ...(changed.gone > 0 ? [`${counted(changed.gone, 'remark')} taken away`] : []),
    ...(titles.length > 0 ? [`another score for ${listOf(titles)}`] : []),
    ...(grade
      ? [
          `the result was ${grade.grade ?? ''} ${formatHundredths(grade.points)} of ${formatHundredths(grade.possible)} points`,
        ]
      : []),
  ];
});
const news = computed(() => [
  ...(props.feedback.changed?.added ?? []).map((id, index) => ({ id, label: `New remark ${index + 1}` })),
  ...(props.feedback.changed?.changed ?? []).map((id, index) => ({ id, label: `Changed remark ${index + 1}` })),
]);
</script>

<template>
  <section class="news" aria-label="What is new">
    <template v-if="feedback.changed">
      <p>
        Your teacher returned this again<template v-if="feedback.returnedAt"
          >, {{ dayAndTime(feedback.returnedAt) }}</template
        ><template v-if="changes.length > 0">: {{ listOf(changes) }}</template
        >.
      </p>
      <p v-if="news.length > 0" class="links">
        <button v-for="one in news" :key="one.id" type="button" @click="$emit('go', one.id)">{{ one.label }}</button>
      </p>
      <p v-else-if="changes.length === 0" class="quiet">Nothing in it is different.</p>
    </template>
    <p v-if="feedback.held === 'grade'" class="quiet">The scores and the grade come later.</p>
    <p v-if="feedback.held === 'remarks'" class="quiet">The remarks come later.</p>
  </section>
</template>

<style scoped>
.news {
  margin-bottom: 12px;
  padding: 8px 10px;
  border-left: 3px solid var(--ink);
  background: var(--paper);
}
.links {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
}
.links button {
  text-decoration: underline;
}
</style>
