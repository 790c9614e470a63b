<script setup lang="ts">
import { playedShare } from '#core/audio';
import type { Remark } from '#contract/remarks';
import {
  mdiCallSplit,
  mdiContentCut,
  mdiBookmarkPlusOutline,
  mdiMagnifyMinusOutline,
  mdiMagnifyPlusOutline,
  mdiMicrophoneOutline,
  mdiPencilOutline,
  mdiTrashCanOutline,
} from '@mdi/js';
import { computed, ref } from 'vue';
import { useMarginKey } from '../feedback/margin-key.ts';
import { useFeedback } from '../feedback/feedback-store.ts';
import { useFeedbackActions } from '../feedback/use-feedback-actions.ts';
import RibbonFrame from '../margin/RibbonFrame.vue';
import SaidBefore from '../bank/SaidBefore.vue';
import RecordingView from '../recordings/RecordingView.vue';
import { changeOf, draftOf, type Draft } from '../remark/draft.ts';
import RemarkForm from '../remark/RemarkForm.vue';
import ReplyBox from '../replies/ReplyBox.vue';
import ReplyThread from '../replies/ReplyThread.vue';
import ThreadEnd from '../replies/ThreadEnd.vue';
import { useSession } from '../session/session.ts';
import { dayAndTime, percent } from '../wording/format.ts';
import { withKey } from '../shell/command.ts';
import { commandOf } from './commands.ts';
import { useDesk } from './desk.ts';

/** A remark on the teacher's desk. */
const props = defineProps<{ remark: Remark; focused: boolean }>();

const SIZE_STEP = 0.5;

const desk = useDesk();
const { submission, rubric, returned } = desk;
const store = useFeedback();
const actions = useFeedbackActions();
const session = useSession();
const margin = useMarginKey();
const speaking = ref(false);
const draft = ref<Draft>();
const near = ref(false);
const cutting = computed({
  get: () => desk.cutting.value === props.remark.id,
  set: (open) => (desk.cutting.value = open ? props.remark.id : undefined),
});
const mending = computed({
  get: () => desk.mending.value === props.remark.id,
  set: (open) => {
    if (open) desk.mending.value = props.remark.id;
    else if (mending.value) desk.mending.value = undefined;
  },
});
/** A thread that the student opened; what is said in it is not the teacher's to change. */
const asked = computed(() => props.remark.author.id === store.work?.student.id);
/** Hundreds of ribbons with all their buttons would be slow to lay out: only the one at hand has them. */
const atHand = computed(() => !asked.value && !returned.value && (props.focused || near.value));
const mine = computed(() => props.remark.author.id === session.person?.id);
const entry = computed(() => margin.entry(props.remark.kind));
const quote = computed(() => (props.remark.anchor.type === 'passage' ? props.remark.anchor.quote.exact : undefined));
const stamp = computed(() => (props.remark.anchor.type === 'passage' ? props.remark.stamp : null));
/** What is chosen can be its new place; a stamp on a page is moved itself. */
const place = computed(() =>
  props.focused && !returned.value && !(props.remark.stamp && props.remark.anchor.type === 'region')
    ? desk.target.value
    : undefined,
);
const heard = computed(() => {
  const { heard } = props.remark.recording ?? {};
  if (!heard) return `${desk.student.value} has not listened yet`;
  return heard.finishedAt
    ? `Heard ${dayAndTime(heard.finishedAt)}`
    : `Heard in part, ${percent(playedShare(heard.played, props.remark.recording!.sound.duration))} of it`;
});

function save(): void {
  const change = draft.value && changeOf(props.remark, draft.value);
  if (change) void actions.amend(props.remark, change);
  draft.value = undefined;
}

function resize(by: number): void {
  if (!stamp.value) return;
  const size = Math.min(8, Math.max(1, stamp.value.size + by));
  void actions.amend(props.remark, { stamp: { ...stamp.value, size } });
}
</script>

<template>
  <RibbonFrame
    :remark="remark"
    :focused="focused"
    @focus="desk.focused.value = remark.id"
    @pointerenter="near = true"
    @pointerleave="near = false"
  >
    <template v-if="atHand" #kind>
      <v-menu>
        <template #activator="{ props: menu }">
          <button v-bind="menu" type="button" class="kind" :aria-label="`Kind: ${entry.name}. Change`">
            <span aria-hidden="true">{{ entry.glyph }}</span> {{ entry.name }}
          </button>
        </template>
        <v-list density="compact" role="menu">
          <v-list-item
            v-for="info in margin.key.value"
            :key="info.kind"
            role="menuitem"
            :class="`kind-${info.kind}`"
            @click="actions.setKind(remark, info.kind)"
          >
            <span class="choice">{{ info.glyph }} {{ info.name }}</span>
          </v-list-item>
        </v-list>
      </v-menu>
    </template>
    <template v-if="atHand" #actions>
      <template v-if="stamp">
        <v-btn :icon="mdiMagnifyMinusOutline" size="28" aria-label="Smaller stamp" @click.stop="resize(-SIZE_STEP)" />
        <v-btn :icon="mdiMagnifyPlusOutline" size="28" aria-label="Larger stamp" @click.stop="resize(SIZE_STEP)" />
      </template>
      <v-btn
        v-if="remark.recording && !remark.recording.sound.picture"
        :icon="mdiContentCut"
        size="28"
        aria-label="Edit the sound of this remark"
        :title="withKey(commandOf('cut'))"
        :aria-expanded="cutting"
        @click.stop="cutting = !cutting"
      />
      <v-btn
        v-if="remark.talk && mine"
        :icon="mdiCallSplit"
        size="28"
        aria-label="Make several remarks of this talk-through"
        title="Make several remarks of it"
        @click.stop="desk.takeApart(remark)"
      />
      <v-btn
        v-if="remark.recording && !remark.talk"
        :icon="mdiMicrophoneOutline"
        size="28"
        aria-label="Speak this remark again"
        title="Speak again"
        @click.stop="desk.speakAgain(remark)"
      />
      <v-btn
        :icon="mdiPencilOutline"
        size="28"
        aria-label="Write on this remark"
        title="Text, link, name, tags"
        :aria-expanded="draft !== undefined"
        @click.stop="draft = draft ? undefined : draftOf(remark)"
      />
      <v-btn
        :icon="mdiBookmarkPlusOutline"
        size="28"
        aria-label="Bank this remark"
        :title="withKey(commandOf('keep'))"
        @click.stop="desk.open('keep')"
      />
      <v-btn
        :icon="mdiTrashCanOutline"
        size="28"
        aria-label="Put this remark aside"
        :title="withKey(commandOf('aside'))"
        @click.stop="desk.putRemarkAside(remark)"
      />
    </template>
    <template #recording="{ recording, label }">
      <RecordingView
        v-model:cutting="cutting"
        v-model:mending="mending"
        :recording="recording"
        :label="label"
        :live="focused || near"
        mendable
      />
    </template>
    <RemarkForm
      v-if="draft"
      v-model="draft"
      existing
      :rubric="rubric"
      :quote="quote"
      @save="save"
      @cancel="draft = undefined"
    />
    <SaidBefore v-if="focused && !returned && mine" :remark="remark" @keep="desk.open('keep')" />
    <v-btn
      v-if="place"
      class="here"
      size="x-small"
      variant="outlined"
      @mousedown.prevent
      @click.stop="actions.amend(remark, { anchor: place.anchor })"
    >
      Move it to {{ place.name }}
    </v-btn>
    <template v-if="returned">
      <p v-if="remark.suggestion !== null" class="heard">
        {{ remark.takenAt ? `Taken over ${dayAndTime(remark.takenAt)}` : 'Not taken over yet' }}
      </p>
      <p
        v-if="remark.recording && !remark.private"
        class="heard"
        :class="{ open: !remark.recording.heard?.finishedAt }"
      >
        {{ heard }}
      </p>
      <ReplyThread :replies="remark.replies" mendable />
      <ThreadEnd v-if="remark.settled || (focused && remark.replies.length > 0)" :remark="remark" says="Settled" />
      <ReplyBox
        v-if="speaking || (focused && remark.replies.length > 0)"
        v-model:speaking="speaking"
        :submission="submission"
        :remark="remark.id"
        :send="(reply) => actions.answer(remark, reply)"
      />
    </template>
  </RibbonFrame>
</template>

<style scoped>
.kind,
.choice {
  white-space: nowrap;
  color: var(--kind);
  font-weight: 600;
  font-size: 13px;
}
.heard {
  margin-top: 6px;
  color: var(--quiet);
  font-size: 13px;
}
.heard.open {
  color: var(--ink);
}
.here {
  margin-top: 8px;
}
.here :deep(.v-btn__content) {
  max-width: 230px;
  overflow: hidden;
  text-overflow: ellipsis;
}
</style>
