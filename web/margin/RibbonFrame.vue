<script setup lang="ts">
import type { Remark } from '#contract/remarks';
import {
  mdiAlertCircleOutline,
  mdiCheck,
  mdiCloudAlertOutline,
  mdiCloudOffOutline,
  mdiCloudUploadOutline,
} from '@mdi/js';
import { computed } from 'vue';
import { useMarginKey } from '../feedback/margin-key.ts';
import { useOutbox } from '../outbox/outbox.ts';
import { useSession } from '../session/session.ts';
import { dayAndTime } from '../wording/format.ts';
import { useAnchorName } from '../feedback/use-anchor-name.ts';
import KindLine from './KindLine.vue';
import RemarkBody from './RemarkBody.vue';
import RecordingView from '../recordings/RecordingView.vue';
import { usePressing } from './use-pressing.ts';

/** One remark in the margin; a spoken one is drawn as its own waveform. */
const props = defineProps<{ remark: Remark; focused: boolean }>();
defineEmits<{ focus: [] }>();

const STATES = {
  saved: { icon: mdiCheck, text: 'saved' },
  saving: { icon: mdiCloudUploadOutline, text: 'saving …' },
  waiting: { icon: mdiCloudOffOutline, text: 'waiting for the network' },
  stuck: { icon: mdiCloudAlertOutline, text: 'not taken yet' },
  signedOut: { icon: mdiCloudOffOutline, text: 'waiting until you sign in' },
  otherPerson: { icon: mdiCloudOffOutline, text: 'waiting: someone else is signed in' },
  refused: { icon: mdiAlertCircleOutline, text: 'not accepted' },
} as const;

const margin = useMarginKey();
const outbox = useOutbox();
const session = useSession();
/** Ribbons grow and shrink with the focus; none moves away from under a press, so a press is in focus with its click. */
const { isPressing } = usePressing();
const anchorName = useAnchorName();
const entry = computed(() => margin.entry(props.remark.kind));
const about = computed(() => anchorName(props.remark.anchor));
const label = computed(() => `${entry.value.name} about ${about.value}`);
/** One's own remarks have news while they are on their way, or are being looked at. */
const mine = computed(() => props.remark.author.id === session.person?.id);
const state = computed(() => outbox.stateOf(props.remark.id));
const showsState = computed(() => mine.value && (state.value !== 'saved' || props.focused));
</script>

<template>
  <section
    class="ribbon"
    :class="[`kind-${remark.kind}`, { focused }]"
    tabindex="-1"
    :data-remark="remark.id"
    :aria-label="label"
    @focusin="isPressing() || $emit('focus')"
    @click.capture="$emit('focus')"
  >
    <header>
      <slot name="kind">
        <span class="kind"
          ><span aria-hidden="true">{{ entry.glyph }}</span> {{ entry.name }}</span
        >
      </slot>
      <KindLine :kind="remark.kind" />
      <span class="actions"><slot name="actions" /></span>
    </header>
    <p v-if="remark.name" class="name">{{ remark.name }}</p>
    <p v-if="remark.anchor.type !== 'passage'" class="whole">on {{ about }}</p>
    <slot v-if="remark.recording" name="recording" :recording="remark.recording" :label="`the remark about ${about}`">
      <RecordingView :recording="remark.recording" :label="`the remark about ${about}`" :live="focused" />
    </slot>
    <RemarkBody :remark="remark" />
    <slot />
    <footer>
      <span
        >{{ remark.author.name }}, <span class="figures">{{ dayAndTime(remark.madeAt) }}</span></span
      >
      <span v-if="showsState" class="state" :class="state" role="status">
        <v-icon :icon="STATES[state].icon" size="14" aria-hidden="true" /> {{ STATES[state].text }}
      </span>
    </footer>
  </section>
</template>

<style scoped>
.ribbon {
  padding: 6px 10px 10px;
  background: var(--paper);
  border: 1px solid var(--hairline);
  border-radius: 4px;
  scroll-margin: 80px;
}
/* With hundreds of ribbons, each layer and each clip costs time at every frame: buttons do without the ones they do not need. */
.ribbon :deep(.v-btn__overlay),
.ribbon :deep(.v-btn__underlay) {
  display: none;
}
.ribbon :deep(svg) {
  overflow: visible;
}
.ribbon:focus-visible {
  outline-color: var(--kind);
}
.ribbon.focused {
  border-color: var(--kind);
  box-shadow: 0 2px 10px color-mix(in srgb, var(--ink) 12%, transparent);
}
header {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 28px;
  margin-bottom: 2px;
}
.kind {
  white-space: nowrap;
  color: var(--kind);
  font-weight: 600;
  font-size: 13px;
}
.name {
  font-weight: 600;
}
.whole {
  color: var(--quiet);
  font-size: 13px;
}
.actions {
  display: flex;
  white-space: nowrap;
  margin-left: auto;
}
footer {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0 8px;
  margin-top: 6px;
  color: var(--quiet);
  font-size: 12px;
}
.waiting,
.stuck,
.signedOut,
.otherPerson {
  color: rgb(var(--v-theme-error));
}
</style>
