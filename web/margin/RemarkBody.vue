<script setup lang="ts">
import type { Remark } from '#contract/remarks';
import { mdiGestureTap, mdiLinkVariant, mdiLockOutline, mdiPaperclip } from '@mdi/js';
import { computed, defineAsyncComponent } from 'vue';
import { byteSize, counted } from '../wording/format.ts';
import { useFeedback } from '../feedback/feedback-store.ts';
import { remarkFileUrl } from '../player/media-url.ts';
import StampDrawing from '../folio/StampDrawing.vue';
import SuggestionText from './SuggestionText.vue';

// Most remarks have no ink.
const InkThumb = defineAsyncComponent(() => import('../ink/InkThumb.vue'));

/** All that a remark says beside its sound. */
const props = defineProps<{ remark: Remark }>();

const store = useFeedback();
const criterion = computed(() => store.feedback?.rubric.find(({ id }) => id === props.remark.criterion));
/** What the page shows while it is heard. */
const talked = computed(() => {
  const count = (wanted: string): number => props.remark.talk?.filter(({ type }) => type === wanted).length ?? 0;
  const [passages, strokes] = [count('select'), count('stroke') - count('erase')];
  const parts = [passages > 0 && counted(passages, 'passage'), strokes > 0 && counted(strokes, 'stroke')];
  const named = parts.filter(Boolean).join(', ');
  return named === '' ? '' : `: ${named}`;
});
const host = computed(() => (props.remark.link ? new URL(props.remark.link).host : ''));
</script>

<template>
  <p v-if="remark.private" class="private">
    <v-icon :icon="mdiLockOutline" size="14" aria-hidden="true" /> Private: only teachers see this
  </p>
  <p v-if="remark.reaction" class="reaction">{{ remark.reaction }}</p>
  <div v-if="remark.stamp" class="stamp"><StampDrawing :stamp="remark.stamp" :remark="remark.id" /></div>
  <InkThumb v-if="remark.ink" :ink="remark.ink" />
  <p v-if="remark.talk" class="line fine">
    <v-icon :icon="mdiGestureTap" size="16" aria-hidden="true" /> Talked through{{ talked }}
  </p>
  <SuggestionText v-if="remark.suggestion !== null" :remark="remark" />
  <p v-if="remark.text" class="text">{{ remark.text }}</p>
  <p v-if="remark.link" class="line">
    <v-icon :icon="mdiLinkVariant" size="16" aria-hidden="true" />
    <a :href="remark.link" target="_blank" rel="noopener noreferrer" :title="remark.link">{{ host }}</a>
  </p>
  <p v-if="remark.file" class="line">
    <v-icon :icon="mdiPaperclip" size="16" aria-hidden="true" />
    <a :href="remarkFileUrl(remark)" :download="remark.file.name">{{ remark.file.name }}</a>
    <span class="fine figures">{{ byteSize(remark.file.byteLength) }}</span>
  </p>
  <p v-if="criterion || remark.tags.length > 0" class="tags">
    <span v-if="criterion" class="criterion">{{ criterion.title }}</span>
    <span v-for="tag in remark.tags" :key="tag" class="tag">{{ tag }}</span>
  </p>
</template>

<style scoped>
.private {
  color: var(--quiet);
  font-size: 13px;
}
.reaction {
  font-family: var(--emoji);
  font-size: 26px;
  line-height: 1.2;
}
.stamp {
  width: 44px;
  height: 44px;
}
.text {
  margin-top: 4px;
  line-height: 1.4;
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
.line {
  display: flex;
  align-items: center;
  gap: 6px;
  margin-top: 4px;
  overflow-wrap: anywhere;
}
a {
  color: inherit;
  text-decoration: underline;
}
.tags {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  margin-top: 6px;
}
.tag,
.criterion {
  padding: 0 7px;
  border: 1px solid var(--hairline);
  border-radius: 9px;
  color: var(--quiet);
  font-size: 12px;
  line-height: 18px;
}
.criterion {
  border-radius: 3px;
  color: var(--ink);
}
</style>
