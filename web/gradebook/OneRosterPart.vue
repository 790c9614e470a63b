<script setup lang="ts">
import { urlOf } from '#contract/endpoint';
import { oneRosterFile, readOneRosterFile, takeBackOneRoster, type OneRosterReport } from '#contract/oneroster';
import { computed, ref, shallowRef } from 'vue';
import { call } from '../session/api.ts';
import FileInput from '../shell/FileInput.vue';
import { useDeed } from '../shell/use-deed.ts';
import { counted } from '../wording/format.ts';
import PlanTable from './PlanTable.vue';

/** The course for other systems, and out of them. Nothing comes in before it was shown what would. */
const props = defineProps<{ course: string }>();
const emit = defineEmits<{ changed: [] }>();

const file = shallowRef<File>();
const report = shallowRef<OneRosterReport>();
const { busy, problem, attempt } = useDeed();
const told = ref<string>();

const params = computed(() => ({ course: props.course }));
const coming = computed(() => (report.value ? report.value.counts.new + report.value.counts.changed : 0));
const all = computed(() => (report.value ? Object.values(report.value.counts).reduce((sum, one) => sum + one, 0) : 0));
const summary = computed(() => {
  const { counts } = report.value!;
  return `${counts.unchanged} as it is, ${counts.new} new, ${counts.changed} changed, ${counts.refused} not taken.`;
});

const go = (deed: () => Promise<void>): Promise<boolean> => {
  told.value = undefined;
  return attempt(deed);
};

const send = (chosen: string | null, bringIn: boolean): Promise<boolean> =>
  go(async () => {
    const body = { class: chosen, bringIn };
    report.value = await call(readOneRosterFile, { params: params.value, body, files: [file.value!] });
    if (!bringIn) return;
    const { people, assignments, cells } = report.value.broughtIn!;
    told.value = `${counted(people.length, 'student')}, ${counted(assignments.length, 'assignment')} and ${counted(cells.length, 'grade')} came in. Assignments are not open to students yet, and grades are drafts.`;
    emit('changed');
  });
const takeBack = (): Promise<boolean> =>
  go(async () => {
    await call(takeBackOneRoster, { params: params.value, body: report.value!.broughtIn! });
    leave();
    told.value = 'It has been taken back.';
    emit('changed');
  });

function choose([chosen]: readonly File[]): void {
  file.value = chosen;
  report.value = undefined;
  void send(null, false);
}
function leave(): void {
  report.value = file.value = problem.value = told.value = undefined;
}
</script>

<template>
  <section aria-labelledby="oneroster">
    <h3 id="oneroster">For another system</h3>
    <p class="fine">
      OneRoster 1.2 is an open standard for students, assignments and results: one .zip file with tables in it.
    </p>
    <p><a :href="urlOf(oneRosterFile, { course })" download>Save as OneRoster (.zip)</a></p>
    <FileInput v-slot="{ open }" label="A OneRoster file" accept=".zip" @choose="choose">
      <v-btn variant="outlined" :loading="busy && !report" @click="open">Look at a OneRoster file …</v-btn>
    </FileInput>
    <p v-if="problem" class="refused" role="alert">{{ problem }}</p>
    <p v-if="told" role="status">{{ told }}</p>
    <v-btn v-if="report?.broughtIn" size="small" variant="outlined" :loading="busy" @click="takeBack"
      >Take it back</v-btn
    >
    <template v-else-if="report">
      <v-select
        v-if="report.classes.length > 1"
        class="which"
        density="compact"
        hide-details
        label="Which class of the file"
        :model-value="report.chosen"
        :items="
          report.classes.map(({ id, title, students }) => ({
            title: `${title}, ${counted(students, 'student')}`,
            value: id,
          }))
        "
        @update:model-value="send($event, false)"
      />
      <p role="status">{{ summary }}</p>
      <p v-if="report.teachers > 0" class="fine">
        {{ counted(report.teachers, 'teacher') }} in it: invite them from the people of the course.
      </p>
      <div class="row">
        <v-btn
          variant="flat"
          color="primary"
          :disabled="coming === 0"
          :loading="busy"
          @click="send(report.chosen, true)"
          >Take over {{ counted(coming, 'line') }}</v-btn
        >
        <v-btn @click="leave">Leave it</v-btn>
      </div>
      <PlanTable :lines="report.lines" :count="all" />
    </template>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 10px;
  justify-items: start;
  width: 100%;
  margin-top: 12px;
  padding-top: 12px;
  border-top: 1px solid var(--hairline);
}
h3 {
  font-size: 15px;
  font-weight: 650;
}
.which {
  width: 100%;
}
.row {
  display: flex;
  gap: 8px;
}
</style>
