<script setup lang="ts">
import { addHandout, changeHandout, type Handout } from '#contract/handouts';
import { mdiTrashCanOutline } from '@mdi/js';
import { shallowRef } from 'vue';
import { call } from '../session/api.ts';
import FileInput from '../shell/FileInput.vue';
import { useDeed } from '../shell/use-deed.ts';
import HandoutList from '../hand-in/HandoutList.vue';

/** Files that go to the students: one to start from at once, a model to learn from perhaps only with their returned work. */
const props = defineProps<{ assignment: string; handouts: readonly Handout[] }>();
const emit = defineEmits<{ changed: [] }>();

const GIVEN = [
  { value: 'atOnce', title: 'students have it at once' },
  { value: 'withReturn', title: 'with their returned work' },
];
const { busy, problem, attempt } = useDeed();
const removed = shallowRef<Handout>();

async function change(deed: () => Promise<unknown>): Promise<boolean> {
  const done = await attempt(deed);
  emit('changed');
  return done;
}

async function choose(files: readonly File[]): Promise<void> {
  await change(async () => {
    for (const file of files)
      await call(addHandout, {
        params: { assignment: props.assignment, handout: crypto.randomUUID() },
        ...{ body: { given: 'atOnce' }, files: [file] },
      });
  });
}

const set = ({ id }: Handout, body: { given?: Handout['given']; aside?: boolean }): Promise<boolean> =>
  change(() => call(changeHandout, { params: { handout: id }, body }));

async function remove(handout: Handout): Promise<void> {
  if (await set(handout, { aside: true })) removed.value = handout;
}

async function bringBack(): Promise<void> {
  const handout = removed.value!;
  removed.value = undefined;
  await set(handout, { aside: false });
}
</script>

<template>
  <section aria-labelledby="handouts">
    <h2 id="handouts">Handed out</h2>
    <p v-if="handouts.length === 0" class="quiet">A file to start from, or a model work to learn from.</p>
    <HandoutList v-slot="{ handout }" :handouts="handouts">
      <v-select
        class="given"
        density="compact"
        hide-details
        :items="GIVEN"
        :model-value="handout.given"
        :aria-label="`When students have ${handout.name}`"
        @update:model-value="set(handout, { given: $event })"
      />
      <v-btn :icon="mdiTrashCanOutline" size="30" :aria-label="`Take ${handout.name} away`" @click="remove(handout)" />
    </HandoutList>
    <p v-if="removed" role="status">
      {{ removed.name }} was taken away.
      <v-btn size="small" @click="bringBack">Bring it back</v-btn>
    </p>
    <p v-if="problem" class="refused" role="alert">{{ problem }}</p>
    <FileInput v-slot="{ open }" label="Files to hand out" multiple @choose="choose">
      <v-btn size="small" :loading="busy" @click="open">Hand out a file …</v-btn>
    </FileInput>
  </section>
</template>

<style scoped>
section {
  margin: 16px 0;
}
.given {
  flex: 0 1 240px;
}
</style>
