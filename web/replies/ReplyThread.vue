<script setup lang="ts">
import type { Remark } from '#contract/remarks';
import { dayAndTime } from '../wording/format.ts';
import RecordingView from '../recordings/RecordingView.vue';
import { useSession } from '../session/session.ts';

/** What was answered to a remark, oldest first. */
defineProps<{
  replies: Remark['replies'];
  /** Whether everybody's words can be mended, and not one's own alone. */
  mendable?: boolean;
}>();

const session = useSession();
</script>

<template>
  <ol v-if="replies.length > 0" class="thread" aria-label="Answers">
    <li v-for="reply in replies" :key="reply.id">
      <p class="who">
        {{ reply.author.name }}, <span class="figures">{{ dayAndTime(reply.at) }}</span>
      </p>
      <RecordingView
        v-if="reply.recording"
        :recording="reply.recording"
        :label="`the answer of ${reply.author.name}`"
        :mendable="mendable || reply.author.id === session.person?.id"
        live
      />
      <p v-if="reply.text" class="text">{{ reply.text }}</p>
    </li>
  </ol>
</template>

<style scoped>
.thread {
  margin-top: 8px;
  padding-left: 12px;
  border-left: 2px solid var(--hairline);
  list-style: none;
}
li + li {
  margin-top: 8px;
}
.who {
  color: var(--quiet);
  font-size: 13px;
}
.text {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
</style>
