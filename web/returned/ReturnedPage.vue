<script setup lang="ts">
import { urlOf } from '#contract/endpoint';
import type { Remark } from '#contract/remarks';
import { workFile } from '#contract/submissions';
import { storeToRefs } from 'pinia';
import { useTimeoutFn } from '@vueuse/core';
import { computed, defineAsyncComponent, onBeforeUnmount, ref, useTemplateRef, watch } from 'vue';
import { useRoute } from 'vue-router';
import InterruptedTake from '../recorder/InterruptedTake.vue';
import { useInterruptedTakes } from '../recorder/use-interrupted-takes.ts';
import { useEarlier } from '../earlier/use-earlier.ts';
import { useFeedback } from '../feedback/feedback-store.ts';
import { marginEntries } from '../margin/entries.ts';
import { useNarrow } from '../margin/use-narrow.ts';
import { useRibbonFocus } from '../margin/use-ribbon-focus.ts';
import WorkAndMargin from '../margin/WorkAndMargin.vue';
import MarginFilterBar from '../margin/MarginFilterBar.vue';
import { useMarginFilter } from '../margin/use-margin-filter.ts';
import OutboxState from '../shell/OutboxState.vue';
import GoMenu from '../shell/GoMenu.vue';
import { provideRecordingActions } from '../recordings/recording-actions.ts';
import { ANSWER_TAKE } from '../replies/answer-take.ts';
import { recordingUrl } from '../player/media-url.ts';
import { usePlayer } from '../player/player.ts';
import StateNote from '../shell/StateNote.vue';
import { useCommandKeys } from '../shell/use-command-keys.ts';
import { dayAndTime } from '../wording/format.ts';
import { useFeedbackActions } from '../feedback/use-feedback-actions.ts';
import VersionMenu from '../feedback/VersionMenu.vue';
import RateButton from '../player/RateButton.vue';
import { useLoaded } from '../shell/use-loaded.ts';
import { useCaptionsShown } from '../transcript/use-captions.ts';
import { COMMANDS, type ReturnedDeeds } from './commands.ts';
import ResultDrawer from './ResultDrawer.vue';
import ReturnedRibbon from './ReturnedRibbon.vue';
import { useListenThrough, type Moment } from './use-listen-through.ts';
import { useKeptHere } from '../offline/use-kept-here.ts';
import { useHeard } from '../player/use-heard.ts';
import { useTalkShow } from '../talk/use-talk-show.ts';
import { useSession } from '../session/session.ts';

// A first version has no earlier remarks, and most works no suggestion that was taken over.
const TakenOver = defineAsyncComponent(() => import('./TakenOver.vue'));
const EarlierHead = defineAsyncComponent(() => import('../earlier/EarlierHead.vue'));
const NotesHere = defineAsyncComponent(() => import('../notes/NotesHere.vue'));
const ReturnNews = defineAsyncComponent(() => import('./ReturnNews.vue'));
const MarkedFiles = defineAsyncComponent(() => import('./MarkedFiles.vue'));
const ListenBar = defineAsyncComponent(() => import('./ListenBar.vue'));
const TalkBar = defineAsyncComponent(() => import('../talk/TalkBar.vue'));
const KeyPanel = defineAsyncComponent(() => import('./KeyPanel.vue'));
const EarlierRibbon = defineAsyncComponent(() => import('../earlier/EarlierRibbon.vue'));

/** What the student gets back: the work, the remarks beside it, the scores. */
const props = defineProps<{
  submission: string;
  /** A teacher looks at it as the student will see it; nothing is answered or reported as heard. */
  preview?: boolean;
}>();

const store = useFeedback();
const { work, feedback } = storeToRefs(store);
const actions = useFeedbackActions();
const route = useRoute();
const session = useSession();
const player = usePlayer();
const { focused, focusRibbon } = useRibbonFocus();
provideRecordingActions(actions);
const takes = useInterruptedTakes(
  ANSWER_TAKE,
  () => props.submission,
  ({ id, sound, edit }, { remark, criterion }) => {
    const said = { text: '', recording: { id, sound, edit, draft: null } };
    return criterion ? actions.ask(remark, criterion, said) : actions.answer({ id: remark }, said);
  },
);
const { error, load } = useLoaded(
  async () => {
    await store.load(props.submission, props.preview);
    void showWanted();
    if (!props.preview) await takes.look();
  },
  () => [props.submission, props.preview],
);

// What one may want next is here before the network may be gone.
useTimeoutFn(() => {
  for (const part of [import('../replies/ReplyBox.vue'), import('./ListenBar.vue'), import('./KeyPanel.vue')])
    void part.catch(() => undefined);
}, 2500);

const remarks = computed(() => feedback.value?.remarks ?? []);
const filter = useMarginFilter(
  () => remarks.value,
  () => props.submission,
);
const earlier = useEarlier(() => work.value);
const entries = computed(() =>
  work.value
    ? marginEntries(work.value.folio, [
        ...filter.shown.value,
        ...earlier.placed.value.map(({ remark, anchor }) => ({ id: remark.id, kind: remark.kind, anchor })),
      ])
    : [],
);

/** The remark that the address names. */
async function showWanted(): Promise<void> {
  const wanted = route.hash.slice(1);
  if (remarks.value.some(({ id }) => id === wanted)) await focusRibbon(wanted);
}
watch(() => route.hash, showWanted);

const inHand = computed(() => remarks.value.find(({ id }) => id === focused.value));
/** As they stand in the margin. */
const inOrder = computed(() =>
  entries.value.flatMap(({ id }) => filter.shown.value.find((remark) => remark.id === id) ?? []),
);
/** The moment of the student's own recording that a remark is about. */
function momentOf({ id, anchor }: Remark): Moment | undefined {
  const leaf = anchor.type === 'span' ? work.value?.folio.leaves[anchor.leaf] : undefined;
  if (anchor.type !== 'span' || leaf?.kind !== 'sound') return undefined;
  const url = urlOf(workFile, { submission: props.submission, position: String(leaf.file) });
  return { id: `moment ${id}`, url, start: anchor.start, end: anchor.end };
}
const listening = useListenThrough(() => inOrder.value, focusRibbon, momentOf);
const table = useTemplateRef('table');
const show = useTalkShow({
  remarks: () => remarks.value,
  focused: () => focused.value,
  root: () => table.value?.folio ?? null,
});
const { marks, lit } = show;
const pick = (id: string): void => void (show.pick(id) || focusRibbon(id));
const captions = useCaptionsShown();
const showsKeys = ref(false);

useCommandKeys<ReturnedDeeds>(COMMANDS, {
  listens: () => listening.now.value !== undefined,
  listenThrough: () => void listening.begin(focused.value),
  pause: () => void listening.pauseOrGoOn(),
  end: listening.end,
  play() {
    const recording = inHand.value?.recording;
    if (recording) void player.toggle(recording.id, recordingUrl(recording));
  },
  step(by) {
    const at = inOrder.value.findIndex(({ id }) => id === focused.value);
    const next = inOrder.value[at < 0 && by < 0 ? inOrder.value.length - 1 : at + by];
    if (next) void focusRibbon(next.id);
  },
  settle() {
    if (inHand.value && !props.preview) void actions.settle(inHand.value, !inHand.value.settled);
  },
  faster: player.nextRate,
  captions: () => (captions.value = !captions.value),
  keys: () => (showsKeys.value = !showsKeys.value),
});

const narrow = useNarrow();
/** Where there is no room beside the work, the scores come from the side. */
const scores = ref(false);

/** To the remark about a score. */
function go(remark: string): void {
  scores.value = false;
  filter.clear();
  void focusRibbon(remark);
}

if (!props.preview)
  useKeptHere(
    () => props.submission,
    () => feedback.value ?? (work.value?.id === props.submission ? null : undefined),
  );

useHeard(
  computed(() =>
    (props.preview ? [] : remarks.value).flatMap(({ recording, replies }) =>
      [recording, ...replies.map((reply) => (reply.author.id === session.person?.id ? null : reply.recording))].filter(
        (one) => one !== null,
      ),
    ),
  ),
  actions.heard,
);
onBeforeUnmount(() => player.stop());
</script>

<template>
  <div v-if="work" class="page">
    <header class="strip">
      <GoMenu />
      <router-link v-if="preview" :to="{ name: 'desk', params: { submission } }" class="back"
        >Back to the desk</router-link
      >
      <router-link v-else :to="{ name: 'home' }" class="back">Your work</router-link>
      <strong>{{ work.assignment.title }}</strong>
      <span v-if="preview" class="preview">As {{ work.student.name }} sees it</span>
      <VersionMenu v-else :work="work" route="returned" />
      <span v-if="!preview && feedback?.returnedAt" class="figures quiet when"
        >returned {{ dayAndTime(feedback.returnedAt) }}</span
      >
      <span v-else-if="!preview" class="quiet">with your teacher</span>
      <OutboxState class="saved" />
      <v-btn v-if="narrow && feedback" size="small" :aria-expanded="scores" @click="scores = !scores">Scores</v-btn>
      <v-btn
        v-if="listening.count.value > 0 && !listening.now.value"
        size="small"
        variant="outlined"
        title="Listen through all remarks (L)"
        @click="listening.begin(focused)"
        >Listen through</v-btn
      >
      <RateButton />
    </header>
    <main class="middle" :class="{ alone: !feedback }">
      <WorkAndMargin
        ref="table"
        :work="work"
        :entries="entries"
        :also="marks"
        :lit="lit"
        :focused="focused"
        @pick="pick"
        @leave="focused = undefined"
      >
        <template #above>
          <NotesHere
            v-if="feedback?.returnedAt"
            :course="work.course"
            :at="{ place: 'class', assignment: work.assignment.id }"
            label="the message to the class"
            title="To everyone in this assignment"
          />
          <ReturnNews v-if="feedback && (feedback.changed || feedback.held)" :feedback="feedback" @go="focusRibbon" />
          <MarginFilterBar :filter="filter" />
          <TakenOver v-if="remarks.some(({ takenAt }) => takenAt !== null)" :work="work" :remarks="remarks" />
          <EarlierHead v-if="earlier.all.value.length > 0 || earlier.error.value" :earlier="earlier" />
          <InterruptedTake
            v-for="take in takes.interrupted.value"
            :key="take.id"
            :take="take"
            keep="Send it as your answer"
            @keep="takes.keepInterrupted(take)"
            @drop="takes.dropInterrupted(take)"
          />
        </template>
        <template #entry="{ entry }">
          <ReturnedRibbon
            v-for="remark in filter.shown.value.filter(({ id }) => id === entry.id)"
            :key="remark.id"
            :remark="remark"
            :submission="submission"
            :preview="preview"
            :focused="remark.id === focused"
            @focus="focused = remark.id"
          />
          <EarlierRibbon
            v-for="one in earlier.placed.value.filter(({ remark }) => remark.id === entry.id)"
            :key="one.remark.id"
            :earlier="one"
            :focused="one.remark.id === focused"
            @focus="focused = one.remark.id"
          />
        </template>
        <template #below>
          <p v-if="!feedback" class="quiet">
            Your teacher has this version. Their feedback appears here when they return it.
          </p>
          <p v-else-if="remarks.length === 0 && feedback.held !== 'remarks'" class="quiet">
            There are no remarks on this work.
          </p>
        </template>
      </WorkAndMargin>
      <div v-if="feedback && (!narrow || scores)" class="side" @keydown.esc="scores = false">
        <v-btn v-if="narrow" size="small" @click="scores = false">Close the scores</v-btn>
        <KeyPanel v-if="showsKeys" @close="showsKeys = false" />
        <ResultDrawer v-else :feedback="feedback" :submission="submission" :preview="preview" @go="go"
          ><MarkedFiles v-if="remarks.length > 0" :work="work"
        /></ResultDrawer>
      </div>
    </main>
    <ListenBar v-if="listening.now.value" class="listening" :listening="listening" />
    <TalkBar v-else-if="show.playing.value" :show="show" />
  </div>
  <StateNote v-else class="loading" :busy="!error" :error="error" @retry="load" />
</template>

<style scoped>
.page {
  display: grid;
  grid-template: 48px minmax(0, 1fr) auto / minmax(0, 1fr);
  height: 100dvh;
}
.strip {
  display: flex;
  align-items: center;
  gap: 16px;
  padding: 0 16px;
  border-bottom: 1px solid var(--hairline);
}
.back {
  color: var(--quiet);
}
.saved {
  margin-left: auto;
}
.preview {
  padding: 1px 8px;
  border: 1px solid var(--hairline);
  border-radius: 10px;
}
.middle {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 264px;
  min-height: 0;
}
.middle.alone {
  grid-template-columns: minmax(0, 1fr);
}
.side {
  display: grid;
  min-height: 0;
}
.loading {
  padding: 24px;
}
@media (max-width: 900px) {
  .page,
  .middle {
    display: block;
    height: auto;
  }
  .strip {
    flex-wrap: wrap;
    gap: 2px 12px;
    min-height: 48px;
    padding: 6px 12px;
    position: sticky;
    top: 0;
    z-index: 15;
    background: var(--ground);
  }
  .when {
    display: none;
  }
  .side {
    align-content: start;
    background: var(--paper);
    overflow-y: auto;
    position: fixed;
    inset: 0 0 0 auto;
    z-index: 25;
    width: min(340px, 100%);
    box-shadow: -4px 0 20px color-mix(in srgb, var(--ink) 16%, transparent);
  }
}
</style>
