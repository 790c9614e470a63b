<script setup lang="ts">
import type { Remark } from '#contract/remarks';
import type { Feedback, Work } from '#contract/submissions';
import { keyEntry } from '#core/margin';
import { computed } from 'vue';
import RecordingView from '../recordings/RecordingView.vue';
import { anchorName } from '../wording/anchor-name.ts';

/** What one of two markers said about a work, to be heard and read. */
const props = defineProps<{
  marker: string;
  feedback: Feedback;
  /** The work as this marker saw it. */
  work: Work;
}>();

const remarks = computed(() => props.feedback.remarks.filter(({ author }) => author.id !== props.work.student.id));

const kindOf = (remark: Remark) => keyEntry(props.work.marginKey, remark.kind);
const placeOf = ({ anchor, criterion }: Remark): string =>
  criterion
    ? `On ${props.feedback.rubric.find(({ id }) => id === criterion)?.title ?? 'a criterion'}`
    : anchor.type === 'passage'
      ? `“${anchor.quote.exact}”`
      : `On ${anchorName(props.work.folio, anchor)}`;
</script>

<template>
  <div>
    <h4>
      {{ marker }}
      <router-link class="desk" :to="{ name: 'desk', params: { submission: work.id } }">to the desk</router-link>
    </h4>
    <p v-if="remarks.length === 0" class="fine">No remarks.</p>
    <ul v-else>
      <li
        v-for="remark in remarks"
        :key="remark.id"
        :style="{ '--kind': `rgb(var(--v-theme-${kindOf(remark).color}))` }"
      >
        <p class="kind">
          <span aria-hidden="true">{{ kindOf(remark).glyph }}</span> {{ kindOf(remark).name }}
          <span v-if="remark.private" class="fine">private</span>
        </p>
        <p class="place">{{ placeOf(remark) }}</p>
        <RecordingView
          v-if="remark.recording"
          :recording="remark.recording"
          :label="`${kindOf(remark).name}, ${marker}`"
        />
        <p v-if="remark.reaction">{{ remark.reaction }}</p>
        <p v-if="remark.suggestion !== null">Suggests: “{{ remark.suggestion }}”</p>
        <p v-if="remark.text" class="text">{{ remark.text }}</p>
      </li>
    </ul>
  </div>
</template>

<style scoped>
h4 {
  margin-bottom: 6px;
  font-size: 15px;
  font-weight: 650;
}
.desk {
  margin-inline-start: 10px;
  font-size: 13px;
  font-weight: 400;
}
ul {
  display: grid;
  gap: 10px;
  list-style: none;
}
li {
  padding: 8px 10px;
  background: var(--paper);
  border: 1px solid var(--hairline);
  border-inline-start: 3px solid var(--kind);
  border-radius: 3px;
}
.kind {
  color: var(--kind);
  font-size: 13px;
  font-weight: 650;
}
.place {
  display: -webkit-box;
  overflow: hidden;
  margin: 2px 0 6px;
  color: var(--quiet);
  font-family: var(--serif);
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
  line-clamp: 2;
}
.text {
  white-space: pre-wrap;
}
</style>
