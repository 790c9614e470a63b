<script setup lang="ts">
import { readGreetings, removeGreeting } from '#contract/bank';
import { mdiPlay, mdiTrashCanOutline } from '@mdi/js';
import { useEventListener } from '@vueuse/core';
import { computed, nextTick, onBeforeUnmount, ref, useTemplateRef, watch } from 'vue';
import { recordingOf } from '../feedback/changes/recorded.ts';
import { usePlayer } from '../player/player.ts';
import { recordingUrl } from '../player/media-url.ts';
import InterruptedTake from '../recorder/InterruptedTake.vue';
import TakeClock from '../recorder/TakeClock.vue';
import { useRecorder } from '../recorder/use-recorder.ts';
import { useSpokenTake } from '../recorder/use-spoken-take.ts';
import { call } from '../session/api.ts';
import PageFrame from '../shell/PageFrame.vue';
import StateNote from '../shell/StateNote.vue';
import { useDeed } from '../shell/use-deed.ts';
import { useLoaded } from '../shell/use-loaded.ts';
import { counted } from '../wording/format.ts';
import { GREETING_TAKE } from './greeting-take.ts';
import { useBankActions } from './use-bank-actions.ts';

/** A roll of names to speak in one sitting: hold, say, let go, and the next name is there. */
const props = defineProps<{ course: string }>();

const recorder = useRecorder();
const player = usePlayer();
const actions = useBankActions();
const { value, error, load } = useLoaded(
  () => call(readGreetings, { params: { course: props.course } }),
  () => props.course,
);
const rows = useTemplateRef('rows');
const at = ref(0);
const { problem, attempt } = useDeed();
const current = computed(() => value.value?.[at.value]);
const left = computed(() => (value.value ?? []).filter(({ recording }) => !recording).length);
const takes = useSpokenTake(
  GREETING_TAKE,
  () => props.course,
  async ({ id, sound, edit }, { student }) => {
    const recording = { id, sound, edit, draft: null };
    await actions.greet(props.course, student, recording);
    const shown = recordingOf(recording, new Date().toISOString());
    value.value = value.value?.map((one) => (one.student === student ? { ...one, recording: shown } : one));
  },
);
void takes.look();

watch(value, (list, before) => {
  // The first who has none yet.
  if (list && !before)
    at.value = Math.max(
      0,
      list.findIndex(({ recording }) => !recording),
    );
});
watch(at, () => void nextTick(() => rows.value?.children[at.value]?.scrollIntoView({ block: 'nearest' })));

async function speak(): Promise<void> {
  const student = current.value?.student;
  if (!student || takes.speaking.value) return;
  player.stop();
  const spoken = await takes.speak({ student });
  if (spoken && current.value?.student === student) at.value = Math.min(at.value + 1, value.value!.length - 1);
}

async function remove(student: string): Promise<void> {
  await attempt(async () => {
    await call(removeGreeting, { params: { course: props.course, student } });
    await load();
  });
}

const isControl = ({ target }: Event): boolean =>
  target instanceof Element && target.closest('button, a, input') !== null;
useEventListener(document, 'keydown', (event: KeyboardEvent) => {
  if (isControl(event)) return;
  if (event.key === ' ' && !event.repeat) void speak();
  else if (event.key === 'ArrowDown') at.value = Math.min(at.value + 1, (value.value?.length ?? 1) - 1);
  else if (event.key === 'ArrowUp') at.value = Math.max(0, at.value - 1);
  else if (event.key === 'Escape') recorder.discard();
  else if (event.key !== ' ') return;
  event.preventDefault();
});
useEventListener(document, 'keyup', (event: KeyboardEvent) => event.key === ' ' && takes.hush());
useEventListener(window, 'blur', () => takes.hush());
onBeforeUnmount(() => {
  recorder.cool();
  player.stop();
});
</script>

<template>
  <PageFrame title="Greetings">
    <p class="quiet lead">
      A few words to each student by name, spoken once. The bank can put them before any remark, so that it is said to
      this student. Hold the space bar, say “Hello …”, let go: the next name is there.
    </p>
    <InterruptedTake
      v-for="take in takes.interrupted.value"
      :key="take.id"
      :take="take"
      keep="Keep it"
      @keep="takes.keepInterrupted(take)"
      @drop="takes.dropInterrupted(take)"
    />
    <StateNote v-if="!value" :busy="!error" :error="error" @retry="load" />
    <StateNote v-else-if="value.length === 0">There are no students in this course yet.</StateNote>
    <template v-else>
      <div class="now" :class="{ speaking: takes.speaking.value }">
        <p class="who">{{ current?.name }}</p>
        <p class="quiet figures" role="status">
          {{ takes.speaking.value ? 'Speak now, and let go of the space bar' : `${counted(left, 'name')} left` }}
          <TakeClock />
        </p>
      </div>
      <p v-if="takes.problem.value ?? problem" class="refused" role="alert">
        {{ takes.problem.value ?? problem }}
      </p>
      <ol ref="rows" aria-label="Names">
        <li v-for="(one, index) in value" :key="one.student" :class="{ current: index === at }">
          <button type="button" class="name" :aria-current="index === at" @click="at = index">{{ one.name }}</button>
          <template v-if="one.recording">
            <v-btn
              :icon="mdiPlay"
              size="28"
              :aria-label="`Play your greeting to ${one.name}`"
              @click="player.toggle(one.recording.id, recordingUrl(one.recording))"
            />
            <span class="quiet" dir="auto">{{ one.recording.transcript?.text }}</span>
            <v-btn
              class="remove"
              :icon="mdiTrashCanOutline"
              size="28"
              :aria-label="`Remove your greeting to ${one.name}`"
              @click="remove(one.student)"
            />
          </template>
          <span v-else class="quiet">not spoken yet</span>
        </li>
      </ol>
    </template>
  </PageFrame>
</template>

<style scoped>
.lead {
  max-width: 640px;
  margin-bottom: 16px;
}
.now {
  max-width: 640px;
  padding: 16px 20px;
  margin-bottom: 16px;
  background: var(--paper);
  border: 1px solid var(--hairline);
  border-radius: 4px;
}
.now.speaking {
  background: var(--ink);
  color: var(--paper);
}
.now.speaking .quiet {
  color: inherit;
}
.who {
  font-family: var(--serif);
  font-size: 28px;
}
ol {
  max-width: 640px;
  list-style: none;
}
li {
  display: flex;
  gap: 10px;
  align-items: center;
  min-height: 38px;
  padding: 2px 8px;
  border-top: 1px solid var(--hairline);
  border-left: 3px solid transparent;
}
li.current {
  background: var(--paper);
  border-left-color: var(--ink);
}
.name {
  flex: 0 0 200px;
  text-align: start;
}
.remove {
  margin-inline-start: auto;
}
.quiet {
  font-size: 14px;
}
</style>
