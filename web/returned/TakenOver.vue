<script setup lang="ts">
import { withSuggestions } from '#core/anchor';
import type { Remark } from '#contract/remarks';
import type { Work } from '#contract/submissions';
import { useClipboard } from '@vueuse/core';
import { computed } from 'vue';

/** Suggestions that were taken over, and the text as it reads with them, for the next version. */
const props = defineProps<{ work: Work; remarks: readonly Remark[] }>();

const taken = computed(() => props.remarks.filter(({ takenAt }) => takenAt !== null));
const { copy, copied } = useClipboard({ legacy: true, copiedDuring: 4000 });
</script>

<template>
  <p v-if="taken.length > 0" class="taken">
    {{ taken.length === 1 ? '1 suggestion is taken over.' : `${taken.length} suggestions are taken over.` }}
    <v-btn size="x-small" variant="outlined" @click="copy(withSuggestions(work.folio.text, taken))">
      {{ copied ? 'Copied' : 'Copy the text with them' }}
    </v-btn>
  </p>
</template>

<style scoped>
.taken {
  margin-bottom: 10px;
  color: var(--quiet);
  font-size: 14px;
}
</style>
