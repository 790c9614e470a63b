<script setup lang="ts">
import type { Anchor } from '#core/anchor';
import { sentenceBeside, sentences } from '#core/folio';
import type { Kind, Remark } from '#contract/remarks';
import { readPlace, type EarlierRemark, type Place } from '#contract/submissions';
import { storeToRefs } from 'pinia';
import { computed, nextTick, onBeforeUnmount, ref, shallowRef, useTemplateRef, watch } from 'vue';
import { useRoute } from 'vue-router';
import InterruptedTake from '../recorder/InterruptedTake.vue';
import { microphoneIsGranted } from '../recorder/microphone.ts';
import { useRecorder } from '../recorder/use-recorder.ts';
import { call } from '../shared/api.ts';
import EarlierHead from '../shared/earlier/EarlierHead.vue';
import EarlierRibbon from '../shared/earlier/EarlierRibbon.vue';
import { useEarlier } from '../shared/earlier/use-earlier.ts';
import { useFeedback } from '../shared/feedback-store.ts';
import { rangeOf } from '../shared/folio/selection.ts';
import { useTarget } from '../shared/folio/use-target.ts';
import { useRibbonFocus } from '../shared/margin/use-ribbon-focus.ts';
import WorkAndMargin from '../shared/margin/WorkAndMargin.vue';
import { usePlayer } from '../shared/player.ts';
import { remarkSoundUrl } from '../shared/sound-url.ts';
import StateNote from '../shared/StateNote.vue';
import { useAnchorName } from '../shared/use-anchor-name.ts';
import { useFeedbackActions } from '../shared/use-feedback-actions.ts';
import { useLoaded } from '../shared/use-loaded.ts';
import AsideList from './AsideList.vue';
import DeskRibbon from './DeskRibbon.vue';
import DeskStrip from './DeskStrip.vue';
import KeyList from './KeyList.vue';
import type { Notice } from './notice.ts';
import ScoreDrawer from './ScoreDrawer.vue';
import { SPEAKING, useDeskEntries } from './use-desk-entries.ts';
import { useDeskKeys } from './use-desk-keys.ts';
import { useSpeaking } from './use-speaking.ts';
import VoiceBar from './VoiceBar.vue';

/** The desk: one submission, read and spoken about. */
const props = defineProps<{ submission: string }>();

const store = useFeedback();
const { work, feedback } = storeToRefs(store);
const recorder = useRecorder();
const player = usePlayer();
const route = useRoute();
const actions = useFeedbackActions();

const place = shallowRef<Place>();
const { focused, focusRibbon } = useRibbonFocus();
const notice = shallowRef<Notice>();
const showsKeys = ref(false);
const table = useTemplateRef('table');
const folio = computed(() => table.value?.folio ?? null);
const target = useTarget(
  () => folio.value,
  () => work.value?.folio,
);
const boxing = ref(false);
const earlier = useEarlier(() => work.value);
const anchorName = useAnchorName();

const remarks = computed(() => feedback.value?.remarks ?? []);
const returned = computed(() => (feedback.value?.returnedAt ?? null) !== null);
const overall = computed(() => remarks.value.find(({ anchor }) => anchor.type === 'whole'));
const focusedRemark = computed(() => remarks.value.find(({ id }) => id === focused.value));
const entries = useDeskEntries(
  () => work.value,
  () => [
    ...remarks.value,
    ...earlier.placed.value.map(({ remark, anchor }) => ({ id: remark.id, kind: remark.kind, anchor })),
  ],
);
const earlierOf = (id: string): EarlierRemark[] => earlier.placed.value.filter(({ remark }) => remark.id === id);

const { error, load } = useLoaded(open, () => props.submission);
const speaking = useSpeaking({
  submission: () => props.submission,
  onSaid: (remark) => {
    target.clear();
    boxing.value = false;
    void focusRibbon(remark);
  },
});

async function open(): Promise<void> {
  focused.value = undefined;
  notice.value = undefined;
  target.clear();
  boxing.value = false;
  await store.load(props.submission);
  place.value = await call(readPlace, { params: { submission: props.submission } });
  const wanted = route.hash.slice(1);
  if (remarks.value.some(({ id }) => id === wanted)) await focusRibbon(wanted);
  await speaking.look();
  if (!returned.value && (await microphoneIsGranted())) await recorder.warm();
}

onBeforeUnmount(() => player.stop());

const targetName = computed(() => target.target.value && anchorName(target.target.value));
/** What a hand does on most of this work before the voice begins. */
const howToChoose = computed(() => {
  const kinds = new Set(work.value?.folio.leaves.map(({ kind }) => kind));
  if (kinds.size > 1) return 'Select words or a part of the work';
  if (kinds.has('sound')) return 'Drag over a stretch of the recording';
  if (kinds.has('picture')) return 'Drag over a part of the picture';
  if (kinds.has('sheet')) return 'Drag over cells';
  if (kinds.has('answer')) return 'Press a question or select words';
  return 'Select words';
});
const hint = computed(() => {
  if (boxing.value && !target.chosen.value) return 'Drag over the part that you want to speak about.';
  if (targetName.value) return `Hold the space bar and speak about ${targetName.value}.`;
  if (overall.value) return `${howToChoose.value}, then hold the space bar and speak.`;
  return `${howToChoose.value} and hold the space bar to speak. Nothing chosen: the whole work.`;
});

function speak(): void {
  if (returned.value || !feedback.value) return;
  notice.value = undefined;
  // Keys pressed in quick succession must not act on the selection before.
  const selected = target.now();
  if (selected) return void speaking.speak(selected);
  if (!overall.value) return void speaking.speak({ type: 'whole' });
  notice.value = {
    text: 'Select the words that you want to speak about. The remark on the whole work is there already.',
  };
}

function press(): void {
  if (recorder.speaking.value) recorder.stop();
  else speak();
}

function setKind(kind: Kind): void {
  if (focusedRemark.value && !returned.value && !target.target.value) void actions.setKind(focusedRemark.value, kind);
  else speaking.nextKind.value = kind;
}

async function putAside(remark: Remark): Promise<void> {
  await actions.putAside(remark);
  focused.value = undefined;
  notice.value = { text: 'The remark was put aside.', undo: () => actions.bringBack(remark) };
}

async function undo(): Promise<void> {
  await notice.value?.undo?.();
  notice.value = undefined;
}

function step(by: 1 | -1): void {
  const index = entries.value.findIndex(({ id }) => id === focused.value);
  const next = entries.value.at(index < 0 && by < 0 ? -1 : index + by);
  if (next && index + by >= -1) void focusRibbon(next.id);
}

function stepSentence(by: 1 | -1): void {
  const all = sentences(work.value!.folio.text);
  const now = target.now();
  const next = sentenceBeside(all, now?.type === 'passage' ? now : undefined, by);
  const range = next && folio.value && rangeOf(folio.value, next);
  if (!range) return;
  const selection = document.getSelection();
  selection?.removeAllRanges();
  selection?.addRange(range);
  range.startContainer.parentElement?.scrollIntoView({ block: 'nearest' });
}

/** A box in the middle of the leaf that is being read, to be moved with the keys or drawn anew with the mouse. */
function box(): void {
  const leaves = [...(folio.value?.querySelectorAll<HTMLElement>('[data-leaf]') ?? [])];
  const middle = window.innerHeight / 2;
  const seen = leaves.find((leaf) => leaf.getBoundingClientRect().bottom > middle) ?? leaves.at(-1);
  const index = Number(seen?.dataset.leaf);
  const kind = work.value?.folio.leaves[index]?.kind;
  if (returned.value || !(kind === 'page' || kind === 'slide' || kind === 'picture')) return;
  boxing.value = true;
  const place: Anchor = { type: 'region', leaf: index, x: 0.3, y: 0.4, width: 0.4, height: 0.2 };
  target.choose(place);
  void nextTick(() => folio.value?.querySelector<HTMLElement>('.box.chosen')?.focus());
}

function discard(): void {
  if (recorder.speaking.value) return recorder.discard();
  target.choose(undefined);
  boxing.value = false;
}

const putAt = async (one: EarlierRemark): Promise<void> => {
  const anchor = target.now();
  if (!anchor) return;
  await earlier.place(one, anchor);
  target.clear();
};

useDeskKeys({
  speak,
  hush: () => recorder.stop(),
  discard,
  play: () => focusedRemark.value && void player.toggle(focusedRemark.value.id, remarkSoundUrl(focusedRemark.value)),
  setKind,
  putAside: () => focusedRemark.value && !returned.value && void putAside(focusedRemark.value),
  step,
  stepSentence,
  box,
  help: () => (showsKeys.value = !showsKeys.value),
});

// What was done before is no news any more once somebody speaks.
watch(recorder.speaking, () => (notice.value = undefined));
</script>

<template>
  <div v-if="work && feedback" class="desk">
    <DeskStrip
      :work="work"
      :feedback="feedback"
      :place="place"
      :set-returned="store.setReturned"
      @help="showsKeys = !showsKeys"
    />
    <main class="middle">
      <WorkAndMargin
        ref="table"
        v-model:boxing="boxing"
        :work="work"
        :entries="entries"
        :focused="focused"
        :target="target.chosen.value"
        :choosing="!returned"
        @pick="focusRibbon"
        @choose="target.choose"
      >
        <template #above>
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
        <template #entry="{ entry }">
          <p v-if="entry.id === SPEAKING" class="now" :class="`kind-${entry.kind}`">Listening …</p>
          <DeskRibbon
            v-for="remark in remarks.filter(({ id }) => id === entry.id)"
            :key="remark.id"
            :remark="remark"
            :submission="submission"
            :student="work.student.name"
            :focused="remark.id === focused"
            :returned="returned"
            :answer="(reply) => actions.answer(remark, reply)"
            @focus="focused = remark.id"
            @kind="actions.setKind(remark, $event)"
            @again="speaking.speakAgain(remark)"
            @aside="putAside(remark)"
            @mend="actions.mend(remark, $event)"
          />
          <EarlierRibbon
            v-for="one in earlierOf(entry.id)"
            :key="one.remark.id"
            :earlier="one"
            :focused="one.remark.id === focused"
            movable
            :target="targetName"
            @focus="focused = one.remark.id"
            @here="putAt(one)"
            @lost="earlier.place(one, null)"
          />
        </template>
        <template #below>
          <p v-if="entries.length === 0" class="empty">
            Nothing is said yet. {{ howToChoose }}, hold the space bar and speak.
          </p>
          <AsideList v-if="!returned" :remarks="feedback.aside" @back="actions.bringBack" />
        </template>
      </WorkAndMargin>
      <KeyList v-if="showsKeys" @close="showsKeys = false" />
      <ScoreDrawer v-else :feedback="feedback" @score="actions.score" @points="actions.givePoints" />
    </main>
    <VoiceBar
      :target="hint"
      :kind="speaking.nextKind.value"
      :locked="returned"
      :notice="notice"
      @press="press"
      @kind="setKind"
      @undo="undo"
    />
  </div>
  <StateNote v-else class="loading" :busy="!error" :error="error" @retry="load" />
</template>

<style scoped>
.desk {
  display: grid;
  grid-template: 48px minmax(0, 1fr) 68px / minmax(0, 1fr);
  height: 100dvh;
}
.middle {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 264px;
  min-height: 0;
}
.now {
  color: var(--kind);
  font-weight: 600;
  padding: 6px 10px;
  border-left: 3px solid var(--kind);
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
