<script setup lang="ts">
import { blockStarts } from '#core/folio';
import type { Work } from '#contract/submissions';
import { computed, useTemplateRef } from 'vue';
import type { DrawnStretch } from './drawn-stretch.ts';
import FolioBlock from './FolioBlock.vue';

/** The work itself, as paper. */
const props = defineProps<{ work: Work; stretches: readonly DrawnStretch[]; focused?: string | undefined }>();
defineEmits<{ pick: [id: string] }>();

const starts = computed(() => blockStarts(props.work.folio.blocks));
const root = useTemplateRef('root');
defineExpose({ root });
</script>

<template>
  <article ref="root" class="folio" tabindex="0" :aria-label="`${work.folio.title}, by ${work.student.name}`">
    <FolioBlock
      v-for="(block, index) in work.folio.blocks"
      :key="index"
      :block="block"
      :submission="work.id"
      :starts="starts"
      :stretches="stretches"
      :focused="focused"
      @pick="$emit('pick', $event)"
    />
  </article>
</template>

<style scoped>
.folio {
  font-family: var(--serif);
  font-size: 17px;
  line-height: 1.62;
  max-width: 68ch;
  margin: 0 auto;
}
.folio:focus-visible {
  outline-offset: 12px;
}
.folio :deep(::selection) {
  background: color-mix(in srgb, var(--ink) 22%, transparent);
}
</style>
