<script setup lang="ts">
import dataUrl from 'emoji-picker-element-data/en/cldr/data.json?url';
import { onMounted, useTemplateRef } from 'vue';
import SidePanel from '../../shell/SidePanel.vue';

/** All emoji, to react with one. */
const emit = defineEmits<{ close: []; react: [emoji: string] }>();

const place = useTemplateRef('place');

onMounted(async () => {
  const { Picker } = await import('emoji-picker-element');
  const picker = new Picker({ dataSource: dataUrl, locale: 'en', emojiVersion: 15 });
  picker.addEventListener('emoji-click', ({ detail }) => detail.unicode && emit('react', detail.unicode));
  place.value?.append(picker);
});
</script>

<template>
  <SidePanel title="Reactions" @close="$emit('close')">
    <div ref="place" class="place" />
  </SidePanel>
</template>

<style scoped>
.place :deep(emoji-picker) {
  width: 100%;
  height: min(520px, 70vh);
  margin-top: 8px;
  --background: var(--paper);
  --border-color: var(--hairline);
  --input-border-color: var(--quiet);
  --input-font-color: var(--ink);
  --indicator-color: var(--ink);
  --num-columns: 6;
  --emoji-font-family: var(--emoji);
}
</style>
