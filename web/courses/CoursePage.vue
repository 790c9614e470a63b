<script setup lang="ts">
import { defineAsyncComponent, ref } from 'vue';
import { readCourse } from '#contract/courses';
import OwnWorkList from '../assignments/OwnWorkList.vue';
import NewAssignment from '../assignments/NewAssignment.vue';
import TaughtList from '../assignments/TaughtList.vue';
import { call } from '../session/api.ts';
import PageFrame from '../shell/PageFrame.vue';
import StateNote from '../shell/StateNote.vue';
import { useLoaded } from '../shell/use-loaded.ts';
import NotesHere from '../notes/NotesHere.vue';
import { counted, listOf } from '../wording/format.ts';

/** One course: for its teachers the assignments and the class, for a student their own work in it. */
const props = defineProps<{ course: string }>();

const {
  value: course,
  error,
  load,
} = useLoaded(
  () => call(readCourse, { params: { course: props.course } }),
  () => props.course,
);
const setting = ref(false);

// What a student never needs.
const RosterForm = defineAsyncComponent(() => import('./RosterForm.vue'));
const CourseSettings = defineAsyncComponent(() => import('./CourseSettings.vue'));
const NotePart = defineAsyncComponent(() => import('../notes/NotePart.vue'));
</script>

<template>
  <PageFrame :title="course?.title ?? 'Course'">
    <StateNote v-if="!course" :busy="!error" :error="error" @retry="load" />
    <template v-else>
      <p class="quiet">
        <v-chip v-if="course.aside">put aside</v-chip>
        {{ course.teachers.length === 0 ? 'No teacher yet' : `Taught by ${listOf(course.teachers)}` }}
      </p>
      <v-btn v-if="course.teaches && !setting" size="small" @click="setting = true">Change the course</v-btn>
      <CourseSettings v-if="course.teaches && setting" :course="course" @changed="load" />
      <NotePart
        v-if="course.teaches"
        :course="course.id"
        :at="{ place: 'course' }"
        label="the note on this course"
        makes="a note for this course"
      />
      <NotesHere v-else :course="course.id" :at="{ place: 'course' }" label="the note on this course" />
      <template v-if="course.teaches">
        <section aria-labelledby="assignments">
          <h2 id="assignments">Assignments</h2>
          <StateNote v-if="course.assignments.length === 0"
            >There are no assignments in this course yet. A title is enough to begin.</StateNote
          >
          <TaughtList
            v-else
            :assignments="
              course.assignments.map((one) => ({
                ...one,
                students: course!.students.length,
                handedIn: one.handedIn ?? 0,
                returned: one.returned ?? 0,
              }))
            "
          />
          <p v-if="course.assignments.length > 0" class="links">
            <router-link :to="{ name: 'gradebook', params: { course: course.id } }">Gradebook</router-link>
            <router-link :to="{ name: 'charts', params: { course: course.id } }">Charts</router-link>
          </p>
          <NewAssignment :course="course.id" :assignments="course.assignments" class="new" />
        </section>
        <section aria-labelledby="class">
          <h2 id="class">The class</h2>
          <p v-if="course.students.length > 0" class="quiet">
            {{ counted(course.students.length, 'student') }}: {{ course.students.join(', ') }}
          </p>
          <template v-else>
            <StateNote>There are no students in this course yet.</StateNote>
            <RosterForm :course="course.id" @changed="load" />
          </template>
          <p class="links">
            <router-link :to="{ name: 'members', params: { course: course.id } }">{{
              course.notIn ? `People and join slips (${course.notIn} not in yet)` : 'People and join slips'
            }}</router-link>
            <router-link v-if="course.students.length > 0" :to="{ name: 'greetings', params: { course: course.id } }"
              >Speak a greeting to each</router-link
            >
            <router-link :to="{ name: 'platform', params: { course: course.id } }">Learning platform</router-link>
          </p>
        </section>
      </template>
      <OwnWorkList v-else :course="course.id" />
    </template>
  </PageFrame>
</template>

<style scoped>
section {
  margin-top: 32px;
  max-width: 760px;
}
h2 {
  margin-bottom: 8px;
}
/* Under a list, not beside it. */
.new {
  margin-top: 12px;
}
.links {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 24px;
  margin-top: 8px;
}
</style>
