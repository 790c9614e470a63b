<script setup lang="ts">
import { outcomeOf } from '#core/grading';
import type { Finding } from '#core/returning';
import { readReturning } from '#contract/returning';
import type { Feedback, Work } from '#contract/submissions';
import { onClickOutside } from '@vueuse/core';
import { computed, ref, shallowRef, useTemplateRef } from 'vue';
import { useOutbox } from '../outbox/outbox.ts';
import { call } from '../session/api.ts';
import { useDeed } from '../shell/use-deed.ts';
import { findingWords, remarkOfFinding } from '../wording/finding.ts';
import { useDesk } from './desk.ts';

/** What goes to the student, said once before it goes, with what one may want to mend. */
const props = defineProps<{
  feedback: Feedback;
  work: Work;
  setReturned: (returned: boolean) => Promise<void>;
  setReady: (ready: boolean) => Promise<void>;
}>();

const desk = useDesk();
const outbox = useOutbox();
const root = useTemplateRef('root');
const open = ref(false);
const { busy, problem: error, attempt } = useDeed();
const findings = shallowRef<Finding[]>([]);
const returned = computed(() => props.feedback.returnedAt !== null);
const ready = computed(() => props.feedback.readyAt !== null);
const student = computed(() => props.work.student.name);

const given = computed(() => props.feedback.remarks.filter((remark) => !remark.private).length);
const hidden = computed(() => props.feedback.remarks.length - given.value);
const result = computed(() => outcomeOf(props.feedback));

onClickOutside(root, () => (open.value = false));

async function toggle(): Promise<void> {
  open.value = !open.value;
  findings.value = [];
  // What is found helps, and stands in nobody's way: it comes late and stands last, so that nothing moves under a press.
  if (open.value && !returned.value) await look();
}

async function look(): Promise<void> {
  const answer = await call(readReturning, { params: { assignment: props.work.assignment.id } }).catch(() => undefined);
  findings.value = answer?.rows.find(({ submission }) => submission === props.work.id)?.findings ?? [];
}

function mend(finding: Finding): void {
  const remark = remarkOfFinding(finding);
  open.value = false;
  if (finding.type === 'unscored') desk.score();
  else if (remark) desk.goTo(remark);
}

async function go(deed: () => Promise<void>): Promise<void> {
  await attempt(async () => {
    await deed();
    open.value = false;
  });
}
</script>

<template>
  <div ref="root" class="return" @keydown.esc.stop="open = false">
    <v-btn
      :variant="returned ? 'outlined' : 'flat'"
      color="primary"
      size="small"
      aria-haspopup="dialog"
      :aria-expanded="open"
      @click="toggle"
    >
      {{ returned ? 'Take back' : 'Return' }}
    </v-btn>
    <div v-if="open" class="panel" role="dialog" :aria-label="returned ? 'Take back' : 'Return'">
      <template v-if="returned">
        <p>
          {{ student }} will not see the remarks, scores and grade until you return them again; then they are shown what
          changed. Answers are kept.
        </p>
      </template>
      <template v-else>
        <p>{{ student }} gets:</p>
        <ul>
          <li>{{ given === 0 ? 'no remarks' : given === 1 ? '1 remark' : `${given} remarks` }}</li>
          <li v-if="result.grade">the scores and the grade</li>
          <li v-else>no grade. {{ result.explanation }}</li>
        </ul>
        <p v-if="hidden > 0" class="quiet">
          {{ hidden === 1 ? '1 private note stays' : `${hidden} private notes stay` }} among the teachers.
        </p>
        <div v-if="findings.length > 0" class="late">
          <p>Look once more?</p>
          <ul class="findings">
            <li v-for="finding in findings" :key="findingWords(finding)">
              {{ findingWords(finding) }}
              <button
                v-if="finding.type === 'unscored' || remarkOfFinding(finding)"
                type="button"
                class="mend"
                @click="mend(finding)"
              >
                Go there
              </button>
            </li>
          </ul>
        </div>
        <p>
          <router-link :to="{ name: 'as-student', params: { submission: work.id } }">See it as the student</router-link>
        </p>
      </template>
      <p v-if="outbox.state.value !== 'saved'" class="quiet">Waiting until everything is saved …</p>
      <p v-if="error" role="alert" class="refused">{{ error }}</p>
      <div class="buttons">
        <v-btn v-if="returned" size="small" @click="open = false">Not now</v-btn>
        <v-btn v-else size="small" :disabled="busy" @click="go(() => setReady(!ready))">
          {{ ready ? 'Not ready yet' : 'Ready, for later' }}
        </v-btn>
        <v-btn
          size="small"
          variant="flat"
          color="primary"
          :loading="busy"
          :disabled="outbox.state.value !== 'saved'"
          @click="go(() => setReturned(!returned))"
        >
          {{ returned ? `Take back from ${student}` : `Return to ${student}` }}
        </v-btn>
      </div>
    </div>
  </div>
</template>

<style scoped>
.return {
  position: relative;
}
.panel {
  display: flex;
  flex-direction: column;
  position: absolute;
  top: calc(100% + 8px);
  right: 0;
  z-index: 1;
  width: 340px;
  padding: 16px;
  background: var(--paper);
  border: 1px solid var(--hairline);
  border-radius: 4px;
}
.late {
  order: 1;
}
ul {
  margin: 4px 0 8px;
  padding-left: 20px;
}
.findings {
  color: var(--quiet);
}
.mend {
  color: var(--ink);
  text-decoration: underline;
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  justify-content: flex-end;
  gap: 8px;
  margin-top: 12px;
}
</style>
