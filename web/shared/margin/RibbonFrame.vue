<script setup lang="ts">
import type { Remark } from '#contract/remarks';
import { computed } from 'vue';
import { kindInfo } from '../kinds.ts';
import { remarkSoundUrl } from '../sound-url.ts';
import { useAnchorName } from '../use-anchor-name.ts';
import KindLine from './KindLine.vue';
import SoundStrip from './SoundStrip.vue';

/** One remark in the margin, drawn as its own waveform. */
const props = defineProps<{ remark: Remark; focused: boolean }>();
defineEmits<{ focus: [] }>();

const info = computed(() => kindInfo(props.remark.kind));
const anchorName = useAnchorName();
const about = computed(() => anchorName(props.remark.anchor));
</script>

<template>
  <section
    class="ribbon"
    :class="[`kind-${remark.kind}`, { focused }]"
    tabindex="-1"
    :data-remark="remark.id"
    :aria-label="`${info.name} about ${about}`"
    @focusin="$emit('focus')"
    @click="$emit('focus')"
  >
    <header>
      <slot name="kind">
        <span class="kind"
          ><span aria-hidden="true">{{ info.glyph }}</span> {{ info.name }}</span
        >
      </slot>
      <KindLine :kind="remark.kind" />
      <span class="actions"><slot name="actions" /></span>
    </header>
    <p v-if="remark.anchor.type !== 'passage'" class="whole">on {{ about }}</p>
    <SoundStrip
      :id="remark.id"
      :url="remarkSoundUrl(remark)"
      :sound="remark.sound"
      :label="`the remark about ${about}`"
    />
    <slot />
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
.whole {
  color: var(--quiet);
  font-size: 13px;
}
.actions {
  display: flex;
  white-space: nowrap;
  margin-left: auto;
}
</style>
