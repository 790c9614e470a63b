<script setup lang="ts">
import { mergeMember, type Member } from '#contract/roster';
import { computed, ref } from 'vue';
import { call } from '../session/api.ts';
import { useDeed } from '../shell/use-deed.ts';
import { counted } from '../wording/format.ts';

/** Somebody was entered twice: one entry goes, and the other one has all. */
const props = defineProps<{ course: string; member: Member; others: readonly Member[] }>();
const emit = defineEmits<{ done: [kept: Member]; close: [] }>();

const into = ref<string | null>(props.others.find(({ name }) => name === props.member.name)?.id ?? null);
const { busy, problem, attempt } = useDeed();
const stays = computed(() => props.others.find(({ id }) => id === into.value));
const choices = computed(() =>
  props.others.map(({ id, name, login }) => ({ value: id, title: `${name} (signs in as ${login})` })),
);

async function merge(): Promise<void> {
  await attempt(async () => {
    const params = { course: props.course, person: props.member.id };
    emit('done', await call(mergeMember, { params, body: { into: into.value! } }));
  });
}
</script>

<template>
  <form class="merge" aria-labelledby="merge" @submit.prevent="merge" @keydown.esc="$emit('close')">
    <h3 id="merge">{{ member.name }} was entered twice</h3>
    <v-select
      v-model="into"
      class="into"
      density="compact"
      hide-details
      label="The entry that stays"
      :items="choices"
      no-data-text="Nobody else is in this course"
    />
    <p v-if="stays">
      {{ counted(member.works, 'work goes', 'works go') }} to {{ stays.name }}, who signs in as
      <strong>{{ stays.login }}</strong>. Nobody can sign in as <strong>{{ member.login }}</strong> any more. This
      cannot be taken back.
    </p>
    <p v-if="problem" class="refused" role="alert">{{ problem }}</p>
    <div class="row">
      <v-btn type="submit" variant="flat" color="primary" :disabled="!stays" :loading="busy">Make them one</v-btn>
      <v-btn @click="$emit('close')">Leave it</v-btn>
    </div>
  </form>
</template>

<style scoped>
.merge {
  max-width: 620px;
  padding: 14px;
  background: var(--paper);
  border: 1px solid var(--hairline);
}
h3 {
  margin-bottom: 8px;
  font-size: 15px;
  font-weight: 650;
}
.row {
  display: flex;
  gap: 8px;
  margin-top: 8px;
}
</style>
