<script setup lang="ts">
import { listFromPlatform, readCoursePlatform, sendGrades, type SentState } from '#contract/platforms';
import { takeOut, type RosterReport } from '#contract/roster';
import { formatHundredths } from '#core/grading';
import { computed, ref, shallowRef } from 'vue';
import RosterLines from '../courses/RosterLines.vue';
import { call } from '../session/api.ts';
import PageFrame from '../shell/PageFrame.vue';
import StateNote from '../shell/StateNote.vue';
import { useDeed } from '../shell/use-deed.ts';
import { useLoaded } from '../shell/use-loaded.ts';
import { counted, dayAndTime } from '../wording/format.ts';

/** A course and the learning platform that it is connected with: its class list, and grades that go there. */
const props = defineProps<{ course: string }>();

const params = computed(() => ({ course: props.course }));
const { value, error, load } = useLoaded(
  () => call(readCoursePlatform, { params: params.value }),
  () => props.course,
);
const { problem, attempt } = useDeed();
const doing = ref<string>();
const report = shallowRef<RosterReport>();
/** How far a sending is. */
const progress = ref<string>();

const coming = computed(
  () => report.value?.lines.filter(({ fate }) => fate === 'add' || fate === 'join' || fate === 'invite').length ?? 0,
);

async function go(what: string, deed: () => Promise<void>): Promise<void> {
  doing.value = what;
  await attempt(deed);
  doing.value = progress.value = undefined;
}
const list = (bringIn: boolean): Promise<void> =>
  go('list', async () => {
    report.value = await call(listFromPlatform, { params: params.value, body: { bringIn } });
  });
const takeBack = (): Promise<void> =>
  go('list', async () => {
    await call(takeOut, { params: params.value, body: { people: report.value!.added } });
    report.value = undefined;
  });

/** Some at a time, so that one sees how far it is. */
const send = ({ assignment, title }: SentState): Promise<void> =>
  go(assignment, async () => {
    const since = new Date().toISOString();
    try {
      for (let left = 1; left > 0;) {
        const answer = await call(sendGrades, { params: params.value, body: { assignment, since } });
        left = answer.left;
        if (left > 0) progress.value = `${title}: ${counted(left, 'grade')} still to go.`;
      }
    } finally {
      await load();
    }
  });
const isDone = ({ different }: SentState): boolean => different.length === 0;
const label = ({ returned, sent, toWithdraw }: SentState): string =>
  [
    ...(returned > sent ? [`Send ${counted(returned - sent, 'grade')}`] : []),
    ...(toWithdraw > 0 ? [`withdraw ${counted(toWithdraw, 'grade')}`] : []),
  ].join(' and ');
const shown = (result: SentState['different'][number]['here']): string =>
  result ? `${formatHundredths(result.points)} of ${formatHundredths(result.possible)}` : 'nothing';
</script>

<template>
  <PageFrame title="Learning platform">
    <StateNote v-if="!value" :busy="!error" :error="error" @retry="load" />
    <template v-else>
      <p class="links">
        <router-link :to="{ name: 'course', params: { course } }">{{ value.course }}</router-link>
      </p>
      <StateNote v-if="!value.platform"
        >This course is not connected with a learning platform. Open it once from there, as its teacher, and say which
        course it is.</StateNote
      >
      <template v-else>
        <p>Connected with “{{ value.platform.title }}” on {{ value.platform.name }}.</p>
        <p v-if="problem" class="refused" role="alert">{{ problem }}</p>
        <section aria-labelledby="list">
          <h2 id="list">Class list</h2>
          <p v-if="!value.platform.lists" class="quiet">The platform does not offer its class list.</p>
          <v-btn v-else-if="!report" variant="outlined" :loading="doing === 'list'" @click="list(false)"
            >Look at the class list there</v-btn
          >
          <template v-else>
            <p role="status">
              <template v-if="report.done">{{ counted(report.added.length, 'student') }} came in.</template>
              <template v-else>{{ counted(coming, 'student') }} would come in.</template>
            </p>
            <RosterLines :lines="report.lines" />
            <div class="row">
              <template v-if="report.done">
                <v-btn variant="flat" color="primary" @click="report = undefined">Good</v-btn>
                <v-btn v-if="report.added.length > 0" :loading="doing === 'list'" @click="takeBack">Take it back</v-btn>
              </template>
              <template v-else>
                <v-btn
                  variant="flat"
                  color="primary"
                  :disabled="coming === 0"
                  :loading="doing === 'list'"
                  @click="list(true)"
                  >Bring in {{ counted(coming, 'student') }}</v-btn
                >
                <v-btn @click="report = undefined">Leave it</v-btn>
              </template>
            </div>
          </template>
        </section>
        <section aria-labelledby="grades">
          <h2 id="grades">Grades</h2>
          <p v-if="!value.platform.grades" class="quiet">The platform does not take grades from here.</p>
          <template v-else>
            <p class="quiet wide">
              Only what students see here goes there, and only when you send it. Points go, not remarks.
            </p>
            <p v-if="progress" role="status">{{ progress }}</p>
            <StateNote v-if="value.assignments.length === 0"
              >Nothing has been returned yet, so there is nothing to send.</StateNote
            >
            <ul v-else>
              <li v-for="one in value.assignments" :key="one.assignment">
                <div class="what">
                  <strong>{{ one.title }}</strong>
                  <span class="figures quiet"
                    >{{ one.sent }} of {{ one.returned }} sent{{
                      one.lastAt ? `, last tried ${dayAndTime(one.lastAt)}` : ''
                    }}</span
                  >
                </div>
                <span v-if="isDone(one)" class="quiet">all there</span>
                <v-btn
                  v-else
                  size="small"
                  variant="outlined"
                  :loading="doing === one.assignment"
                  :disabled="doing !== undefined"
                  @click="send(one)"
                  >{{ label(one) }}<span class="visually-hidden"> of {{ one.title }}</span></v-btn
                >
                <details v-if="one.different.length > 0" class="problems">
                  <summary>{{ counted(one.different.length, 'grade') }} different on the platform</summary>
                  <p v-for="{ student, here, there } in one.different" :key="student" class="figures">
                    {{ student }}: {{ shown(here) }} here, {{ shown(there) }} there
                  </p>
                </details>
                <details v-if="one.problems.length > 0" class="problems">
                  <summary>{{ counted(one.problems.length, 'grade') }} did not arrive</summary>
                  <p v-for="{ student, why } in one.problems" :key="student">{{ student }}: {{ why }}</p>
                </details>
              </li>
            </ul>
          </template>
        </section>
      </template>
    </template>
  </PageFrame>
</template>

<style scoped>
.links {
  margin-bottom: 8px;
}
h2 {
  margin: 22px 0 8px;
}
.wide {
  max-width: 68ch;
}
.row {
  display: flex;
  gap: 8px;
  margin-top: 14px;
}
ul {
  margin-top: 8px;
  list-style: none;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: center;
  padding: 7px 0;
  border-bottom: 1px solid var(--hairline);
}
.what {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: baseline;
  margin-inline-end: auto;
}
.problems {
  flex-basis: 100%;
  color: rgb(var(--v-theme-error));
  font-size: 13px;
}
</style>
