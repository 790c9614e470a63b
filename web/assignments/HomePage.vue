<script setup lang="ts">
import { storeToRefs } from 'pinia';
import { computed } from 'vue';
import InvitationList from './InvitationList.vue';
import { useCourses } from '../session/courses.ts';
import { useSession } from '../session/session.ts';
import PageFrame from '../shell/PageFrame.vue';
import NewCourse from './NewCourse.vue';
import OwnWorkList from './OwnWorkList.vue';
import ToMark from './ToMark.vue';

/** What waits for a teacher, and a student's own work. Somebody may be both. */
const session = useSession();
const { courses, known } = storeToRefs(useCourses());
const teaches = computed(() => session.person?.teaches === true);
/** Somebody who has just come. */
const begins = computed(() => teaches.value && known.value && courses.value.length === 0);
const both = computed(() => teaches.value && session.person?.learns === true);
</script>

<template>
  <PageFrame :title="begins ? 'Begin with a course' : teaches ? 'What waits for you' : 'Your work'">
    <InvitationList />
    <template v-if="teaches">
      <p v-if="begins" class="first">
        A title is enough. Then come its students, from a list that you paste, and the first assignment; each can be
        changed at any time.
      </p>
      <ToMark v-else />
      <h2 v-if="!begins" class="another">Another course</h2>
      <!-- Whether this is the first course is known a moment later: what is being typed stays. -->
      <NewCourse />
    </template>
    <h2 v-if="both" class="own">Your own work</h2>
    <OwnWorkList v-if="!teaches || both" />
  </PageFrame>
</template>

<style scoped>
.first {
  max-width: 60ch;
  margin-bottom: 16px;
}
.another {
  margin: 40px 0 8px;
  font-size: 17px;
  font-weight: 650;
}
.own {
  margin: 48px 0 16px;
  font-family: var(--serif);
  font-weight: 500;
  font-size: 26px;
}
</style>
