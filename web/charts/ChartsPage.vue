<script setup lang="ts">
import { readCharts } from '#contract/charts';
import { readCourse } from '#contract/courses';
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { call } from '../session/api.ts';
import PageFrame from '../shell/PageFrame.vue';
import StateNote from '../shell/StateNote.vue';
import { useLoaded } from '../shell/use-loaded.ts';
import LevelsChart from './LevelsChart.vue';
import OrderChart from './OrderChart.vue';
import SpreadChart from './SpreadChart.vue';
import TimeChart from './TimeChart.vue';
import VoiceChart from './VoiceChart.vue';

/** What results and remarks look like across a class: of one assignment, and of the course. */
const props = defineProps<{ course: string }>();

const route = useRoute();
const router = useRouter();
const {
  value: course,
  error: courseError,
  load: loadCourse,
} = useLoaded(
  () => call(readCourse, { params: { course: props.course } }),
  () => props.course,
);
const asked = computed(
  () => course.value?.assignments.filter(({ returned, handedIn }) => (returned ?? 0) + (handedIn ?? 0) > 0) ?? [],
);
/** The one that was asked for, or the last in which works came back. */
const assignment = computed({
  get: () => {
    const { assignment: wanted } = route.query;
    return (
      asked.value.find(({ id }) => id === wanted)?.id ??
      asked.value.findLast(({ returned }) => (returned ?? 0) > 0)?.id ??
      asked.value[0]?.id
    );
  },
  set: (id) => void router.replace({ query: { assignment: id } }),
});
const { value, error, load } = useLoaded(
  async () => (assignment.value ? call(readCharts, { params: { assignment: assignment.value } }) : undefined),
  assignment,
);
</script>

<template>
  <PageFrame title="Charts">
    <StateNote v-if="!course" :busy="!courseError" :error="courseError" @retry="loadCourse" />
    <template v-else>
      <p class="links">
        <router-link :to="{ name: 'course', params: { course: course.id } }">{{ course.title }}</router-link>
        <router-link :to="{ name: 'gradebook', params: { course: course.id } }">Gradebook</router-link>
      </p>
      <StateNote v-if="asked.length === 0">Nothing has been handed in yet, so there is nothing to draw.</StateNote>
      <template v-else>
        <v-select
          v-model="assignment"
          class="which"
          density="compact"
          hide-details
          label="Assignment"
          :items="asked.map(({ id, title }) => ({ title, value: id }))"
        />
        <StateNote v-if="!value" :busy="!error" :error="error" @retry="load" />
        <div v-else class="charts">
          <SpreadChart :works="value.works" />
          <OrderChart :works="value.works" />
          <LevelsChart v-if="value.rubric.length > 0" :rubric="value.rubric" :works="value.works" />
          <TimeChart :works="value.works" />
        </div>
      </template>
      <h2>All of {{ course.title }}</h2>
      <VoiceChart :course="course.id" />
    </template>
  </PageFrame>
</template>

<style scoped>
.links {
  display: flex;
  gap: 4px 24px;
  margin-bottom: 12px;
}
.which {
  max-width: 420px;
  margin-bottom: 16px;
}
.charts {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(420px, 100%), 1fr));
  gap: 16px;
  align-items: start;
}
h2 {
  margin: 28px 0 10px;
}
</style>
