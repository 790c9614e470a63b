<script setup lang="ts">
import { COMMON_LANGUAGES } from './language.ts';
import LanguageSelect from './LanguageSelect.vue';

/** A language that is spoken. */
defineProps<{
  label: string;
  /** What stands for no choice of one's own. */
  none?: string;
}>();
const language = defineModel<string | null>({ required: true });
</script>

<template>
  <LanguageSelect
    class="pick"
    :label="label"
    v-bind="none === undefined ? {} : { none }"
    :languages="[...new Set([...(language ? [language] : []), ...COMMON_LANGUAGES])]"
    :model-value="language ?? ''"
    @update:model-value="language = $event || null"
  />
</template>

<style scoped>
.pick {
  max-width: 26rem;
  margin-top: 12px;
}
</style>
