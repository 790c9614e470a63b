<script setup lang="ts">
import { readWaiting } from '#contract/assignments';
import { call } from '../session/api.ts';
import PageFrame from '../shell/PageFrame.vue';
import StateNote from '../shell/StateNote.vue';
import { dayAndTime } from '../wording/time.ts';
import { WORK_STATES } from '../wording/work-state.ts';
import { useLoaded } from '../shell/use-loaded.ts';

const { value: waiting, error, load } = useLoaded(() => call(readWaiting));
</script>

<template>
  <PageFrame title="What waits for you">
    <StateNote v-if="!waiting" :busy="!error" :error="error" @retry="load" />
    <div v-else class="columns">
      <section aria-labelledby="to-mark">
        <h2 id="to-mark">
          To mark <span class="figures count">{{ waiting.toMark.length }}</span>
        </h2>
        <StateNote v-if="waiting.toMark.length === 0"
          >Nothing is waiting to be marked. New work appears here by itself.</StateNote
        >
        <ul v-else class="rows">
          <li v-for="item in waiting.toMark" :key="item.submission">
            <router-link :to="{ name: 'desk', params: { submission: item.submission } }">
              <strong>{{ item.student }}</strong>
              <span class="quiet"
                >{{ item.assignment.title
                }}<template v-if="item.version > 1">, version {{ item.version }}</template></span
              >
              <span v-if="item.state !== 'waiting'" class="flag">{{ WORK_STATES[item.state].name }}</span>
              <span v-if="item.late" class="flag">late</span>
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
          <StateNote v-if="waiting.unanswered.length === 0">No student waits for an answer.</StateNote>
          <ul v-else class="rows">
            <li v-for="item in waiting.unanswered" :key="item.remark">
              <router-link
                :to="{ name: 'desk', params: { submission: item.submission }, hash: `#${item.remark}` }"
                class="reply"
              >
                <strong>{{ item.student }}</strong>
                <span class="figures quiet when">{{ dayAndTime(item.at) }}</span>
                <span class="text">{{ item.spoken ? 'Answered by voice' : item.text }}</span>
              </router-link>
            </li>
          </ul>
        </section>
        <section aria-labelledby="assignments">
          <h2 id="assignments">Assignments</h2>
          <ul class="rows">
            <li v-for="item in waiting.assignments" :key="item.id">
              <router-link :to="{ name: 'assignment', params: { assignment: item.id } }" class="reply">
                <strong>{{ item.title }}</strong>
                <span class="quiet when">{{ item.course }}</span>
                <span class="figures text">
                  {{ item.handedIn }} of {{ item.students }} handed in, {{ item.returned }} returned
                </span>
              </router-link>
            </li>
          </ul>
        </section>
      </div>
    </div>
  </PageFrame>
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
.rows {
  list-style: none;
  border-top: 1px solid var(--hairline);
}
li {
  border-bottom: 1px solid var(--hairline);
}
a {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 12px;
  padding: 10px 8px;
  text-decoration: none;
}
a:hover {
  background: var(--paper);
}
.quiet {
  color: var(--quiet);
}
.when {
  margin-left: auto;
  font-size: 13px;
}
.text {
  flex-basis: 100%;
}
.flag {
  padding: 0 8px;
  font-size: 13px;
  border: 1px solid var(--hairline);
  border-radius: 10px;
}
@media (max-width: 800px) {
  .columns {
    grid-template-columns: 1fr;
  }
}
</style>
