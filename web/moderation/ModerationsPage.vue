<script setup lang="ts">
import { drawSample, readModerations, startModeration, type SampledWorks } from '#contract/moderation';
import { formatHundredths } from '#core/grading';
import { computed, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import { call } from '../session/api.ts';
import PageFrame from '../shell/PageFrame.vue';
import StateNote from '../shell/StateNote.vue';
import { useLoaded } from '../shell/use-loaded.ts';
import { useDeed } from '../shell/use-deed.ts';
import NumberField from '../theme/NumberField.vue';
import { counted, dayAndTime } from '../wording/format.ts';
import { REASONS } from './words.ts';

/** Second markings of an assignment, and how one is begun. */
const props = defineProps<{ assignment: string }>();

const MOST = 100;
const router = useRouter();
const params = computed(() => ({ assignment: props.assignment }));
const { value, error, load } = useLoaded(
  () => call(readModerations, { params: params.value }),
  () => props.assignment,
);
const marker = ref<string>();
watch(value, (now) => (marker.value ??= now?.markers[0]?.id));
const [random, borders, extremes] = [ref(3), ref(0), ref(2)];
const drawn = ref<SampledWorks>();
/** What the works were drawn with; it is kept, so that anybody can see that nobody chose them. */
const seed = ref('');
const ticked = ref<string[]>([]);
const { busy, problem, attempt } = useDeed();
const nameOf = computed(() => value.value?.markers.find(({ id }) => id === marker.value)?.name ?? '');
// What was chosen for somebody else may have been scored by this one.
watch(marker, () => (drawn.value = undefined));

const draw = () =>
  attempt(async () => {
    const wanted = { random: random.value, borders: borders.value, extremes: extremes.value };
    const { works, seed: drawnWith } = await call(drawSample, {
      params: params.value,
      body: { marker: marker.value!, ...wanted },
    });
    drawn.value = works;
    seed.value = drawnWith;
    ticked.value = works.map(({ work }) => work);
  });
const start = () =>
  attempt(async () => {
    const works = drawn.value!.filter(({ work }) => ticked.value.includes(work));
    const { id } = await call(startModeration, {
      params: params.value,
      body: { marker: marker.value!, works: works.map(({ work, reason }) => ({ work, reason })), seed: seed.value },
    });
    await router.push({ name: 'moderation', params: { moderation: id } });
  });
</script>

<template>
  <PageFrame title="Second marking">
    <StateNote v-if="!value" :busy="!error" :error="error" @retry="load" />
    <template v-else>
      <p class="links">
        <router-link :to="{ name: 'assignment', params: { assignment } }">{{ value.title }}</router-link>
      </p>
      <ul v-if="value.moderations.length > 0" class="rows">
        <li v-for="one in value.moderations" :key="one.id">
          <router-link :to="{ name: 'moderation', params: { moderation: one.id } }">
            <strong>{{ counted(one.works, 'work') }} with {{ one.marker }}</strong>
            <span class="quiet">{{ dayAndTime(one.startedAt) }}</span>
            <span class="figures">{{
              one.finishedAt
                ? `handed over, ${one.settled} of ${one.works} settled`
                : `${one.scored} of ${one.works} scored`
            }}</span>
          </router-link>
        </li>
      </ul>
      <h2>Ask a colleague to mark some of them again</h2>
      <p class="wide quiet">
        They see neither names nor what was given. When they hand it over, both markings stand beside each other, with
        how far they agree, and you settle where they differ.
      </p>
      <StateNote v-if="value.markers.length === 0"
        >Nobody else teaches this course yet. Ask whoever looks after your school to add a colleague to it.</StateNote
      >
      <StateNote v-else-if="value.pool === 0"
        >No work is scored by all criteria of the rubric yet, so there is nothing to compare with.</StateNote
      >
      <form v-else @submit.prevent="draw">
        <v-select
          v-model="marker"
          class="who"
          density="compact"
          hide-details
          label="Second marker"
          :items="value.markers.map(({ id, name }) => ({ title: name, value: id }))"
        />
        <fieldset>
          <legend>Which works, of {{ value.pool }} that are scored</legend>
          <NumberField v-model="random" label="By chance" :min="0" :max="MOST" />
          <NumberField
            v-model="borders"
            label="Near a border of grades"
            :min="0"
            :max="MOST"
            :disabled="!value.borders"
          />
          <NumberField v-model="extremes" label="Highest and lowest" :min="0" :max="MOST" />
        </fieldset>
        <p v-if="!value.borders" class="quiet">
          There is no scale of grades here or in the course, so there are no borders.
        </p>
        <v-btn type="submit" variant="outlined" :loading="busy">{{ drawn ? 'Choose anew' : 'Choose works' }}</v-btn>
      </form>
      <p v-if="problem" class="refused" role="alert">{{ problem }}</p>
      <template v-if="drawn">
        <StateNote v-if="drawn.length === 0"
          >No works were found. {{ nameOf }} has perhaps scored all of them already, or no number was given.</StateNote
        >
        <template v-else>
          <ul class="drawn" aria-label="Works that were chosen">
            <li v-for="one in drawn" :key="one.work">
              <v-checkbox v-model="ticked" :value="one.work" density="compact" hide-details>
                <template #label>
                  <span class="label"
                    >{{ one.student }} <span class="figures">{{ formatHundredths(one.percentage) }} %</span>
                    <span class="quiet">{{ REASONS[one.reason] }}</span></span
                  >
                </template>
              </v-checkbox>
            </li>
          </ul>
          <v-btn variant="flat" color="primary" :disabled="ticked.length === 0" :loading="busy" @click="start"
            >Ask {{ nameOf }} to mark {{ counted(ticked.length, 'work') }}</v-btn
          >
        </template>
      </template>
    </template>
  </PageFrame>
</template>

<style scoped>
.links {
  margin-bottom: 8px;
}
h2 {
  margin: 20px 0 6px;
}
.wide {
  max-width: 68ch;
}
form {
  display: grid;
  gap: 12px;
  justify-items: start;
  margin: 12px 0;
}
.who {
  width: min(320px, 100%);
}
fieldset {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  padding: 0;
  margin: 0;
  border: 0;
}
fieldset > * {
  width: 210px;
}
legend {
  width: auto;
  padding: 0;
  margin-bottom: 8px;
}
.drawn {
  margin: 8px 0 12px;
  list-style: none;
}
.label {
  display: flex;
  gap: 12px;
}
</style>
