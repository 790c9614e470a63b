<script setup lang="ts">
import { formatHundredths } from '#core/grading';
import {
  planReturn,
  readReturning,
  returnWorks,
  takeBackWorks,
  type Finding,
  type ReturnRow,
} from '#contract/returning';
import { useTimeoutFn } from '@vueuse/core';
import { computed, defineAsyncComponent, ref } from 'vue';
import { useOutbox } from '../outbox/outbox.ts';
import { call } from '../session/api.ts';
import PageFrame from '../shell/PageFrame.vue';
import StateNote from '../shell/StateNote.vue';
import ToldNote from '../shell/ToldNote.vue';
import { useLoaded } from '../shell/use-loaded.ts';
import { useTold } from '../shell/use-told.ts';
import { findingWords, remarkOfFinding } from '../wording/finding.ts';
import { counted, dayAndTime } from '../wording/format.ts';
import { fromLocal, ownZone } from '../wording/local-time.ts';
import { WORK_STATES } from '../wording/work-state.ts';

const ReadDrafts = defineAsyncComponent(() => import('./ReadDrafts.vue'));

/** Drafts of one assignment on their way to the students: looked through, and sent out together. */
const props = defineProps<{ assignment: string }>();
const params = computed(() => ({ assignment: props.assignment }));
const {
  value: returning,
  error,
  load,
} = useLoaded(
  () => call(readReturning, { params: params.value }),
  () => props.assignment,
);

const HELD = [
  { title: 'Remarks and grades together', value: null },
  { title: 'Remarks now, grades later', value: 'grade' },
  { title: 'Grades now, remarks later', value: 'remarks' },
] satisfies { title: string; value: 'grade' | 'remarks' | null }[];
const MINUTE = 60_000;

const outbox = useOutbox();
/** What was said about a work in this browser and has not arrived yet. */
const onTheWay = (work: string): number => outbox.parcels.value.filter(({ about }) => about === work).length;

const ticked = ref<string[]>([]);
const held = ref<(typeof HELD)[number]['value']>(null);
const planning = ref(false);
const at = ref('');
const reading = ref(false);
const { busy, told, attempt } = useTold();
/** What went out last, as long as it can be taken back. */
const regretted = ref<string[]>([]);
const forget = useTimeoutFn(() => (regretted.value = []), MINUTE, { immediate: false });

const rows = computed(() => returning.value?.rows ?? []);
const drafts = computed(() => rows.value.filter(({ returnedAt }) => returnedAt === null));
const isReady = computed(() => drafts.value.filter(({ state }) => state === 'ready'));
/** What goes out by itself at a set time is left to that, unless it is ticked. */
const ready = computed(() =>
  isReady.value.filter(({ returnAt }) => returnAt === null).map(({ submission }) => submission),
);
const planned = computed(() => isReady.value.length - ready.value.length);
const waiting = computed(() => rows.value.filter((row) => row.held !== null).map(({ submission }) => submission));
const chosen = computed(() => ticked.value.filter((id) => drafts.value.some(({ submission }) => submission === id)));
const unread = computed(() =>
  drafts.value.reduce(
    (sum, { findings }) =>
      sum + findings.reduce((all, one) => all + (one.type === 'unread' ? one.remarks.length : 0), 0),
    0,
  ),
);
const everything = computed({
  get: () => drafts.value.length > 0 && chosen.value.length === drafts.value.length,
  set: (all) => (ticked.value = all ? drafts.value.map(({ submission }) => submission) : []),
});

async function go(deed: () => Promise<string>): Promise<void> {
  await attempt(deed);
  await load();
}

const send = (works: string[]): Promise<void> =>
  go(async () => {
    // A return takes all that is there: what is still to come would be left behind.
    const whole = works.filter((work) => onTheWay(work) === 0);
    const waits = works.length - whole.length;
    if (whole.length === 0) return `Nothing went out: ${waitsWords(waits)}`;
    const { returned } = await call(returnWorks, { params: params.value, body: { works: whole, held: held.value } });
    regretted.value = returned;
    forget.start();
    ticked.value = works.filter((work) => !whole.includes(work));
    const done = `Returned to ${counted(returned.length, 'student')}. You have a minute to think again.`;
    return waits > 0 ? `${done} ${waitsWords(waits)}` : done;
  });

const waitsWords = (works: number): string =>
  `${counted(works, 'work waits', 'works wait')} for what you said to arrive. Try again when it says “Saved” above.`;

const release = (): Promise<void> =>
  go(async () => {
    const { returned } = await call(returnWorks, { params: params.value, body: { works: waiting.value, held: null } });
    return `${counted(returned.length, 'student')} can see all of it now.`;
  });

const takeBack = (): Promise<void> =>
  go(async () => {
    const { takenBack } = await call(takeBackWorks, { params: params.value, body: { works: regretted.value } });
    regretted.value = [];
    return `Taken back from ${counted(takenBack.length, 'student')}, as if it had never gone out.`;
  });

async function plan(works: string[], instant: string | null | undefined): Promise<void> {
  if (instant === undefined) {
    told.value = { text: 'The clocks go forward in that hour, so it does not exist. Choose another one.', wrong: true };
    return;
  }
  await go(async () => {
    const { planned } = await call(planReturn, { params: params.value, body: { works, at: instant } });
    planning.value = false;
    ticked.value = [];
    return instant
      ? `${counted(planned.length, 'work')} will be returned ${dayAndTime(instant)}, all of each.`
      : 'They wait for you again.';
  });
}

const where = (row: ReturnRow, finding: Finding) => {
  const remark = remarkOfFinding(finding);
  return { name: 'desk', params: { submission: row.submission }, ...(remark && { hash: `#${remark}` }) };
};
const resultOf = ({ grade }: ReturnRow): string =>
  grade
    ? [grade.grade, `${formatHundredths(grade.points)} of ${formatHundredths(grade.possible)}`]
        .filter(Boolean)
        .join(', ')
    : '';
const stateOf = ({ state, returnAt, held: back }: ReturnRow): string => {
  if (returnAt) return `goes out ${dayAndTime(returnAt)}`;
  if (back) return back === 'grade' ? 'returned, grade held back' : 'returned, remarks held back';
  return WORK_STATES[state].name;
};
</script>

<template>
  <PageFrame :title="returning ? `Return: ${returning.title}` : 'Return'">
    <StateNote v-if="!returning" :busy="!error" :error="error" @retry="load" />
    <template v-else>
      <p class="quiet">
        <router-link :to="{ name: 'assignment', params: { assignment } }">{{ returning.title }}</router-link>
      </p>
      <StateNote v-if="rows.length === 0">Nothing has been handed in yet.</StateNote>
      <template v-else>
        <div class="bar">
          <v-select
            v-model="held"
            :items="HELD"
            density="compact"
            hide-details
            aria-label="What goes out"
            class="held"
          />
          <v-btn variant="flat" color="primary" :loading="busy" :disabled="ready.length === 0" @click="send(ready)"
            >Return all ready ({{ ready.length }})</v-btn
          >
          <span v-if="planned > 0" class="quiet">{{ counted(planned, 'work') }} scheduled</span>
          <v-btn variant="outlined" :disabled="busy || chosen.length === 0" @click="send(chosen)"
            >Return the {{ chosen.length }} ticked</v-btn
          >
          <v-btn :disabled="chosen.length === 0" :aria-expanded="planning" @click="planning = !planning"
            >At a set time …</v-btn
          >
          <v-btn v-if="unread > 0" @click="reading = !reading">Read {{ counted(unread, 'draft') }}</v-btn>
          <v-btn v-if="waiting.length > 0" :disabled="busy" @click="release"
            >Send what was held back ({{ waiting.length }})</v-btn
          >
        </div>
        <form v-if="planning" class="bar" @submit.prevent="plan(chosen, fromLocal(at))">
          <v-text-field
            v-model="at"
            type="datetime-local"
            density="compact"
            hide-details
            :label="`Return the ticked (${ownZone()})`"
            class="held"
          />
          <v-btn type="submit" variant="outlined" :disabled="at === '' || chosen.length === 0">Set the time</v-btn>
          <v-btn :disabled="chosen.length === 0" @click="plan(chosen, null)">No set time</v-btn>
        </form>
        <ToldNote :told="told" class="told">
          <v-btn v-if="regretted.length > 0" size="small" variant="outlined" :disabled="busy" @click="takeBack"
            >Take it back</v-btn
          >
        </ToldNote>
        <ReadDrafts v-if="reading" :rows="drafts" @done="((reading = false), load())" />
        <v-table class="works">
          <thead>
            <tr>
              <th scope="col"><v-checkbox v-model="everything" aria-label="Tick all drafts" /></th>
              <th scope="col">Student</th>
              <th scope="col">State</th>
              <th scope="col">Remarks</th>
              <th scope="col">Result</th>
              <th scope="col">Look once more</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in rows" :key="row.submission">
              <td>
                <v-checkbox
                  v-if="row.returnedAt === null"
                  v-model="ticked"
                  :value="row.submission"
                  :aria-label="`Tick ${row.student}`"
                />
              </td>
              <th scope="row">
                <router-link :to="{ name: 'desk', params: { submission: row.submission } }">{{
                  row.student
                }}</router-link>
              </th>
              <td>{{ stateOf(row) }}</td>
              <td class="figures">{{ row.remarks || '' }}</td>
              <td class="figures">{{ resultOf(row) }}</td>
              <td class="findings">
                <router-link v-for="finding in row.findings" :key="findingWords(finding)" :to="where(row, finding)">{{
                  findingWords(finding)
                }}</router-link>
                <span v-if="onTheWay(row.submission) > 0" class="coming"
                  >{{ counted(onTheWay(row.submission), 'change is', 'changes are') }} still on the way.</span
                >
              </td>
            </tr>
          </tbody>
        </v-table>
      </template>
    </template>
  </PageFrame>
</template>

<style scoped>
.bar {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 12px;
  align-items: center;
  margin-top: 16px;
}
.held {
  flex: 0 1 270px;
}
.told {
  margin-top: 12px;
  font-size: inherit;
}
.works {
  margin-top: 16px;
  background: transparent;
}
.findings a,
.coming {
  display: block;
  padding: 4px 0;
  color: var(--quiet);
  font-size: 13px;
}
</style>
