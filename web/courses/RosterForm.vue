<script setup lang="ts">
import { listStudents, takeOut, type RosterReport } from '#contract/roster';
import { computed, ref, shallowRef } from 'vue';
import { call } from '../session/api.ts';
import FileInput from '../shell/FileInput.vue';
import { useDeed } from '../shell/use-deed.ts';
import { counted } from '../wording/format.ts';
import RosterLines from './RosterLines.vue';

/** Students from a list that is pasted or chosen as a file. What each line would do is shown first, and it can be taken back. */
const props = defineProps<{ course: string }>();
const emit = defineEmits<{ changed: [] }>();

const text = ref('');
const file = shallowRef<File>();
const turned = ref(false);
const report = shallowRef<RosterReport>();
const { busy, problem, attempt } = useDeed();
const coming = computed(
  () => report.value?.lines.filter(({ fate }) => fate === 'add' || fate === 'join' || fate === 'invite').length ?? 0,
);
const refused = computed(() => report.value?.lines.filter(({ fate }) => fate === 'refuse').length ?? 0);

const send = (bringIn: boolean) =>
  attempt(async () => {
    report.value = await call(listStudents, {
      params: { course: props.course },
      body: { text: file.value ? '' : text.value, turned: turned.value, bringIn },
      files: file.value ? [file.value] : [],
    });
    if (bringIn) emit('changed');
  });

const undo = () =>
  attempt(async () => {
    const people = report.value!.added;
    await call(takeOut, { params: { course: props.course }, body: { people } });
    leave();
    emit('changed');
  });

function choose([chosen]: readonly File[]): void {
  file.value = chosen;
  void send(false);
}

function turn(now: boolean | null): void {
  turned.value = now === true;
  void send(false);
}

function leave(): void {
  report.value = file.value = undefined;
}

function done(): void {
  text.value = '';
  leave();
}
</script>

<template>
  <section class="roster" aria-label="Add students">
    <form v-if="!report" @submit.prevent="send(false)">
      <v-textarea
        v-model="text"
        label="Paste your class list"
        placeholder="One student a line; mail and number are optional"
        rows="4"
        maxlength="500000"
      />
      <div class="row">
        <v-btn type="submit" variant="flat" color="primary" :loading="busy" :disabled="text.trim() === ''"
          >Look at the list</v-btn
        >
        <FileInput
          v-slot="{ open }"
          label="A class list as a file"
          accept=".csv,.txt,.tsv,.xlsx,text/csv,text/plain"
          @choose="choose"
        >
          <v-btn variant="text" @click="open">Choose a file …</v-btn>
        </FileInput>
      </div>
    </form>
    <div v-else class="report">
      <p role="status">
        <template v-if="report.done">{{ counted(report.added.length, 'student') }} came in.</template>
        <template v-else
          >{{ counted(coming, 'student') }} would come in<template v-if="refused"
            >; {{ counted(refused, 'line') }} cannot</template
          >.</template
        >
      </p>
      <v-checkbox
        v-if="report.twoParts && !report.done"
        :model-value="turned"
        label="The names are the other way round"
        @update:model-value="turn"
      />
      <RosterLines :lines="report.lines" />
      <div class="row">
        <template v-if="report.done">
          <v-btn variant="flat" color="primary" @click="done">Good</v-btn>
          <v-btn v-if="report.added.length > 0" :loading="busy" @click="undo">Take it back</v-btn>
        </template>
        <template v-else>
          <v-btn variant="flat" color="primary" :loading="busy" :disabled="coming === 0" @click="send(true)"
            >Bring in {{ counted(coming, 'student') }}</v-btn
          >
          <v-btn @click="leave">Change the list</v-btn>
        </template>
      </div>
    </div>
    <p v-if="problem" class="refused" role="alert">{{ problem }}</p>
  </section>
</template>

<style scoped>
.roster {
  max-width: 760px;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
  margin-top: 10px;
}
</style>
