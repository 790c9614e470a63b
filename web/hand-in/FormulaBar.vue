<script setup lang="ts">
import { computed, ref } from 'vue';
import { mathOf } from './typed-html.ts';

/** A formula while it is being written. */
const props = defineProps<{ latex: string }>();
const emit = defineEmits<{ done: [latex: string]; close: [] }>();

const latex = ref(props.latex);
const drawn = computed(() => (latex.value.trim() ? mathOf(latex.value, false) : ''));
</script>

<template>
  <form class="formula" @submit.prevent="emit('done', latex.trim())" @keydown.esc.stop="emit('close')">
    <v-text-field
      v-model="latex"
      density="compact"
      aria-label="Formula, written as in LaTeX"
      placeholder="As in LaTeX: \frac{1}{2} m v^2"
      maxlength="2000"
      autofocus
    />
    <!-- Made by KaTeX from text: nothing in it can run. -->
    <!-- eslint-disable-next-line vue/no-v-html -->
    <span class="drawn" aria-hidden="true" v-html="drawn" />
    <v-btn type="submit" variant="flat" color="primary" size="small" :disabled="!latex.trim()">Put it in</v-btn>
    <v-btn size="small" @click="emit('close')">Leave it</v-btn>
  </form>
</template>

<style scoped>
.formula {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
  padding: 8px 0;
}
.formula > :first-child {
  flex: 1 1 260px;
}
.drawn {
  min-width: 60px;
  font-size: 19px;
}
</style>
