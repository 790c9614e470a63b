<script setup lang="ts">
import { blockStarts, type LeafOf } from '#core/folio';
import { computed } from 'vue';
import FolioBlock from './FolioBlock.vue';
import { focusWork, useFolio } from './folio-context.ts';

/** What a student answered to one question, below the question. */
const props = defineProps<{ leaf: LeafOf<'answer'>; index: number }>();

const folio = useFolio();
const starts = computed(() => blockStarts(props.leaf.blocks, props.leaf.start));
const chosen = computed(() => folio.target?.type === 'answer' && folio.target.question === props.leaf.question);
const marks = computed(() =>
  folio.marks.filter(({ anchor }) => anchor.type === 'answer' && anchor.question === props.leaf.question),
);
function choose(event: Event): void {
  if (!folio.choosing) return;
  folio.choose(chosen.value ? undefined : { type: 'answer', question: props.leaf.question });
  focusWork(event.currentTarget);
}
</script>

<template>
  <div class="paper" :class="{ chosen }">
    <component
      :is="folio.choosing ? 'button' : 'div'"
      class="question"
      :type="folio.choosing ? 'button' : undefined"
      :aria-pressed="folio.choosing ? chosen : undefined"
      @click="choose"
    >
      <span class="label">{{ leaf.label }}</span>
      <span class="prompt">{{ leaf.prompt }}</span>
    </component>
    <button
      v-for="mark in marks"
      :key="mark.id"
      type="button"
      class="edge"
      :class="[`kind-${mark.kind}`, { focused: mark.id === folio.focused }]"
      :data-remarks="mark.id"
      :aria-label="`Go to the remark about ${leaf.label}`"
      @click="folio.pick(mark.id)"
    />
    <div class="answer">
      <FolioBlock v-for="(block, at) in leaf.blocks" :key="at" :block="block" :starts="starts" />
      <p v-if="leaf.blocks.length === 0" class="none" data-words="No answer." />
    </div>
  </div>
</template>

<style scoped>
.paper {
  position: relative;
  padding: 18px 28px 14px;
  background: var(--paper);
  border: 1px solid var(--hairline);
}
.paper.chosen {
  outline: 2px solid var(--ink);
}
.question {
  display: block;
  width: 100%;
  font-family: var(--sans);
  font-size: 15px;
  line-height: 1.45;
  text-align: start;
}
.label {
  display: block;
  color: var(--quiet);
  font-size: 13px;
}
.prompt {
  font-weight: 600;
}
.answer {
  margin-top: 10px;
  padding-left: 14px;
  border-left: 2px solid var(--hairline);
}
.none::before {
  content: attr(data-words);
  color: var(--quiet);
  font-style: italic;
}
.edge {
  position: absolute;
  inset: 8px auto 8px 6px;
  width: 6px;
  border-left: 4px var(--kind-border) var(--kind);
}
.edge.focused {
  inset-inline-start: 4px;
  border-left-width: 7px;
}
</style>
