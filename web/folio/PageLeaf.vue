<script setup lang="ts">
import { pieces, type LeafOf, type PlacedText } from '#core/folio';
import { urlOf } from '#contract/endpoint';
import { workFile } from '#contract/submissions';
import { useElementSize, useIntersectionObserver } from '@vueuse/core';
import type { RenderTask } from 'pdfjs-dist';
import {
  computed,
  defineAsyncComponent,
  onBeforeUnmount,
  ref,
  shallowRef,
  useTemplateRef,
  watch,
  type CSSProperties,
} from 'vue';
import BoxLayer from './BoxLayer.vue';
import { useFolio } from './folio-context.ts';
import { letterWidth } from './letter-width.ts';
import { openPdf } from './pdf-document.ts';
import PieceText from './PieceText.vue';

// Most pages have a text of their own.
const RecognisedWords = defineAsyncComponent(() => import('./RecognisedWords.vue'));
const WordlessNote = defineAsyncComponent(() => import('./WordlessNote.vue'));

/** A page drawn as it is, with its words over it to be selected and marked. */
const props = defineProps<{ leaf: LeafOf<'page'>; index: number }>();

/** A canvas larger than this is refused by some browsers. */
const MAX_PIXELS = 16_000_000;

const folio = useFolio();
const page = useTemplateRef('page');
const canvas = useTemplateRef('canvas');
const boxes = useTemplateRef('boxes');
const near = ref(typeof IntersectionObserver === 'undefined');
const problem = ref(false);
const drawn = shallowRef(0);
const { width } = useElementSize(page);

useIntersectionObserver(page, ([entry]) => (near.value = entry!.isIntersecting), { rootMargin: '1200px 0px' });

const placed = computed(() => {
  let at = props.leaf.start;
  return props.leaf.texts.map((text) => {
    const start = at;
    at += text.text.length + text.glue.length;
    return { text, start, style: styleOf(text) };
  });
});

function styleOf({ text, x, y, width: wide, height, angle }: PlacedText): CSSProperties {
  const { leaf } = props;
  const natural = letterWidth(text) * height;
  const stretch = natural > 0 && wide > 0 ? wide / natural : 1;
  return {
    left: `${(x / leaf.width) * 100}%`,
    top: `${(y / leaf.height) * 100}%`,
    fontSize: `${(height / leaf.width) * 100}cqw`,
    transform: `${angle ? `rotate(${angle}deg) ` : ''}scaleX(${stretch})`,
  };
}

let task: RenderTask | undefined;
let wanted = 0;

async function draw(): Promise<void> {
  const mine = ++wanted;
  task?.cancel();
  if (!near.value || width.value === 0) return;
  try {
    const document = await openPdf(
      urlOf(workFile, { submission: folio.submission, position: String(props.leaf.file) }),
    );
    const proxy = await document.getPage(props.leaf.page);
    if (mine !== wanted || !canvas.value) return;
    const size = proxy.getViewport({ scale: 1 });
    const sharp = Math.min(
      devicePixelRatio || 1,
      Math.sqrt(MAX_PIXELS / (size.width * size.height)) / (width.value / size.width),
    );
    const viewport = proxy.getViewport({ scale: (width.value / size.width) * sharp });
    canvas.value.width = Math.floor(viewport.width);
    canvas.value.height = Math.floor(viewport.height);
    task = proxy.render({ canvas: canvas.value, viewport });
    await task.promise;
    drawn.value = width.value;
    problem.value = false;
  } catch (error) {
    if ((error as Error).name !== 'RenderingCancelledException' && mine === wanted) problem.value = true;
  }
}

let timer: ReturnType<typeof setTimeout> | undefined;
watch([near, width], ([isNear]) => {
  clearTimeout(timer);
  if (!isNear) {
    // Far away pages give their memory back.
    wanted++;
    task?.cancel();
    if (canvas.value) canvas.value.width = canvas.value.height = 0;
    drawn.value = 0;
  } else timer = setTimeout(() => void draw(), drawn.value === 0 ? 0 : 150);
});
onBeforeUnmount(() => {
  clearTimeout(timer);
  wanted++;
  task?.cancel();
});
</script>

<template>
  <div class="frame">
    <WordlessNote v-if="folio.wordless.has(index)" :index="index" />
    <div
      ref="page"
      class="page"
      :style="{ aspectRatio: `${leaf.width} / ${leaf.height}` }"
      @pointerdown="boxes?.begin($event)"
    >
      <canvas v-show="near" ref="canvas" aria-hidden="true" />
      <p
        v-if="problem"
        class="problem"
        data-words="This page cannot be drawn at the moment. Its words can be read and marked."
      />
      <div class="texts" :class="{ plain: problem }">
        <span v-for="{ text, start, style } in placed" :key="start" class="text" :style="style"
          ><PieceText
            v-for="piece in pieces([{ text: text.text, marks: [] }], start, folio.cuts)"
            :key="piece.start"
            :piece="piece"
        /></span>
      </div>
      <RecognisedWords v-if="folio.wordless.has(index)" :index="index" :ratio="leaf.width / leaf.height" />
      <BoxLayer ref="boxes" :index="index" :label="leaf.label" />
    </div>
  </div>
</template>

<style scoped>
.frame {
  overflow-x: auto;
}
.page {
  position: relative;
  width: var(--leaf-width);
  margin: 0 auto;
  container-type: inline-size;
  background: #fff;
  border: 1px solid var(--hairline);
  overflow: hidden;
}
canvas {
  display: block;
  width: 100%;
  height: 100%;
}
.texts {
  position: absolute;
  inset: 0;
  color: transparent;
  font-family: sans-serif;
  line-height: 1;
}
.texts.plain {
  color: #22201c;
}
.text {
  position: absolute;
  transform-origin: 0 0;
  white-space: pre;
  cursor: text;
}
/* Reaches a little over its line, so that a selection begins where the eye would begin it. */
.text::before {
  content: '';
  position: absolute;
  inset: -0.2em 0;
  z-index: -1;
}
.texts :deep(mark) {
  text-underline-offset: 0.16em;
}
.problem::before {
  content: attr(data-words);
  display: block;
  position: absolute;
  inset: 0 0 auto;
  padding: 8px 12px;
  background: var(--ground);
  color: #22201c;
  font: 14px var(--sans);
}
</style>
