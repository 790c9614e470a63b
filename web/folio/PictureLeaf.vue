<script setup lang="ts">
import type { LeafOf } from '#core/folio';
import { urlOf } from '#contract/endpoint';
import { workPicture } from '#contract/submissions';
import { defineAsyncComponent, ref, useTemplateRef } from 'vue';
import BoxLayer from './BoxLayer.vue';
import { useFolio } from './folio-context.ts';

const RecognisedWords = defineAsyncComponent(() => import('./RecognisedWords.vue'));
const WordlessNote = defineAsyncComponent(() => import('./WordlessNote.vue'));

/** A picture, upright; a drag on it draws a box, and what is larger than its frame is scrolled. */
const props = defineProps<{ leaf: LeafOf<'picture'>; index: number }>();

const folio = useFolio();
const boxes = useTemplateRef('boxes');
const problem = ref(false);
const name = (): string => `Picture handed in as ${props.leaf.label.toLowerCase()} ${props.index + 1}`;
</script>

<template>
  <div class="frame">
    <WordlessNote v-if="folio.wordless.has(index)" :index="index" />
    <div class="picture" :style="{ aspectRatio: `${leaf.width} / ${leaf.height}` }" @pointerdown="boxes?.begin($event)">
      <img
        :src="urlOf(workPicture, { submission: folio.submission, position: String(leaf.picture) })"
        :alt="name()"
        draggable="false"
        @error="problem = true"
      />
      <p
        v-if="problem"
        class="problem"
        data-words="This picture cannot be shown at the moment. Reload the page to try again."
      />
      <RecognisedWords v-if="folio.wordless.has(index)" :index="index" :ratio="leaf.width / leaf.height" />
      <BoxLayer ref="boxes" :index="index" :label="leaf.label" />
    </div>
  </div>
</template>

<style scoped>
.frame {
  overflow: auto;
  max-height: 88vh;
}
.picture {
  position: relative;
  width: var(--leaf-width);
  margin: 0 auto;
  background: var(--paper);
  border: 1px solid var(--hairline);
}
img {
  display: block;
  width: 100%;
  height: 100%;
  image-orientation: from-image;
  user-select: none;
}
.problem::before {
  content: attr(data-words);
  padding: 12px;
  font: 14px var(--sans);
}
</style>
