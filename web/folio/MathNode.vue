<script setup lang="ts">
import type { MathNode } from '#core/folio';
import { h, type FunctionalComponent, type VNode } from 'vue';

/** An equation, drawn by the browser as MathML. */
const props = defineProps<{ math: MathNode }>();

const draw = ({ element, attributes, children }: MathNode): VNode =>
  h(
    element,
    attributes,
    children.map((child) => (typeof child === 'string' ? child : draw(child))),
  );

const Drawn: FunctionalComponent = () => draw(props.math);
</script>

<template><Drawn /></template>
