<script setup lang="ts">
import { wordChanges } from '#core/anchor';
import { computed } from 'vue';

/** The old and the new passage side by side, with what changed between them word by word. */
const props = defineProps<{ before: string; after: string }>();

const changes = computed(() => wordChanges(props.before, props.after));
const old = computed(() => changes.value.filter(({ type }) => type !== 'new'));
const now = computed(() => changes.value.filter(({ type }) => type !== 'struck'));
</script>

<template>
  <div class="uptake">
    <section>
      <h3>Before</h3>
      <p>
        <component :is="type === 'struck' ? 'del' : 'span'" v-for="({ type, text }, index) in old" :key="index">{{
          text
        }}</component>
      </p>
    </section>
    <section>
      <h3>Now</h3>
      <p>
        <component :is="type === 'new' ? 'ins' : 'span'" v-for="({ type, text }, index) in now" :key="index">{{
          text
        }}</component>
      </p>
    </section>
  </div>
</template>

<style scoped>
.uptake {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(120px, 1fr));
  gap: 10px;
  margin-top: 8px;
  padding-top: 8px;
  border-top: 1px solid var(--hairline);
}
h3 {
  color: var(--quiet);
  font-weight: 400;
  font-size: 13px;
}
p {
  font-family: var(--serif);
  font-size: 14px;
  line-height: 1.5;
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
del {
  color: var(--quiet);
  text-decoration: line-through 1.5px;
}
ins {
  font-weight: 650;
  text-decoration: none;
  background: color-mix(in srgb, var(--ink) 12%, transparent);
}
</style>
