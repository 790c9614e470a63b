<script setup lang="ts">
import { isTextBlock, pieces, type Block, type Piece, type Stretch, type TextBlock } from '#core/folio';
import { urlOf } from '#contract/endpoint';
import { workPicture } from '#contract/submissions';
import { computed, type CSSProperties } from 'vue';
import { stable } from './stable.ts';
import { useFolio } from './folio-context.ts';
import PieceText from './PieceText.vue';

const props = defineProps<{ block: Block; starts: ReadonlyMap<TextBlock, number> }>();

const folio = useFolio();
const start = computed(() => (isTextBlock(props.block) ? props.starts.get(props.block)! : 0));
/** What cuts this block: the others are not cut anew for it. */
const cuts = computed((before?: readonly Stretch[]) => {
  if (!isTextBlock(props.block)) return [];
  const end = start.value + props.block.runs.reduce((length, { text }) => length + text.length, 0);
  const own = folio.cuts.filter((cut) => cut.start < end && cut.end > start.value);
  return stable(before, own, (a, b) => a === b);
});
const parts = computed((before?: readonly Piece[]) =>
  isTextBlock(props.block) ? stable(before, pieces(props.block.runs, start.value, cuts.value), samePiece) : [],
);
const samePiece = (a: Piece, b: Piece): boolean =>
  a.start === b.start &&
  a.text === b.text &&
  a.note === b.note &&
  a.marks === b.marks &&
  a.covering.join(' ') === b.covering.join(' ');
const element = computed(() => (props.block.type === 'heading' ? `h${Math.min(6, props.block.level + 1)}` : 'p'));
const marker = computed(() => ('marker' in props.block ? props.block.marker : undefined));
const style = computed((): CSSProperties => {
  if (!isTextBlock(props.block)) return {};
  const { block } = props;
  return {
    ...(block.type === 'item' && { '--depth': block.depth }),
    ...(block.align && { textAlign: block.align }),
    ...(block.direction && { direction: block.direction }),
  } as CSSProperties;
});
</script>

<template>
  <table v-if="block.type === 'table'" :class="{ measured: block.widths }">
    <colgroup v-if="block.widths">
      <col v-for="(width, column) in block.widths" :key="column" :style="{ width: `${width * 100}%` }" />
    </colgroup>
    <tbody>
      <tr v-for="(row, rowIndex) in block.rows" :key="rowIndex">
        <component
          :is="cell.header ? 'th' : 'td'"
          v-for="(cell, cellIndex) in row"
          :key="cellIndex"
          :colspan="cell.columns"
          :rowspan="cell.rows"
          :style="cell.fill && { backgroundColor: cell.fill }"
        >
          <FolioBlock v-for="(inner, index) in cell.blocks" :key="index" :block="inner" :starts="starts" />
        </component>
      </tr>
    </tbody>
  </table>
  <figure v-else-if="block.type === 'picture'">
    <img
      :src="urlOf(workPicture, { submission: folio.submission, position: String(block.picture) })"
      :alt="block.alt || 'Picture of the work, without a description'"
    />
  </figure>
  <component
    :is="element"
    v-else
    :class="[block.type, block.role, block.type === 'heading' && `level-${block.level}`]"
    :role="block.role === 'quotation' && block.type === 'paragraph' ? 'blockquote' : undefined"
    :style="style"
  >
    <span v-if="marker" class="marker" :data-marker="marker" /><PieceText
      v-for="piece in parts"
      :key="`${piece.start} ${piece.note}`"
      :piece="piece"
    />
  </component>
</template>

<style scoped>
p,
h2,
h3,
h4,
h5,
h6 {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
p {
  min-height: 0.6em;
  margin-bottom: 0.85em;
}
.heading {
  font-weight: 560;
  line-height: 1.25;
  margin: 1.3em 0 0.5em;
}
.level-1 {
  font-size: 1.65em;
  margin-top: 0;
}
.level-2 {
  font-size: 1.2em;
}
.item {
  position: relative;
  margin-inline-start: calc(2em + var(--depth) * 1.6em);
  margin-bottom: 0.35em;
}
.quotation {
  margin-inline: 1.4em;
  padding-inline-start: 1em;
  border-inline-start: 2px solid var(--hairline);
}
/* Paragraphs of one quotation have one line beside them. */
.quotation + .quotation {
  margin-top: -0.85em;
  padding-top: 0.85em;
}
.item.quotation {
  margin-inline-start: calc(3.4em + var(--depth) * 1.6em);
  border-inline-start: 0;
}
.caption {
  color: var(--quiet);
  font-size: 0.88em;
}
/* Numbering is not writing: it is drawn, not selected. */
.marker::before {
  content: attr(data-marker);
  white-space: nowrap;
  position: absolute;
  inset-inline-end: calc(100% + 0.5em);
  color: var(--quiet);
}
.heading > .marker::before {
  position: static;
  margin-inline-end: 0.5em;
}
table {
  width: 100%;
  border-collapse: collapse;
  margin: 0.6em 0 1.4em;
  font-size: 0.9em;
}
.measured {
  table-layout: fixed;
}
td,
th {
  border: 1px solid var(--hairline);
  padding: 0.4em 0.6em;
  text-align: start;
  vertical-align: top;
}
/* An empty line in a cell is as high as any other: what stands in the cell beside it stays level. */
td > :is(p, .heading),
th > :is(p, .heading) {
  min-height: 1lh;
  margin-block: 0;
}
td > .heading,
th > .heading {
  font-size: 1em;
  line-height: inherit;
}
figure {
  margin: 1em 0;
}
img {
  max-width: 100%;
  height: auto;
  background: #fff;
}
</style>
