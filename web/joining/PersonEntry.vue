<script setup lang="ts">
import { acceptFor, changePerson, mergePerson, type SchoolPerson } from '#contract/steward';
import { computed, reactive, ref } from 'vue';
import { call } from '../session/api.ts';
import { useDeed } from '../shell/use-deed.ts';

/** The steward corrects an entry, merges it into another one of the same person, or accepts an invitation for them. */
const props = defineProps<{ person: SchoolPerson; others: readonly SchoolPerson[] }>();
const emit = defineEmits<{ done: [told: string]; close: [] }>();

const draft = reactive({ name: props.person.name, mail: props.person.mail, number: props.person.number });
const into = ref<string | null>(null);
const { busy, problem, attempt } = useDeed();
const params = { person: props.person.id };
const stays = computed(() => props.others.find(({ id }) => id === into.value));
const choices = computed(() =>
  props.others.map(({ id, name, login }) => ({ value: id, title: `${name} (signs in as ${login})` })),
);

const go = (deed: () => Promise<unknown>, told: string): Promise<boolean> =>
  attempt(async () => {
    await deed();
    emit('done', told);
  });
const save = () => go(() => call(changePerson, { params, body: draft }), `Saved: ${draft.name}`);
const merge = () =>
  go(() => call(mergePerson, { params, body: { into: into.value! } }), `Merged into ${stays.value!.name}`);
const accept = ({ course, title }: SchoolPerson['invited'][number]) =>
  go(() => call(acceptFor, { params: { ...params, course } }), `${props.person.name} joined ${title}`);
</script>

<template>
  <section class="entry" :aria-label="`Edit ${person.name}`" @keydown.esc="$emit('close')">
    <form @submit.prevent="save">
      <v-text-field v-model="draft.name" label="Name" density="compact" maxlength="200" autofocus hide-details />
      <v-text-field v-model="draft.mail" label="Email" density="compact" maxlength="200" hide-details />
      <v-text-field v-model="draft.number" label="Number" density="compact" maxlength="40" hide-details />
      <v-btn type="submit" variant="flat" color="primary" :loading="busy" :disabled="draft.name.trim() === ''"
        >Save</v-btn
      >
      <v-btn @click="$emit('close')">Cancel</v-btn>
    </form>
    <div v-for="one in person.invited" :key="one.course" class="row">
      <span>Invited to {{ one.title }}</span>
      <v-btn size="small" variant="outlined" :disabled="busy" @click="accept(one)">Accept for {{ person.name }}</v-btn>
    </div>
    <form v-if="person.teaches.length === 0" @submit.prevent="merge">
      <v-autocomplete
        v-model="into"
        class="into"
        density="compact"
        hide-details
        clearable
        label="Duplicate? Keep this entry instead"
        :items="choices"
      />
      <v-btn type="submit" variant="outlined" :disabled="!stays || busy">Merge</v-btn>
      <p v-if="stays" class="wide">
        All work of {{ person.name }} ({{ person.login }}) goes to {{ stays.name }}, who signs in as
        <strong>{{ stays.login }}</strong>. This can’t be undone.
      </p>
    </form>
    <p v-if="problem" class="refused" role="alert">{{ problem }}</p>
  </section>
</template>

<style scoped>
.entry {
  display: grid;
  gap: 12px;
  max-width: 820px;
  margin: 12px 0;
  padding: 14px;
  background: var(--paper);
  border: 1px solid var(--hairline);
}
form,
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
}
form > :deep(.v-input) {
  flex: 1 1 180px;
}
.wide {
  flex-basis: 100%;
}
</style>
