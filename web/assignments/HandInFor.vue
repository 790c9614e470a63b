<script setup lang="ts">
import { matchFiles } from '#core/roster';
import { handInFor, type ClassRow } from '#contract/assignments';
import { computed, ref, shallowRef } from 'vue';
import { call, sentenceOf } from '../session/api.ts';
import { sendFiles } from '../session/resumable.ts';
import FileInput from '../shell/FileInput.vue';
import { counted } from '../wording/format.ts';

/** Works that did not come through the app: scanned, or sent by mail. Each file is matched to a student by its name. */
const props = defineProps<{ assignment: string; rows: readonly ClassRow[] }>();
const emit = defineEmits<{ done: [] }>();

interface Line {
  file: File;
  student: string | null;
  state: 'waiting' | 'sending' | 'done' | 'refused';
  why?: string;
}

const lines = shallowRef<Line[]>([]);
const busy = ref(false);
const students = computed(() => props.rows.map(({ student }) => ({ value: student.id, title: student.name })));
const ready = computed(() => lines.value.filter(({ student, state }) => student !== null && state !== 'done'));
const left = computed(() => lines.value.filter(({ student, state }) => student === null && state !== 'done').length);

function choose(files: readonly File[]): void {
  const found = matchFiles(
    files.map(({ name }) => name),
    props.rows.map(({ student }) => student),
  );
  lines.value = [
    ...lines.value.filter(({ state }) => state !== 'done'),
    ...files.map((file, index): Line => ({ file, student: found[index] ?? null, state: 'waiting' })),
  ];
}

const set = (line: Line, change: Partial<Line>): Line => {
  const next = { ...line, ...change };
  lines.value = lines.value.map((one) => (one.file === line.file ? next : one));
  return next;
};

/** Files of one student are one work. What is refused stays, with the reason. */
async function send(): Promise<void> {
  busy.value = true;
  const works = new Map<string, Line[]>();
  for (const line of ready.value) works.set(line.student!, [...(works.get(line.student!) ?? []), line]);
  for (const [student, parts] of works) {
    for (const line of parts) set(line, { state: 'sending' });
    try {
      const uploads = await sendFiles(parts.map(({ file }) => file)).done;
      await call(handInFor, { params: { assignment: props.assignment }, body: { student }, uploads });
      for (const line of parts) set(line, { state: 'done' });
    } catch (failure) {
      for (const line of parts) set(line, { state: 'refused', why: sentenceOf(failure) });
    }
  }
  busy.value = false;
  emit('done');
}

const WORDS = { waiting: '', sending: 'is being read …', done: 'handed in', refused: '' };
</script>

<template>
  <section class="for" aria-labelledby="hand-in-for">
    <h2 id="hand-in-for">Hand in for students</h2>
    <p class="quiet">
      Work on paper that was scanned, or that came by mail: choose all files at once. Their names say whose they are,
      where they can; several files of one student become one work.
    </p>
    <FileInput v-slot="{ open }" label="Works of students" multiple @choose="choose">
      <v-btn variant="outlined" :disabled="busy" @click="open">Choose files …</v-btn>
    </FileInput>
    <table v-if="lines.length > 0" class="listing">
      <thead>
        <tr>
          <th scope="col">File</th>
          <th scope="col">Student</th>
          <th scope="col"><span class="visually-hidden">What became of it</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(line, index) in lines" :key="index" :class="line.state">
          <td class="file">{{ line.file.name }}</td>
          <td>
            <v-autocomplete
              density="compact"
              variant="outlined"
              hide-details
              :aria-label="`Student of ${line.file.name}`"
              placeholder="Whose is it?"
              :items="students"
              :model-value="line.student"
              :disabled="busy || line.state === 'done'"
              @update:model-value="set(line, { student: $event, state: 'waiting' })"
            />
          </td>
          <td>{{ line.why ?? WORDS[line.state] }}</td>
        </tr>
      </tbody>
    </table>
    <div v-if="lines.length > 0" class="row">
      <v-btn variant="flat" color="primary" :loading="busy" :disabled="ready.length === 0" @click="send"
        >Hand in {{ counted(ready.length, 'file') }}</v-btn
      >
      <p v-if="left > 0" class="quiet" role="status">
        {{ left === 1 ? 'One file stays' : `${left} files stay` }} here until you say whose.
      </p>
    </div>
  </section>
</template>

<style scoped>
.for {
  max-width: 760px;
  margin-top: 32px;
}
table {
  width: 100%;
  margin: 12px 0;
}
td:nth-child(2) {
  width: 260px;
}
.file {
  overflow-wrap: anywhere;
}
.row {
  display: flex;
  gap: 12px;
  align-items: center;
}
.quiet {
  margin-bottom: 8px;
}
</style>
