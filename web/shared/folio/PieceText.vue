<script setup lang="ts">
import type { Piece } from '#core/folio';
import { computed, h, type CSSProperties, type FunctionalComponent, type VNode } from 'vue';
import { useFolio } from './folio-context.ts';
import MathNode from './MathNode.vue';

/** Characters of one look under the same remarks. Each remark draws its own line, one below the other. */
const props = defineProps<{ piece: Piece }>();

const folio = useFolio();
const covering = computed(() => folio.stretches.filter(({ id }) => props.piece.covering.includes(id)));
const picked = computed(() => covering.value.find(({ id }) => id === folio.focused) ?? covering.value.at(-1));
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
    :class="[`kind-${picked.kind}`, piece.marks, { focused: picked.id === folio.focused }]"
    :style="style"
    :data-start="piece.start"
    :data-remarks="piece.covering.join(' ')"
    @click="folio.pick(picked.id)"
    ><Words
  /></mark>
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
mark.focused {
  background: color-mix(in srgb, var(--kind) 24%, transparent);
}
</style>
