<script setup lang="ts">
import type { Rubric } from '#core/grading';
import type { Remark } from '#contract/remarks';
import type { EarlierRemark } from '#contract/submissions';
import { useIntervalFn, useLocalStorage } from '@vueuse/core';
import { storeToRefs } from 'pinia';
import { computed, nextTick, onBeforeUnmount, provide, reactive, ref, shallowRef, useTemplateRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import InterruptedTake from '../recorder/InterruptedTake.vue';
import { microphoneIsGranted } from '../recorder/microphone.ts';
import { useRecorder } from '../recorder/use-recorder.ts';
import EarlierHead from '../earlier/EarlierHead.vue';
import { useEarlier } from '../earlier/use-earlier.ts';
import { useFeedback } from '../feedback/feedback-store.ts';
import { useMarginKey } from '../feedback/margin-key.ts';
import MarginFilterBar from '../margin/MarginFilterBar.vue';
import { useMarginFilter } from '../margin/use-margin-filter.ts';
import { useRibbonFocus } from '../margin/use-ribbon-focus.ts';
import WorkAndMargin from '../margin/WorkAndMargin.vue';
import { usePlayer } from '../player/player.ts';
import { remarkSoundUrl } from '../player/sound-url.ts';
import StateNote from '../shell/StateNote.vue';
import { useAnchorName } from '../feedback/use-anchor-name.ts';
import { useFeedbackActions } from '../feedback/use-feedback-actions.ts';
import { useLoaded } from '../shell/use-loaded.ts';
import AsideList from './AsideList.vue';
import ClassStrip from './ClassStrip.vue';
import DeskDrawer, { type DrawerName } from './drawer/DeskDrawer.vue';
import { DESK_MARGIN } from './desk-margin.ts';
import DeskEntry from './DeskEntry.vue';
import DeskStrip from './DeskStrip.vue';
import type { Draft } from '../remark/draft.ts';
import type { Notice } from './notice.ts';
import PaceLine from './PaceLine.vue';
import { useChoosing } from './use-choosing.ts';
import { useClass } from './use-class.ts';
import { useDeskEntries } from './use-desk-entries.ts';
import { useDeskKeys } from './use-desk-keys.ts';
import { useForms } from './use-forms.ts';
import { useMovingStamp } from './use-moving-stamp.ts';
import { usePace } from './use-pace.ts';
import { useSpeaking } from './voice/use-speaking.ts';
import { useUndo } from './use-undo.ts';
import { useWriting } from './use-writing.ts';
import VoiceBar from './voice/VoiceBar.vue';

/** The desk: one submission, read and spoken about. */
const props = defineProps<{ submission: string }>();

/** How often it is asked whether words have been made out. */
const LISTENING_MILLISECONDS = 1200;

const store = useFeedback();
const { work, feedback } = storeToRefs(store);
const recorder = useRecorder();
const player = usePlayer();
const route = useRoute();
const router = useRouter();
const actions = useFeedbackActions();
const sittingPace = usePace();
const marginKey = useMarginKey();
const anchorName = useAnchorName();

const { focused, focusRibbon } = useRibbonFocus();
const notice = shallowRef<Notice>();
const checked = useLocalStorage('microphone-checked', false);
/** Whoever speaks for the first time looks at the microphone first. */
const drawer = ref<DrawerName>(checked.value ? 'scores' : 'microphone');
watch(drawer, () => (checked.value = true));
/** The remark whose sound is being edited. */
const cutting = ref<string>();
/** The remark whose transcript is being mended. */
const mending = ref<string>();
const table = useTemplateRef('table');
const choosing = useChoosing(
  () => table.value?.folio ?? null,
  () => work.value?.folio,
);
const { boxing, chosen } = choosing;
const earlier = useEarlier(() => work.value);
const klass = useClass(() => work.value);

const remarks = computed((): Remark[] => {
  const kept = feedback.value?.remarks ?? [];
  const fresh = speaking.fresh.value;
  return fresh && ![...kept, ...(feedback.value?.aside ?? [])].some(({ id }) => id === fresh.id)
    ? [...kept, fresh]
    : kept;
});
const filter = useMarginFilter(
  () => remarks.value,
  () => props.submission,
);
const returned = computed(() => (feedback.value?.returnedAt ?? null) !== null);
/** The same from answer to answer, so that nothing is drawn again for it. */
const rubric = computed((before?: Rubric): Rubric => {
  const now = feedback.value?.rubric ?? [];
  return before && JSON.stringify(before) === JSON.stringify(now) ? before : now;
});
const overall = computed(() => remarks.value.find(({ anchor, sound }) => anchor.type === 'whole' && sound));
const focusedRemark = computed(() => remarks.value.find(({ id }) => id === focused.value));

const { error, load } = useLoaded(open, () => props.submission);
const speaking = useSpeaking({
  submission: () => props.submission,
  onSaid: made,
  onThrown: (back) => (notice.value = { text: 'The recording was thrown away.', undo: back, way: 'Bring it back' }),
});
const writing = useWriting(() => props.submission, made);
const entries = useDeskEntries(
  () => work.value,
  () => [
    ...filter.shown.value,
    ...earlier.placed.value.map(({ remark, anchor }) => ({ id: remark.id, kind: remark.kind, anchor })),
  ],
  () => writing.draft.value,
);

function made(remark: string): void {
  choosing.drop();
  void focusRibbon(remark);
}

async function open(): Promise<void> {
  focused.value = cutting.value = mending.value = notice.value = undefined;
  choosing.drop();
  await store.load(props.submission);
  sittingPace.visit(props.submission);
  void nextTick(() => table.value?.folio?.focus({ preventScroll: true }));
  await showWanted();
  await Promise.all([klass.load(), speaking.look(), work.value && speaking.prepare(work.value)]);
  if (!returned.value && (await microphoneIsGranted())) await recorder.warm();
}

/** The remark that the address names. */
async function showWanted(): Promise<void> {
  const wanted = route.hash.slice(1);
  if (remarks.value.some(({ id }) => id === wanted)) await focusRibbon(wanted);
}
watch(() => route.hash, showWanted);

onBeforeUnmount(() => player.stop());

// Nobody waits for a transcript; it comes while the teacher goes on.
const { pause, resume } = useIntervalFn(() => void store.lookAtSpeech(), LISTENING_MILLISECONDS, { immediate: false });
watch(
  () => store.listening,
  (now) => (now ? resume() : pause()),
  { immediate: true },
);

const targetName = computed(() => choosing.target.value && anchorName(choosing.target.value));
const ribbonTarget = computed(() =>
  choosing.target.value && targetName.value ? { anchor: choosing.target.value, name: targetName.value } : undefined,
);
const hint = computed(() => {
  if (boxing.value && !chosen.value) return 'Drag over the part that you want to speak about.';
  if (targetName.value) return `Hold the space bar and speak about ${targetName.value}.`;
  if (overall.value) return `${choosing.how.value}, then hold the space bar and speak.`;
  return `${choosing.how.value} and hold the space bar to speak. Nothing chosen: the whole work.`;
});
const forms = useForms({ choosing, writing, speaking, targetName, returned, notice, drawer });
const stamp = useMovingStamp({ focused: focusedRemark, returned, choosing });
const { undo, redo, wayBack } = useUndo(() => props.submission, notice);

function speak(): void {
  if (returned.value || !feedback.value) return;
  notice.value = undefined;
  // Keys pressed in quick succession must not act on the selection before.
  const selected = choosing.now();
  if (selected) return void speaking.speak(selected);
  if (!overall.value) return void speaking.speak({ type: 'whole' });
  notice.value = {
    text: 'Select the words that you want to speak about. The remark on the whole work is there already.',
  };
}

function press(): void {
  if (recorder.speaking.value || speaking.counting.value > 0) speaking.hush();
  else speak();
}

function setKind(index: number): void {
  const entry = marginKey.key.value[index];
  if (!entry) return;
  if (focusedRemark.value && !returned.value && !choosing.target.value)
    void actions.setKind(focusedRemark.value, entry.kind);
  else speaking.nextKind.value = entry.kind;
}

async function putAside(remark: Remark): Promise<void> {
  await actions.putAside(remark);
  focused.value = undefined;
  notice.value = { text: 'The remark was put aside.', undo: undo };
}

function step(by: 1 | -1): void {
  const index = entries.value.findIndex(({ id }) => id === focused.value);
  const next = entries.value.at(index < 0 && by < 0 ? -1 : index + by);
  if (next && index + by >= -1) void focusRibbon(next.id);
}

function stepStudent(by: 1 | -1): void {
  const submission = by > 0 ? klass.place.value?.next : klass.place.value?.previous;
  if (submission) void router.push({ name: 'desk', params: { submission } });
}

function discard(): void {
  if (speaking.counting.value > 0) return speaking.hush();
  if (recorder.speaking.value) return recorder.discard();
  choosing.choose(undefined);
  boxing.value = false;
}

const toggle = (name: DrawerName): void => void (drawer.value = drawer.value === name ? 'scores' : name);

function editSound(): void {
  const { sound, id } = focusedRemark.value ?? {};
  if (sound && !sound.picture && !returned.value) cutting.value = cutting.value === id ? undefined : id;
}

const putAt = async (one: EarlierRemark): Promise<void> => {
  const anchor = choosing.now();
  if (!anchor) return;
  await earlier.place(one, anchor);
  choosing.clear();
};

async function pick(id: string): Promise<void> {
  await focusRibbon(id);
  if (stamp.moving.value) choosing.takeBox();
}

const shownById = computed(() => new Map(filter.shown.value.map((remark) => [remark.id, remark])));
const earlierById = computed(() => new Map(earlier.placed.value.map((one) => [one.remark.id, one])));

provide(
  DESK_MARGIN,
  reactive({
    submission: computed(() => props.submission),
    student: computed(() => work.value?.student.name ?? ''),
    rubric,
    returned,
    cutting,
    mending,
    draft: writing.draft,
    target: ribbonTarget,
    focus: (id: string) => void (focused.value = id),
    setKind: actions.setKind,
    speakAgain: speaking.speakAgain,
    putAside,
    mend: actions.mend,
    amend: actions.amend,
    cut: ({ id }: Remark, open: boolean) => void (cutting.value = open ? id : undefined),
    openTranscript: ({ id }: Remark, open: boolean) => {
      if (open) mending.value = id;
      else if (mending.value === id) mending.value = undefined;
    },
    putHere: putAt,
    lose: (one: EarlierRemark) => void earlier.place(one, null),
    setDraft: (draft: Draft) => void (writing.draft.value = draft),
    saveDraft: writing.save,
    cancelDraft: writing.cancel,
  }),
);

useDeskKeys({
  speak,
  hush: speaking.hush,
  pause: () => (recorder.status.value === 'paused' ? recorder.resume() : recorder.pause()),
  discard,
  play: () => {
    const remark = focusedRemark.value;
    if (remark?.sound) void player.toggle(remark.id, remarkSoundUrl(remark));
  },
  setKind,
  putAside: () => focusedRemark.value && !returned.value && void putAside(focusedRemark.value),
  step,
  stepSentence: choosing.stepSentence,
  stepStudent,
  box: () => returned.value || choosing.box(),
  write: forms.write,
  suggest: forms.suggest,
  react: () => toggle('emoji'),
  stamp: () => toggle('stamp'),
  editSound,
  mend: () => {
    if (focusedRemark.value?.sound) mending.value = focusedRemark.value.id;
  },
  find: () => toggle('search'),
  faster: player.nextRate,
  undo: () => void undo(),
  redo: () => void redo(),
  help: () => toggle('keys'),
});

// What was done before is no news any more once somebody speaks; and whoever speaks is at work.
watch(recorder.speaking, (now) => {
  if (now) notice.value = undefined;
  if (now && drawer.value === 'microphone') drawer.value = 'scores';
  sittingPace.busy();
});
</script>

<template>
  <div v-if="work && feedback" class="desk">
    <DeskStrip
      :work="work"
      :feedback="feedback"
      :place="klass.place.value"
      :set-returned="store.setReturned"
      @help="toggle('keys')"
      @undo="undo"
      @redo="redo"
    />
    <div class="second">
      <ClassStrip :students="klass.students.value" :student="work.student.id" />
      <PaceLine :students="klass.students.value" />
    </div>
    <main class="middle">
      <WorkAndMargin
        ref="table"
        :key="work.id"
        v-model:boxing="boxing"
        :work="work"
        :entries="entries"
        :focused="focused"
        :target="chosen"
        :choosing="!returned"
        @pick="pick"
        @choose="stamp.choose"
      >
        <template #above>
          <MarginFilterBar :filter="filter" />
          <EarlierHead :earlier="earlier" movable :target="targetName" @here="putAt" />
          <InterruptedTake
            v-for="take in speaking.interrupted.value"
            :key="take.id"
            :take="take"
            keep="Keep it"
            @keep="speaking.keepInterrupted(take)"
            @drop="speaking.dropInterrupted(take)"
          />
        </template>
        <template #entry="{ entry: { id, kind } }">
          <DeskEntry
            :id="id"
            :kind="kind"
            :focused="id === focused"
            :remark="shownById.get(id)"
            :earlier="earlierById.get(id)"
          />
        </template>
        <template #below>
          <p v-if="entries.length === 0 && !filter.active.value" class="empty">
            Nothing is said yet. {{ choosing.how.value }}, hold the space bar and speak.
          </p>
          <AsideList v-if="!returned" :remarks="feedback.aside" @back="actions.bringBack" />
        </template>
      </WorkAndMargin>
      <DeskDrawer
        v-model="drawer"
        :work="work"
        :feedback="feedback"
        :kind="speaking.nextKind.value"
        :stamp-target="forms.stampTarget.value"
        @stamp="forms.stamp"
        @react="forms.react"
      />
    </main>
    <VoiceBar
      :target="hint"
      :kind="speaking.nextKind.value"
      :locked="returned"
      :notice="notice"
      :budget="work.budget"
      :counting="speaking.counting.value"
      :reactable="choosing.target.value !== undefined"
      @press="press"
      @kind="setKind"
      @undo="wayBack"
      @react="forms.react"
      @open="forms.open"
    />
  </div>
  <StateNote v-else class="loading" :busy="!error" :error="error" @retry="load" />
</template>

<style scoped>
.desk {
  display: grid;
  grid-template: 48px 32px minmax(0, 1fr) 68px / minmax(0, 1fr);
  height: 100dvh;
}
.second {
  display: flex;
  gap: 20px;
  justify-content: space-between;
  padding: 0 16px 0 8px;
  border-bottom: 1px solid var(--hairline);
}
.middle {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 264px;
  min-height: 0;
}
.empty {
  color: var(--quiet);
}
.loading {
  padding: 24px;
}
@media (max-width: 900px) {
  .middle {
    display: block;
    overflow-y: auto;
  }
}
</style>
