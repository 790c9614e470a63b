<script setup lang="ts">
import type { Slip } from '#contract/joining';
import { readDataRecords, type DataRecord } from '#contract/own-data';
import { readPeople, resetPerson, type SchoolPerson } from '#contract/steward';
import { computed, ref, shallowRef } from 'vue';
import SlipSheet from '../courses/SlipSheet.vue';
import { call } from '../session/api.ts';
import { useSchool } from '../session/school.ts';
import PageFrame from '../shell/PageFrame.vue';
import PersonData from './PersonData.vue';
import PersonEntry from './PersonEntry.vue';
import SchoolEntry from './SchoolEntry.vue';
import StateNote from '../shell/StateNote.vue';
import { useDeed } from '../shell/use-deed.ts';
import { useLoaded } from '../shell/use-loaded.ts';
import { counted, dayAndTime, listOf } from '../wording/format.ts';

/** For the school's steward: everybody, and a new way in for whoever needs one. */
const { value, error, load } = useLoaded(() => call(readPeople));
/** More than that nobody reads at once. */
const MOST = 100;

const wanted = ref('');
const slip = shallowRef<Slip>();
const { problem, attempt } = useDeed();
const found = computed(() => {
  const words = wanted.value.trim().toLowerCase();
  return (value.value?.people ?? []).filter(({ name, login }) => `${name} ${login}`.toLowerCase().includes(words));
});

/** Whose data are before the steward. */
const chosen = shallowRef<SchoolPerson>();
/** Whose entry is being corrected. */
const edited = shallowRef<SchoolPerson>();
const told = ref<string>();
const records = useLoaded(() => call(readDataRecords));
const school = useSchool();
void school.load();

function open(person: SchoolPerson): void {
  chosen.value = person;
  told.value = undefined;
  window.scrollTo(0, 0);
}

function edit(person: SchoolPerson): void {
  edited.value = person;
  told.value = undefined;
  window.scrollTo(0, 0);
}

async function schoolChanged(): Promise<void> {
  told.value = 'School saved.';
  window.scrollTo(0, 0);
  await school.reload();
}

async function changed(what: string): Promise<void> {
  told.value = what;
  edited.value = undefined;
  await load();
}

async function erased({ works, recordings }: DataRecord): Promise<void> {
  told.value = `Erased: ${counted(works, 'work')} and ${counted(recordings, 'recording')} of their own, and all that was said about them.`;
  chosen.value = undefined;
  await Promise.all([load(), records.load()]);
}

const coursesOf = ({ teaches, learns, invited }: SchoolPerson): string =>
  [
    ...(teaches.length > 0 ? [`teaches ${listOf(teaches)}`] : []),
    ...(learns.length > 0 ? [`learns in ${listOf(learns)}`] : []),
    ...(invited.length > 0 ? [`invited to ${listOf(invited.map(({ title }) => title))}`] : []),
  ].join('; ');

async function reset(person: SchoolPerson): Promise<void> {
  await attempt(async () => {
    ({ slip: slip.value } = await call(resetPerson, { params: { person: person.id } }));
    window.scrollTo(0, 0);
  });
}
</script>

<template>
  <PageFrame title="People of the school">
    <StateNote v-if="!value" :busy="!error" :error="error" @retry="load" />
    <SlipSheet v-else-if="slip" :slips="[slip]" course="" @close="slip = undefined" />
    <template v-else>
      <p class="quiet">
        You look after people and their ways in. Works and remarks stay with their teachers and students.
      </p>
      <v-text-field v-model="wanted" class="find" label="Find somebody" density="compact" hide-details />
      <p v-if="problem" class="refused" role="alert">{{ problem }}</p>
      <p v-if="told" role="status">{{ told }}</p>
      <PersonData
        v-if="chosen"
        :key="chosen.id"
        :person="chosen"
        @erased="erased"
        @exported="void records.load()"
        @close="chosen = undefined"
      />
      <PersonEntry
        v-if="edited"
        :key="edited.id"
        :person="edited"
        :others="(value.people ?? []).filter(({ id, steward }) => id !== edited!.id && !steward)"
        @done="changed"
        @close="edited = undefined"
      />
      <StateNote v-if="found.length === 0">Nobody is called that.</StateNote>
      <v-table v-else class="people">
        <thead>
          <tr>
            <th scope="col">Name</th>
            <th scope="col">Signs in as</th>
            <th scope="col">Courses</th>
            <th scope="col">Came in</th>
            <th scope="col"><span class="visually-hidden">What can be done</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="person in found.slice(0, MOST)" :key="person.id">
            <th scope="row" dir="auto">{{ person.name }} <v-chip v-if="person.steward">steward</v-chip></th>
            <td>{{ person.login }}</td>
            <td>{{ coursesOf(person) }}</td>
            <td class="figures when">{{ person.cameInAt ? dayAndTime(person.cameInAt) : 'not yet' }}</td>
            <td class="end">
              <v-btn
                v-if="!person.steward"
                size="small"
                :aria-label="`${person.cameInAt ? 'Forgot the password' : 'Join slip'}: ${person.name}`"
                @click="reset(person)"
                >{{ person.cameInAt ? 'Forgot the password' : 'Join slip' }}</v-btn
              >
              <v-btn v-if="!person.steward" size="small" :aria-label="`Edit: ${person.name}`" @click="edit(person)"
                >Edit</v-btn
              >
              <v-btn v-if="!person.steward" size="small" :aria-label="`All data: ${person.name}`" @click="open(person)"
                >All data</v-btn
              >
            </td>
          </tr>
        </tbody>
      </v-table>
      <p v-if="found.length > MOST" class="quiet">{{ found.length - MOST }} more; type a part of the name.</p>
      <section v-if="school.school" class="records" aria-labelledby="school">
        <h2 id="school">School</h2>
        <SchoolEntry :school="school.school" @changed="schoolChanged" />
      </section>
      <section v-if="records.value.value?.records.length" class="records" aria-labelledby="records">
        <h2 id="records">Exported and erased</h2>
        <ul>
          <li v-for="one in records.value.value.records" :key="one.id">
            {{ one.what }} by {{ one.by }}, <span class="figures">{{ dayAndTime(one.at) }}</span>:
            {{ counted(one.works, 'work') }}, {{ counted(one.recordings, 'recording') }}
            <span class="quiet">number {{ one.person.slice(0, 8) }}</span>
          </li>
        </ul>
      </section>
    </template>
  </PageFrame>
</template>

<style scoped>
.find {
  max-width: 320px;
  margin: 12px 0;
}
.people {
  background: transparent;
}
th {
  font-weight: 500;
  text-align: start;
}
.when {
  white-space: nowrap;
}
.end {
  text-align: end;
  white-space: nowrap;
}
.records {
  margin-top: 32px;
}
.records h2 {
  font-size: 17px;
  font-weight: 650;
}
.records ul {
  list-style: none;
}
</style>
