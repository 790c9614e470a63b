<script setup lang="ts">
import type { Piece } from '#core/folio';
import { computed, h, type CSSProperties, type FunctionalComponent, type VNode } from 'vue';
import { stable } from './stable.ts';
import { useFolio, type DrawnEdit, type DrawnStretch } from './folio-context.ts';
import MathNode from './MathNode.vue';
import StampDrawing from './StampDrawing.vue';

/** Characters of one look under the same remarks. Each remark draws its own line, one below the other. */
const props = defineProps<{ piece: Piece }>();

const folio = useFolio();
const identical = <T,>(a: T, b: T): boolean => a === b;
const ids = computed(() => [...new Set(props.piece.covering)]);
const covering = computed((before?: readonly DrawnStretch[]) =>
  stable(
    before,
    ids.value.flatMap((id) => folio.stretches.get(id) ?? []),
    identical,
  ),
);
const focused = computed(() => covering.value.find(({ id }) => id === folio.focused));
const picked = computed(() => focused.value ?? covering.value.at(-1));
const end = computed(() => props.piece.start + props.piece.text.length);
const edits = computed((before?: readonly DrawnEdit[]) =>
  stable(
    before,
    ids.value.flatMap((id) => folio.edits.get(id) ?? []),
    identical,
  ),
);
const struck = computed(() => edits.value.some((edit) => edit.struck));
const putBefore = computed(() => edits.value.find((edit) => edit.before && edit.start === props.piece.start)?.before);
const putAfter = computed(() => edits.value.find((edit) => edit.after && edit.end === end.value)?.after);
const stamped = computed(() =>
  covering.value.flatMap(({ id, kind, stamp, start }) =>
    stamp && start === props.piece.start ? [{ id, kind, stamp }] : [],
  ),
);
const reactions = computed(() =>
  covering.value.flatMap((stretch) => (stretch.end === end.value ? (stretch.reaction ?? []) : [])).join(''),
);
const others = computed(() => covering.value.filter((stretch) => stretch !== picked.value));
const style = computed((): CSSProperties => {
  const { size, color } = props.piece.look ?? {};
  return { ...(size !== undefined && { fontSize: `calc(${size} * var(--point))` }), ...(color && { color }) };
});

/** The words, wrapped once for each further remark, so that every remark draws its own line below the one before. */
const Words: FunctionalComponent = () => {
  const { link, math, text } = props.piece;
  const inner = math
    ? h(MathNode, { math })
    : link
      ? h('a', { href: link, target: '_blank', rel: 'noopener noreferrer' }, text)
      : text;
  return others.value.reduceRight<VNode | string>(
    (wrapped, { kind }, depth) =>
      h('span', { class: ['layer', `kind-${kind}`], style: { textUnderlineOffset: `${8 + depth * 4}px` } }, [wrapped]),
    inner,
  );
};
</script>

<template>
  <mark
    v-if="picked"
    :class="[`kind-${picked.kind}`, piece.marks, { focused: picked === focused, struck, inked: picked.inked }]"
    :style="style"
    :data-start="piece.start"
    :data-remarks="covering.map(({ id }) => id).join(' ')"
    @click="folio.pick(picked.id)"
    ><span v-if="putBefore" class="put-in" aria-hidden="true" :data-text="putBefore" /><Words /><span
      v-if="putAfter"
      class="put-in"
      aria-hidden="true"
      :data-text="putAfter" /><span v-if="reactions" class="reactions" aria-hidden="true" :data-text="reactions" /><span
      v-for="one in stamped"
      :key="one.id"
      class="stamp"
      :class="`kind-${one.kind}`"
      :style="{ '--size': one.stamp.size }"
      ><StampDrawing :stamp="one.stamp" :remark="one.id" /></span
  ></mark>
  <sup v-else-if="piece.note" class="note" :data-note="piece.note" :aria-label="`Note ${piece.note}`" />
  <span v-else :class="piece.marks" :style="style" :data-start="piece.start"><Words /></span>
</template>

<style scoped>
.bold {
  font-weight: 680;
}
.italic {
  font-style: italic;
}
.underline {
  text-decoration: underline;
}
.strike {
  text-decoration: line-through;
}
.code {
  font-family: ui-monospace, 'DejaVu Sans Mono', Menlo, Consolas, monospace;
  font-size: 0.92em;
  white-space: pre-wrap;
}
.superscript {
  vertical-align: super;
  font-size: 0.75em;
}
.subscript {
  vertical-align: sub;
  font-size: 0.75em;
}
/* Numbering is not writing: it is drawn, not selected. */
.note::before {
  content: attr(data-note);
  font-size: 0.75em;
}
mark,
mark :deep(.layer) {
  color: inherit;
  text-decoration: underline var(--kind-line) var(--kind) 2px;
  text-underline-offset: 4px;
  text-decoration-skip-ink: none;
}
mark {
  background: color-mix(in srgb, var(--kind) 9%, transparent);
  cursor: pointer;
}
mark.struck {
  color: var(--quiet);
  text-decoration: line-through 2px var(--kind);
}
/* What is put in is not the student's writing: it is drawn, not selected. */
.put-in::after {
  content: attr(data-text);
  color: var(--kind);
  font-weight: 600;
  text-decoration: none;
}
.put-in,
.reactions {
  display: inline-block;
  text-decoration: none;
  white-space: pre-wrap;
}
.reactions::after {
  content: attr(data-text);
  margin-left: 2px;
  font-family: var(--emoji);
  font-size: 0.95em;
}
/* In the white beside the lines, level with the first of its words. */
.stamp {
  position: absolute;
  right: -6px;
  width: calc(var(--size) * 1em);
  height: calc(var(--size) * 1em);
  margin-top: calc(var(--size) * -0.25em);
}
mark.inked {
  text-decoration: none;
  background: none;
}
mark.focused {
  background: color-mix(in srgb, var(--kind) 24%, transparent);
}
</style>
