<script setup lang="ts">
import { bankFile, bankTable, importBank, type BankReport, type Line } from '#contract/bank-file';
import { urlOf } from '#contract/endpoint';
import { computed, shallowRef } from 'vue';
import { call } from '../session/api.ts';
import FileInput from '../shell/FileInput.vue';
import { useDeed } from '../shell/use-deed.ts';
import { counted } from '../wording/format.ts';

/** The bank as a file, out and in. Nothing comes in before it was shown what would. */
const emit = defineEmits<{ changed: [] }>();

const FATES: Record<Line['fate'], string> = {
  add: 'comes in',
  merge: 'is joined',
  known: 'is there already',
  refuse: 'cannot come in',
};

const file = shallowRef<File>();
const report = shallowRef<BankReport>();
const { busy, problem, attempt } = useDeed();
const cut = computed(() => {
  const { lines = [], add = 0, merge = 0, known = 0, refuse = 0 } = report.value ?? {};
  return add + merge + known + refuse - lines.length;
});
const summary = computed(() => {
  const { add, merge, known, refuse, done } = report.value!;
  const parts = [
    done ? `${counted(add, 'remark')} came in` : `${counted(add, 'remark')} would come in`,
    ...(merge > 0 ? [`${merge} ${done ? 'were' : 'would be'} joined with what you have`] : []),
    ...(known > 0 ? [`${known} are in your bank already`] : []),
    ...(refuse > 0 ? [`${refuse} cannot come in`] : []),
  ];
  return `${parts.join('; ')}.`;
});

async function send(bringIn: boolean): Promise<void> {
  if (!file.value) return;
  const done = await attempt(async () => {
    report.value = await call(importBank, { body: { bringIn }, files: [file.value!] });
    if (bringIn) emit('changed');
  });
  if (!done) report.value = undefined;
}

async function choose([chosen]: readonly File[]): Promise<void> {
  file.value = chosen;
  report.value = undefined;
  await send(false);
}

function leave(): void {
  report.value = file.value = problem.value = undefined;
}
</script>

<template>
  <section class="files" aria-label="The bank as a file">
    <p>
      <a :href="urlOf(bankFile, {})" download>Save the bank as a file</a>
      <a :href="urlOf(bankTable, {})" download>Save its words as a table</a>
      <FileInput
        v-slot="{ open }"
        label="A bank as a file, or a table"
        accept=".zip,.csv,text/csv,application/zip"
        @choose="choose"
      >
        <button type="button" class="link" :disabled="busy" @click="open">Bring in a file …</button>
      </FileInput>
    </p>
    <v-progress-linear v-if="busy" indeterminate color="primary" height="4" aria-label="Looking at the file" />
    <p v-if="problem" class="refused" role="alert">{{ problem }}</p>
    <div v-if="report && file" class="report">
      <p role="status">
        <strong>{{ file.name }}</strong>: {{ summary }}
      </p>
      <div class="lines">
        <table v-if="report.lines.length > 0" class="listing">
          <thead>
            <tr>
              <th scope="col">Line</th>
              <th scope="col">Remark</th>
              <th scope="col">What comes of it</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="one in report.lines" :key="one.line" :class="one.fate">
              <td class="figures">{{ one.line }}</td>
              <td dir="auto">{{ one.name || 'without a name' }}</td>
              <td>{{ FATES[one.fate] }}: {{ one.why }}</td>
            </tr>
          </tbody>
        </table>
        <p v-if="cut > 0" class="fine">and {{ cut }} more like these</p>
      </div>
      <div class="end">
        <v-btn size="small" @click="leave">{{ report.done ? 'Close' : 'Leave it' }}</v-btn>
        <v-btn
          v-if="!report.done"
          size="small"
          variant="flat"
          color="primary"
          :loading="busy"
          :disabled="report.add + report.merge === 0"
          @click="send(true)"
          >Bring in {{ counted(report.add, 'remark') }}</v-btn
        >
      </div>
    </div>
  </section>
</template>

<style scoped>
.files p {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 20px;
}
a,
.link {
  color: inherit;
  text-decoration: underline dotted;
}
.report {
  margin: 12px 0;
  padding: 14px 16px;
  background: var(--paper);
  border: 1px solid var(--hairline);
  border-radius: 4px;
}
.report p {
  display: block;
}
.lines {
  max-height: 320px;
  margin: 10px 0;
  overflow-y: auto;
}
table {
  width: 100%;
}
.known td {
  color: var(--quiet);
}
.end {
  display: flex;
  justify-content: flex-end;
  gap: 6px;
}
</style>
