<script setup lang="ts">
import { readAssignment } from '#contract/assignments';
import { computed, ref, watch } from 'vue';
import { call } from '../session/api.ts';
import PageFrame from '../shell/PageFrame.vue';
import AssignmentFields from './AssignmentFields.vue';
import ClassTable from './ClassTable.vue';
import BudgetField from './BudgetField.vue';
import HandInFor from './HandInFor.vue';
import HandoutsEditor from './HandoutsEditor.vue';
import QuestionsEditor from './QuestionsEditor.vue';
import MarkingFields from './MarkingFields.vue';
import RubricEditor from './RubricEditor.vue';
import StateNote from '../shell/StateNote.vue';
import { dayAndTime } from '../wording/format.ts';
import { standingWords } from '../wording/standing.ts';
import NotePart from '../notes/NotePart.vue';
import { useLoaded } from '../shell/use-loaded.ts';

const props = defineProps<{ assignment: string }>();
const {
  value: overview,
  error,
  load,
} = useLoaded(
  () => call(readAssignment, { params: { assignment: props.assignment } }),
  () => props.assignment,
);

const setting = ref(false);
// What nobody has been asked yet is still being written.
watch(overview, (now) => {
  if (now?.open === false) setting.value = true;
});
const handedIn = computed(() => overview.value?.rows.filter(({ submission }) => submission) ?? []);
const missing = computed(() => overview.value?.rows.filter(({ submission }) => !submission) ?? []);

const aboutQuestion = (question: string, number: number) => ({
  course: overview.value!.courseId,
  at: { place: 'question' as const, assignment: props.assignment, question },
  label: `what is said about question ${number}`,
  makes: `about question ${number}`,
});
</script>

<template>
  <PageFrame :title="overview?.title ?? 'Assignment'">
    <StateNote v-if="!overview" :busy="!error" :error="error" @retry="load" />
    <template v-else-if="overview.moderation">
      <p class="quiet">{{ overview.course }}</p>
      <p class="brief">{{ overview.brief }}</p>
      <p>
        These works are here to be marked a second time. Students never see it.
        <router-link :to="{ name: 'moderation', params: { moderation: overview.moderation } }"
          >Hand it over when you are done</router-link
        >
      </p>
      <ClassTable :rows="handedIn" :shown="overview.marking.shown" />
    </template>
    <template v-else>
      <p class="quiet">
        <router-link :to="{ name: 'course', params: { course: overview.courseId } }">{{
          overview.course
        }}</router-link><template v-if="overview.dueAt">, due {{ dayAndTime(overview.dueAt) }}</template>
      </p>
      <AssignmentFields v-if="setting" :overview="overview" @changed="load" />
      <template v-else>
        <p class="brief">{{ overview.brief }}</p>
        <v-btn size="small" @click="setting = true">Change what is asked</v-btn>
      </template>
      <NotePart
        :course="overview.courseId"
        :at="{ place: 'instructions', assignment }"
        label="the spoken instructions"
        makes="instructions"
      />
      <HandoutsEditor
        v-if="setting || overview.handouts.length > 0"
        :assignment="assignment"
        :handouts="overview.handouts"
        @changed="load"
      />
      <p v-if="handedIn.length > 0">
        <router-link :to="{ name: 'return', params: { assignment } }">Look through and return</router-link>
        <router-link class="second" :to="{ name: 'moderations', params: { assignment } }">Second marking</router-link>
      </p>
      <BudgetField :assignment="assignment" :budget="overview.budget" />
      <ClassTable v-if="handedIn.length > 0" :rows="handedIn" :shown="overview.marking.shown" />
      <template v-if="missing.length > 0">
        <h2>
          Not handed in <span class="figures quiet">{{ missing.length }}</span>
        </h2>
        <p class="quiet">
          {{ missing.map(({ student, standing }) => [student.name, ...standingWords(standing)].join(', ')).join('; ') }}
        </p>
      </template>
      <HandInFor v-if="overview.questions.length === 0" :assignment="assignment" :rows="overview.rows" @done="load" />
      <template v-if="handedIn.length === 0">
        <h2>Questions</h2>
        <p class="quiet">Where there are any, students answer them here instead of handing in a file.</p>
        <QuestionsEditor
          v-slot="{ question, number }"
          :assignment="assignment"
          :questions="overview.questions"
          @changed="load"
        >
          <NotePart v-bind="aboutQuestion(question, number)" />
        </QuestionsEditor>
      </template>
      <template v-else>
        <section v-for="(question, index) in overview.questions" :key="question.id" class="question">
          <h2>Question {{ index + 1 }}</h2>
          <p>{{ question.prompt }}</p>
          <NotePart v-bind="aboutQuestion(question.id, index + 1)" />
        </section>
      </template>
      <template v-if="setting || handedIn.length === 0">
        <RubricEditor :assignment="assignment" :title="overview.title" :questions="overview.questions.length" />
        <MarkingFields
          :assignment="assignment"
          :marking="overview.marking"
          :questions="overview.questions.length"
          @changed="load"
        />
      </template>
      <h2>Class message</h2>
      <p class="quiet">Everyone in this assignment finds it above their returned work.</p>
      <NotePart
        :course="overview.courseId"
        :at="{ place: 'class', assignment }"
        label="the message to the class"
        makes="a class message"
      />
    </template>
  </PageFrame>
</template>

<style scoped>
.brief {
  max-width: 68ch;
}
.second {
  margin-inline-start: 24px;
}
h2 {
  margin-top: 24px;
}
</style>
