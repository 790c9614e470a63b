<script setup lang="ts">
import type { Kind, Remark } from '#contract/remarks';
import { mdiMicrophoneOutline, mdiTrashCanOutline } from '@mdi/js';
import { computed } from 'vue';
import type { KeptSound } from '../shared/changes.ts';
import { KINDS, kindInfo } from '../shared/kinds.ts';
import ReplyBox from '../shared/margin/ReplyBox.vue';
import ReplyThread from '../shared/margin/ReplyThread.vue';
import RibbonFrame from '../shared/margin/RibbonFrame.vue';
import { useSpeakingReply } from '../shared/margin/use-speaking-reply.ts';
import { dayAndTime } from '../shared/time.ts';
import TranscriptField from './TranscriptField.vue';

/** A remark on the teacher's desk. */
const props = defineProps<{
  remark: Remark;
  submission: string;
  focused: boolean;
  returned: boolean;
  student: string;
  answer: (reply: { text: string; sound: KeptSound | null }) => Promise<void>;
}>();
defineEmits<{ focus: []; kind: [kind: Kind]; again: []; aside: []; mend: [text: string] }>();

const speaking = useSpeakingReply(() => props.remark.id);
const heard = computed(() => {
  const { heard } = props.remark;
  if (!heard) return `Not heard by ${props.student} yet`;
  return heard.finishedAt
    ? `Heard ${dayAndTime(heard.finishedAt)}`
    : `Begun ${dayAndTime(heard.begunAt)}, not to the end`;
});
</script>

<template>
  <RibbonFrame :remark="remark" :focused="focused" @focus="$emit('focus')">
    <template v-if="!returned" #kind>
      <v-menu>
        <template #activator="{ props: menu }">
          <button
            v-bind="menu"
            type="button"
            class="kind"
            :aria-label="`Kind: ${kindInfo(remark.kind).name}. Change it`"
          >
            <span aria-hidden="true">{{ kindInfo(remark.kind).glyph }}</span> {{ kindInfo(remark.kind).name }}
          </button>
        </template>
        <v-list density="compact">
          <v-list-item
            v-for="info in KINDS"
            :key="info.kind"
            :class="`kind-${info.kind}`"
            @click="$emit('kind', info.kind)"
          >
            <span class="choice">{{ info.glyph }} {{ info.name }}</span>
          </v-list-item>
        </v-list>
      </v-menu>
    </template>
    <template v-if="!returned" #actions>
      <v-btn
        :icon="mdiMicrophoneOutline"
        size="28"
        aria-label="Speak this remark again"
        title="Speak again"
        @click.stop="$emit('again')"
      />
      <v-btn
        :icon="mdiTrashCanOutline"
        size="28"
        aria-label="Put this remark aside"
        title="Put aside"
        @click.stop="$emit('aside')"
      />
    </template>
    <TranscriptField :remark="remark.id" :transcript="remark.transcript" @mend="$emit('mend', $event)" />
    <template v-if="returned">
      <p class="heard" :class="{ open: !remark.heard?.finishedAt }">{{ heard }}</p>
      <ReplyThread :replies="remark.replies" />
      <ReplyBox
        v-if="speaking || (focused && remark.replies.length > 0)"
        :submission="submission"
        :remark="remark.id"
        :send="answer"
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
</style>
