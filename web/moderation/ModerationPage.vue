<script setup lang="ts">
import { callOffModeration, finishModeration, readModeration, type ComparedWork } from '#contract/moderation';
import { differing } from '#core/moderation';
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import { call } from '../session/api.ts';
import PageFrame from '../shell/PageFrame.vue';
import StateNote from '../shell/StateNote.vue';
import { useLoaded } from '../shell/use-loaded.ts';
import { useDeed } from '../shell/use-deed.ts';
import { counted, dayAndTime } from '../wording/format.ts';
import AgreementTable from './AgreementTable.vue';
import ComparedPanel from './ComparedPanel.vue';
import { REASONS } from './words.ts';

/** One second marking: how far it is, and once it is handed over, what both gave. */
const props = defineProps<{ moderation: string }>();

const router = useRouter();
const params = computed(() => ({ moderation: props.moderation }));
const { value, error, load } = useLoaded(
  () => call(readModeration, { params: params.value }),
  () => props.moderation,
);
const opened = ref<string>();
const { busy, problem, attempt } = useDeed();
const surely = ref(false);

const apart = ({ first, secondScores }: ComparedWork): number =>
  differing(value.value!.rubric, { first, second: secondScores }).length;
/** Where most is to be talked about comes first. */
const compared = computed(() => value.value?.compared.toSorted((a, b) => apart(b) - apart(a)) ?? []);
const stateOf = (one: ComparedWork): string =>
  one.settled
    ? one.unapplied
      ? 'settled, not applied'
      : 'settled'
    : apart(one) === 0
      ? 'no difference'
      : counted(apart(one), 'difference');

const handOver = () =>
  attempt(async () => {
    await call(finishModeration, { params: params.value });
    await load();
  });
const callOff = () =>
  attempt(async () => {
    await call(callOffModeration, { params: params.value });
    await router.push({ name: 'moderations', params: { assignment: value.value!.assignment.id } });
  });
</script>

<template>
  <PageFrame title="Second marking">
    <StateNote v-if="!value" :busy="!error" :error="error" @retry="load" />
    <template v-else>
      <p class="links">
        <router-link :to="{ name: 'moderations', params: { assignment: value.assignment.id } }">{{
          value.assignment.title
        }}</router-link>
      </p>
      <p>
        {{ counted(value.works, 'work') }}, marked a second time by {{ value.marker }}; begun by {{ value.startedBy }},
        {{ dayAndTime(value.startedAt)
        }}<template v-if="value.finishedAt">; handed over {{ dayAndTime(value.finishedAt) }}</template
        >. <span v-if="value.seed" class="quiet figures">Random seed {{ value.seed }}</span>
      </p>
      <p v-if="problem" class="refused" role="alert">{{ problem }}</p>
      <template v-if="value.mine && value.desk">
        <p class="wide">
          You see neither names nor what was given before. Mark at the desk as you always do: scores, and remarks by
          voice where they help to talk about it later. Students never get them. When you hand it over, both markings
          are shown beside each other, and yours stays as it is.
        </p>
        <p role="status">{{ value.scored }} of {{ value.works }} are scored.</p>
        <div class="row">
          <v-btn
            :variant="value.scored < value.works ? 'flat' : 'outlined'"
            color="primary"
            :to="{ name: 'desk', params: { submission: value.desk.first } }"
            >{{ value.scored === 0 ? 'Begin' : 'Go on' }} at the desk</v-btn
          >
          <v-btn
            :variant="value.scored < value.works ? 'outlined' : 'flat'"
            color="primary"
            :loading="busy"
            @click="handOver"
            >Hand it over</v-btn
          >
        </div>
      </template>
      <template v-else-if="!value.finishedAt">
        <p role="status" class="wide">
          {{ value.marker }} has scored {{ value.scored }} of {{ value.works }}. What they gave is shown here when they
          hand it over.
        </p>
        <div class="row">
          <v-btn v-if="!surely" variant="outlined" @click="surely = true">Call it off …</v-btn>
          <template v-else>
            <span>{{ value.marker }} cannot go on with it then.</span>
            <v-btn variant="flat" color="primary" :loading="busy" @click="callOff">Call it off</v-btn>
            <v-btn @click="surely = false">Leave it</v-btn>
          </template>
        </div>
      </template>
      <template v-else>
        <AgreementTable :moderation="value" />
        <h2>Works</h2>
        <ul class="works">
          <li v-for="one in compared" :key="one.work">
            <button
              type="button"
              class="work"
              :aria-expanded="opened === one.work"
              @click="opened = opened === one.work ? undefined : one.work"
            >
              <strong>{{ one.student }}</strong>
              <span class="quiet">{{ REASONS[one.reason] }}</span>
              <span class="state">{{ stateOf(one) }}</span>
            </button>
            <ComparedPanel v-if="opened === one.work" :moderation="value" :compared="one" @settled="load" />
          </li>
        </ul>
      </template>
    </template>
  </PageFrame>
</template>

<style scoped>
.links {
  margin-bottom: 8px;
}
.wide {
  max-width: 68ch;
  margin: 10px 0;
}
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
  margin-top: 10px;
}
h2 {
  margin: 24px 0 6px;
}
.works {
  list-style: none;
}
.works > li {
  border-bottom: 1px solid var(--hairline);
}
.work {
  display: flex;
  gap: 16px;
  align-items: baseline;
  width: 100%;
  padding: 9px 0;
  text-align: start;
}
.state {
  margin-inline-start: auto;
}
</style>
