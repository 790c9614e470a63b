<script setup lang="ts">
import type { Anchor } from '#core/anchor';
import type { Rubric } from '#core/grading';
import type { Remark, RemarkChange } from '#contract/remarks';
import {
  mdiContentCut,
  mdiMagnifyMinusOutline,
  mdiMagnifyPlusOutline,
  mdiMicrophoneOutline,
  mdiPencilOutline,
  mdiTrashCanOutline,
} from '@mdi/js';
import { useLocalStorage } from '@vueuse/core';
import { computed, ref } from 'vue';
import type { KeptSound } from '../feedback/changes.ts';
import { useFeedbackActions } from '../feedback/use-feedback-actions.ts';
import { useMarginKey } from '../feedback/margin-key.ts';
import ReplyBox from '../replies/ReplyBox.vue';
import ReplyThread from '../replies/ReplyThread.vue';
import RibbonFrame from '../margin/RibbonFrame.vue';
import { useSpeakingReply } from '../replies/use-speaking-reply.ts';
import { dayAndTime } from '../wording/time.ts';
import { draftOf, type Draft } from '../remark/draft.ts';
import RemarkForm from '../remark/RemarkForm.vue';
import SoundEditor from '../remark/SoundEditor.vue';
import WordCutter from '../remark/WordCutter.vue';
import WordsPanel from '../remark/WordsPanel.vue';
import TranscriptField from '../remark/TranscriptField.vue';

/** A remark on the teacher's desk. */
const props = defineProps<{
  remark: Remark;
  submission: string;
  focused: boolean;
  returned: boolean;
  student: string;
  rubric: Rubric;
  /** What is chosen in the work and what it is called, so that the remark can be put there. */
  target?: { anchor: Anchor; name: string } | undefined;
}>();
const emit = defineEmits<{
  focus: [];
  kind: [kind: string];
  again: [];
  aside: [];
  mend: [mended: { text: string; read: boolean }];
  amend: [change: RemarkChange];
}>();
/** Whether its sound is being edited. */
const cutting = defineModel<boolean>('cutting', { default: false });
/** Whether its transcript is being mended. */
const mending = defineModel<boolean>('mending', { default: false });

const SIZE_STEP = 0.5;

const actions = useFeedbackActions();
const margin = useMarginKey();
const speaking = useSpeakingReply(() => props.remark.id);
const draft = ref<Draft>();
const near = ref(false);
/** Languages and captions are shown. */
const talking = ref(false);
const byWords = useLocalStorage('cut-by-words', false);
/** Hundreds of ribbons with all their buttons would be slow to lay out: only the one at hand has them. */
const atHand = computed(() => !props.returned && (props.focused || near.value));
const entry = computed(() => margin.entry(props.remark.kind));
const quote = computed(() => (props.remark.anchor.type === 'passage' ? props.remark.anchor.quote.exact : undefined));
const stamp = computed(() => (props.remark.anchor.type === 'passage' ? props.remark.stamp : null));
/** What is chosen can be its new place; a stamp on a page is moved itself. */
const place = computed(() =>
  props.focused && !props.returned && !(props.remark.stamp && props.remark.anchor.type === 'region')
    ? props.target
    : undefined,
);
const heard = computed(() => {
  const { heard } = props.remark;
  if (!heard) return `Not heard by ${props.student} yet`;
  return heard.finishedAt
    ? `Heard ${dayAndTime(heard.finishedAt)}`
    : `Begun ${dayAndTime(heard.begunAt)}, not to the end`;
});

/** Only what was changed, so that two teachers do not overwrite each other. */
function save(): void {
  if (!draft.value) return;
  const before = draftOf(props.remark).content;
  const change = Object.fromEntries(
    Object.entries(draft.value.content).filter(
      ([name, value]) => JSON.stringify(value) !== JSON.stringify(before[name as keyof typeof before]),
    ),
  );
  if (Object.keys(change).length > 0) emit('amend', change);
  draft.value = undefined;
}

const send = (reply: { text: string; sound: KeptSound | null }): Promise<void> => actions.answer(props.remark, reply);

function resize(by: number): void {
  if (!stamp.value) return;
  emit('amend', { stamp: { ...stamp.value, size: Math.min(8, Math.max(1, stamp.value.size + by)) } });
}
</script>

<template>
  <RibbonFrame
    :remark="remark"
    :focused="focused"
    @focus="$emit('focus')"
    @pointerenter="near = true"
    @pointerleave="near = false"
  >
    <template v-if="atHand" #kind>
      <v-menu>
        <template #activator="{ props: menu }">
          <button v-bind="menu" type="button" class="kind" :aria-label="`Kind: ${entry.name}. Change it`">
            <span aria-hidden="true">{{ entry.glyph }}</span> {{ entry.name }}
          </button>
        </template>
        <v-list density="compact">
          <v-list-item
            v-for="info in margin.key.value"
            :key="info.kind"
            :class="`kind-${info.kind}`"
            @click="$emit('kind', info.kind)"
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
        v-if="remark.sound && !remark.sound.picture"
        :icon="mdiContentCut"
        size="28"
        aria-label="Edit the sound of this remark"
        title="Trim and cut (E)"
        :aria-expanded="cutting"
        @click.stop="cutting = !cutting"
      />
      <v-btn
        v-if="remark.sound"
        :icon="mdiMicrophoneOutline"
        size="28"
        aria-label="Speak this remark again"
        title="Speak again"
        @click.stop="$emit('again')"
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
        :icon="mdiTrashCanOutline"
        size="28"
        aria-label="Put this remark aside"
        title="Put aside (Delete)"
        @click.stop="$emit('aside')"
      />
    </template>
    <TranscriptField
      v-if="remark.sound"
      v-model:mending="mending"
      v-model:talking="talking"
      :remark="remark"
      :focused="focused"
      @mend="$emit('mend', $event)"
      @again="actions.listenAgain(remark)"
    />
    <WordsPanel v-if="talking && (focused || near)" :remark="remark" />
    <template v-if="cutting && remark.sound">
      <div class="ways" role="group" aria-label="How to cut" @click.stop>
        <button type="button" :aria-pressed="!byWords" @click="byWords = false">by the sound</button>
        <button type="button" :aria-pressed="byWords" @click="byWords = true">by words</button>
      </div>
      <WordCutter v-if="byWords" :remark="remark" @close="cutting = false" />
      <SoundEditor v-else :remark="remark" @close="cutting = false" />
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
    <v-btn
      v-if="place"
      class="here"
      size="x-small"
      variant="outlined"
      @mousedown.prevent
      @click.stop="$emit('amend', { anchor: place.anchor })"
    >
      Move it to {{ place.name }}
    </v-btn>
    <template v-if="returned">
      <p v-if="remark.suggestion !== null" class="heard">
        {{ remark.takenAt ? `Taken over ${dayAndTime(remark.takenAt)}` : 'Not taken over yet' }}
      </p>
      <p v-if="remark.sound && !remark.private" class="heard" :class="{ open: !remark.heard?.finishedAt }">
        {{ heard }}
      </p>
      <ReplyThread :replies="remark.replies" />
      <ReplyBox
        v-if="speaking || (focused && remark.replies.length > 0)"
        :submission="submission"
        :remark="remark.id"
        :send="send"
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
.ways {
  display: flex;
  gap: 12px;
  margin-top: 8px;
  font-size: 13px;
  color: var(--quiet);
}
.ways [aria-pressed='true'] {
  color: var(--ink);
  font-weight: 600;
  box-shadow: 0 2px 0 var(--kind);
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
