<script setup lang="ts">
import type { BankedRemark } from '#contract/bank';
import { computed } from 'vue';

/** Marks on its words where a name is said in the middle of a banked remark. */
const props = defineProps<{ remark: BankedRemark }>();
const emit = defineEmits<{ gap: [gap: number | null] }>();

const words = computed(() => props.remark.recording?.transcript?.words ?? []);
</script>

<template>
  <section aria-label="Where a name is said">
    <p class="fine">
      {{
        remark.gap === null
          ? 'A greeting is put before it. Press a word to have the name said just before that word instead.'
          : 'The name is said at the mark. Press the word again to have the greeting before all of it.'
      }}
    </p>
    <p class="words" :lang="remark.language" dir="auto">
      <template v-for="(word, index) in words" :key="index"
        ><button
          v-if="index > 0"
          type="button"
          class="word"
          :class="{ gap: index === remark.gap }"
          :aria-pressed="index === remark.gap"
          @click="emit('gap', index === remark.gap ? null : index)"
        >
          <span v-if="index === remark.gap" class="mark">name</span>{{ word.word }}</button
        ><span v-else>{{ word.word }}</span
        >{{ ' ' }}</template
      >
    </p>
  </section>
</template>

<style scoped>
.words {
  line-height: 1.7;
}
.word:hover {
  background: var(--ground);
}
.mark {
  margin-inline-end: 4px;
  padding: 0 6px;
  font-size: 12px;
  border: 1px dashed var(--ink);
  border-radius: 8px;
}
</style>
