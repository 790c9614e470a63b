<script setup lang="ts">
import type { Anchor } from '#core/anchor';
import type { Leaf } from '#core/folio';
import type { Work } from '#contract/submissions';
import { computed, defineAsyncComponent, inject, provide, reactive, useTemplateRef, type Component } from 'vue';
import { useInkTools } from '../ink/ink-tools.ts';
import { isBeside } from '../ink/is-beside.ts';
import { SHOWN_INK } from '../ink/shown-ink.ts';
import AnswerLeaf from './AnswerLeaf.vue';
import { drawnEdits } from './drawn-edits.ts';
import { shallowSame, stable } from './stable.ts';
import { FOLIO, type DrawnEdit, type DrawnMark, type DrawnStretch } from './folio-context.ts';
import PageLeaf from './PageLeaf.vue';
import PictureLeaf from './PictureLeaf.vue';
import TextLeaf from './TextLeaf.vue';
import { useRecognised } from './use-recognised.ts';

/** The work itself: its leaves one below the other, as paper. */
const props = defineProps<{
  work: Work;
  marks: readonly DrawnMark[];
  focused?: string | undefined;
  target?: Anchor | undefined;
  choosing?: boolean;
  boxing?: boolean;
  /** Width of pages, slides and pictures, as CSS. */
  leafWidth?: string;
  /** Of the letters of flowing text; 1 is their usual size. */
  textZoom?: number;
}>();
const emit = defineEmits<{ pick: [id: string]; choose: [anchor: Anchor | undefined] }>();

// Most works have no ink.
const InkLayer = defineAsyncComponent(() => import('../ink/InkLayer.vue'));

const LEAVES: Record<Leaf['kind'], Component> = {
  text: TextLeaf,
  page: PageLeaf,
  picture: PictureLeaf,
  // Seldom there, and they bring much along.
  slide: defineAsyncComponent(() => import('./SlideLeaf.vue')),
  sound: defineAsyncComponent(() => import('./SoundLeaf.vue')),
  sheet: defineAsyncComponent(() => import('./SheetLeaf.vue')),
  answer: AnswerLeaf,
};

const stretches = computed((before?: readonly DrawnStretch[]) =>
  stable(
    before,
    props.marks.flatMap(({ id, kind, anchor, stamp = null, reaction = null, ink }): DrawnStretch[] =>
      anchor.type === 'passage'
        ? [{ id, kind, start: anchor.start, end: anchor.end, stamp, reaction, inked: Boolean(ink) }]
        : [],
    ),
    shallowSame,
  ),
);
const edits = computed((before?: readonly DrawnEdit[]) => stable(before, props.marks.flatMap(drawnEdits), shallowSame));
const cuts = computed(() => [...stretches.value, ...edits.value]);
const folio = computed(() => props.work.folio);
const several = computed(() => folio.value.leaves.length > 1);
/** Where strokes hang on words; on others they lie as they are, over the boxes. */
const isFlowing = ({ kind }: Leaf): boolean => kind === 'text' || kind === 'answer' || kind === 'sheet';
const { on: drawing, beside } = useInkTools();
const shownInk = inject(SHOWN_INK, undefined);
const inked = computed(
  () => drawing.value || props.marks.some(({ ink }) => ink) || (shownInk?.strokes.value.length ?? 0) > 0,
);
/** Free paper to the right: while somebody wants to write on it, and where something stands on it. */
const roomy = computed(
  () =>
    (drawing.value && beside.value) ||
    props.marks.some(({ ink }) => ink && isBeside(ink)) ||
    (shownInk?.strokes.value ?? []).some(({ ink }) => isBeside(ink)),
);
const fileBegins = (leaf: Leaf, index: number): boolean =>
  folio.value.files.length > 1 && folio.value.leaves[index - 1]?.file !== leaf.file;

provide(
  FOLIO,
  reactive({
    submission: computed(() => props.work.id),
    marks: computed(() => props.marks),
    stretches: computed(() => new Map(stretches.value.map((stretch) => [stretch.id, stretch]))),
    edits: computed(() => {
      const byId = new Map<string, DrawnEdit[]>();
      for (const edit of edits.value) byId.set(edit.id, [...(byId.get(edit.id) ?? []), edit]);
      return byId;
    }),
    cuts,
    focused: computed(() => props.focused),
    target: computed(() => props.target),
    choosing: computed(() => props.choosing),
    boxing: computed(() => props.boxing),
    inked,
    wordless: useRecognised(() => props.work),
    pick: (id: string) => emit('pick', id),
    choose: (anchor: Anchor | undefined) => emit('choose', anchor),
  }),
);

const root = useTemplateRef('root');
defineExpose({ root });
</script>

<template>
  <article
    ref="root"
    class="folio"
    tabindex="0"
    :lang="folio.language"
    :aria-label="`${folio.title}, by ${work.student.name}`"
    :style="{ '--leaf-width': leafWidth ?? '100%', '--text-zoom': textZoom ?? 1 }"
  >
    <section
      v-for="(leaf, index) in folio.leaves"
      :key="index"
      class="leaf"
      :class="[leaf.kind, { roomy: roomy && leaf.kind !== 'sound' }]"
      :data-leaf="index"
      :aria-label="several ? leaf.label : undefined"
    >
      <p v-if="fileBegins(leaf, index)" class="file" :data-name="folio.files[leaf.file]!.name" />
      <component :is="LEAVES[leaf.kind]" :leaf="leaf" :index="index" />
      <InkLayer
        v-if="inked && isFlowing(leaf)"
        :index="index"
        :label="leaf.label"
        :words="leaf"
        :marks="marks"
        :focused="focused"
        :layout="cuts"
      />
    </section>
  </article>
</template>

<style scoped>
.folio {
  font-family: var(--serif);
  font-size: calc(17px * var(--text-zoom));
  line-height: 1.62;
}
.leaf {
  position: relative;
  scroll-margin: 52px;
}
/* Free paper to write on. */
.leaf.roomy {
  --beside: 190px;
}
.leaf.roomy:is(.text, .answer, .sheet),
.leaf.roomy :deep(.frame) {
  padding-right: var(--beside);
}
/* What is written beside a page must not be cut off with it. */
.leaf.roomy :deep(.frame > *) {
  overflow: visible;
}
.leaf.roomy::before {
  content: '';
  pointer-events: none;
  position: absolute;
  inset: 0 0 0 auto;
  width: calc(var(--beside) - 4px);
  background: var(--paper);
  border: 1px dashed var(--hairline);
}
.leaf + .leaf {
  margin-top: 20px;
}
.folio:focus-visible {
  outline: 1.5px solid var(--quiet);
  outline-offset: 5px;
}
.folio :deep(::selection) {
  background: color-mix(in srgb, #22201c 22%, transparent);
}
/* The name of a file is no part of the work's words: it is drawn, not selected. */
.file::before {
  content: attr(data-name);
  display: block;
  margin: 8px 0 6px;
  color: var(--quiet);
  font: 600 14px/1.4 var(--sans);
}
</style>
