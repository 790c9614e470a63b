<script setup lang="ts">
import { urlOf } from '#contract/endpoint';
import { dataOfPerson, erasePerson, type DataRecord } from '#contract/own-data';
import type { SchoolPerson } from '#contract/steward';
import { computed, ref } from 'vue';
import { call } from '../session/api.ts';
import { useDeed } from '../shell/use-deed.ts';
import { counted } from '../wording/format.ts';

/** All that the school has of one person: exported for them, or erased. */
const props = defineProps<{ person: SchoolPerson }>();
const emit = defineEmits<{ erased: [record: DataRecord]; exported: []; close: [] }>();

const name = ref('');
const { busy, problem, attempt } = useDeed();
const url = computed(() => urlOf(dataOfPerson, { person: props.person.id }));

async function erase(): Promise<void> {
  await attempt(async () => {
    emit('erased', await call(erasePerson, { params: { person: props.person.id }, body: { name: name.value } }));
  });
}
</script>

<template>
  <form class="data" aria-labelledby="data-of" @submit.prevent="erase" @keydown.esc="$emit('close')">
    <h2 id="data-of">All data of {{ person.name }}</h2>
    <p>
      <a :href="url" @click="$emit('exported')">Export it as a zip file</a>: what they handed in and got back, with all
      sounds. That you did is written down.
    </p>
    <template v-if="person.teaches.length === 0">
      <p>
        Or erase it: every work, every recording about or by them, every score, and their way in.
        <strong>It cannot be taken back</strong>, and stays in backups only as long as you keep these. Type their name
        as it stands in the list.
      </p>
      <v-text-field v-model="name" density="compact" label="Their name" autocomplete="off" class="name" />
    </template>
    <p v-else>
      {{ counted(person.teaches.length, 'course', 'courses') }} of theirs have to go to somebody else before they can be
      erased.
    </p>
    <p v-if="problem" class="refused" role="alert">{{ problem }}</p>
    <div class="row">
      <v-btn
        v-if="person.teaches.length === 0"
        type="submit"
        variant="flat"
        color="error"
        :disabled="name.trim() !== person.name.trim()"
        :loading="busy"
        >Erase everything</v-btn
      >
      <v-btn @click="$emit('close')">Leave it</v-btn>
    </div>
  </form>
</template>

<style scoped>
.data {
  display: grid;
  gap: 10px;
  max-width: 680px;
  margin: 12px 0;
  padding: 16px;
  background: var(--paper);
  border: 1px solid var(--hairline);
}
a {
  text-decoration: underline;
}
.name {
  max-width: 320px;
}
.row {
  display: flex;
  gap: 10px;
}
</style>
