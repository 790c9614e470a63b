<script setup lang="ts">
import { readOwnWork } from '#contract/assignments';
import { call } from '../shared/api.ts';
import PageFrame from '../shared/PageFrame.vue';
import StateNote from '../shared/StateNote.vue';
import { dayAndTime } from '../shared/time.ts';
import { useLoaded } from '../shared/use-loaded.ts';
import HandIn from './HandIn.vue';

const { value: works, error, load } = useLoaded(() => call(readOwnWork));
</script>

<template>
  <PageFrame title="Your work">
    <StateNote v-if="!works" :busy="!error" :error="error" @retry="load" />
    <StateNote v-else-if="works.length === 0"
      >You have no assignments yet. They appear here when a teacher sets one.</StateNote
    >
    <section v-for="{ assignment, versions } in works" v-else :key="assignment.id" class="work">
      <h2>{{ assignment.title }}</h2>
      <p class="quiet">
        {{ assignment.course }}<template v-if="assignment.dueAt">, due {{ dayAndTime(assignment.dueAt) }}</template>
      </p>
      <p class="brief">{{ assignment.brief }}</p>
      <ul v-if="versions.length > 0">
        <li v-for="version in versions" :key="version.submission">
          <span>Version {{ version.version }}: {{ version.fileName }}</span>
          <span class="figures quiet">handed in {{ dayAndTime(version.handedInAt) }}</span>
          <v-btn
            v-if="version.returnedAt"
            variant="flat"
            color="primary"
            size="small"
            :to="{ name: 'returned', params: { submission: version.submission } }"
          >
            Open your feedback
          </v-btn>
          <span v-else class="quiet">with your teacher</span>
        </li>
      </ul>
      <HandIn :assignment="assignment.id" :again="versions.length > 0" @done="load" />
    </section>
  </PageFrame>
</template>

<style scoped>
.work {
  max-width: 760px;
  padding: 24px;
  background: var(--paper);
  border: 1px solid var(--hairline);
}
.work + .work {
  margin-top: 24px;
}
h2 {
  font-family: var(--serif);
  font-weight: 560;
  font-size: 22px;
}
.quiet {
  color: var(--quiet);
}
.brief {
  margin: 8px 0 16px;
}
ul {
  list-style: none;
  margin-bottom: 16px;
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 16px;
  padding: 10px 0;
  border-top: 1px solid var(--hairline);
}
</style>
