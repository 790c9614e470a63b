<script setup lang="ts">
import { readWaiting } from '#contract/assignments';
import { call } from '../session/api.ts';
import StateNote from '../shell/StateNote.vue';
import { useLoaded } from '../shell/use-loaded.ts';
import { dayAndTime } from '../wording/format.ts';
import { WORK_STATES } from '../wording/work-state.ts';
import TaughtList from './TaughtList.vue';

/** What waits for a teacher. */
const { value: waiting, error, load } = useLoaded(() => call(readWaiting));
</script>

<template>
  <StateNote v-if="!waiting" :busy="!error" :error="error" @retry="load" />
  <div v-else class="columns">
    <section aria-labelledby="to-mark">
      <h2 id="to-mark">
        To mark <span class="figures count">{{ waiting.toMark.length }}</span>
      </h2>
      <StateNote v-if="waiting.toMark.length === 0">Nothing to mark. New work appears here by itself.</StateNote>
      <ul v-else class="rows">
        <li v-for="item in waiting.toMark" :key="item.submission">
          <router-link :to="{ name: 'desk', params: { submission: item.submission } }">
            <strong>{{ item.student }}</strong>
            <span class="quiet"
              >{{ item.assignment.title
              }}<template v-if="item.version > 1">, version {{ item.version }}</template></span
            >
            <v-chip v-if="item.state !== 'waiting'">{{ WORK_STATES[item.state].name }}</v-chip>
            <v-chip v-if="item.late">late</v-chip>
            <span class="figures quiet when">{{ dayAndTime(item.handedInAt) }}</span>
          </router-link>
        </li>
      </ul>
    </section>
    <div class="side">
      <section aria-labelledby="unanswered">
        <h2 id="unanswered">
          Unanswered replies <span class="figures count">{{ waiting.unanswered.length }}</span>
        </h2>
        <StateNote v-if="waiting.unanswered.length === 0">No student is waiting for an answer.</StateNote>
        <ul v-else class="rows">
          <li v-for="item in waiting.unanswered" :key="item.remark">
            <router-link :to="{ name: 'desk', params: { submission: item.submission }, hash: `#${item.remark}` }">
              <strong>{{ item.student }}</strong>
              <span class="figures quiet when">{{ dayAndTime(item.at) }}</span>
              <span class="text">{{ item.spoken ? 'Answered by voice' : item.text }}</span>
            </router-link>
          </li>
        </ul>
      </section>
      <section aria-labelledby="assignments">
        <h2 id="assignments">Assignments</h2>
        <StateNote v-if="waiting.assignments.length === 0">None of your courses has an assignment yet.</StateNote>
        <TaughtList v-else :assignments="waiting.assignments" />
      </section>
    </div>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  gap: 48px;
}
.side {
  display: grid;
  gap: 32px;
  align-content: start;
}
h2 {
  font-size: 17px;
  font-weight: 650;
  margin-bottom: 8px;
}
.count {
  margin-left: 4px;
  color: var(--quiet);
  font-weight: 400;
}
.text {
  flex-basis: 100%;
}
@media (max-width: 800px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
