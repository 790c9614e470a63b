<script setup lang="ts">
import { useTemplateRef } from 'vue';
import { useMarginKey } from '../feedback/margin-key.ts';
import LanguagePick from '../transcript/LanguagePick.vue';
import type { KeepDraft } from './keep-draft.ts';

/** What is said of a banked remark: name, description, kind, criterion, tags, and its text. */
defineProps<{
  /** Titles to choose from; others can be typed. */
  criteria: readonly string[];
  tags?: readonly string[];
  /** Its transcript says in which language. */
  spoken?: boolean;
}>();
const draft = defineModel<KeepDraft>({ required: true });

const margin = useMarginKey();
const name = useTemplateRef<{ focus: () => void }>('name');
const set = (change: Partial<KeepDraft>): void => void (draft.value = { ...draft.value, ...change });

defineExpose({ focus: () => name.value?.focus() });
</script>

<template>
  <div class="fields">
    <v-text-field
      ref="name"
      label="Name"
      density="compact"
      maxlength="80"
      :model-value="draft.name"
      @update:model-value="set({ name: $event })"
    />
    <v-textarea
      label="Description, to find it by"
      density="compact"
      rows="1"
      auto-grow
      maxlength="2000"
      :model-value="draft.description"
      @update:model-value="set({ description: $event })"
    />
    <v-select
      label="Kind"
      density="compact"
      :items="margin.key.value.map(({ kind, name: title, glyph }) => ({ value: kind, title: `${glyph} ${title}` }))"
      :model-value="draft.kind"
      @update:model-value="set({ kind: $event })"
    />
    <v-combobox
      label="Criterion"
      density="compact"
      clearable
      :items="[...criteria]"
      :model-value="draft.criterion"
      @update:model-value="set({ criterion: typeof $event === 'string' ? $event : '' })"
    />
    <v-combobox
      label="Tags"
      density="compact"
      multiple
      chips
      closable-chips
      :items="[...(tags ?? [])]"
      :model-value="draft.tags"
      @update:model-value="set({ tags: ($event as string[]).map((tag) => tag.trim().slice(0, 40)).filter(Boolean) })"
    />
    <v-textarea
      v-if="draft.text || !draft.name"
      label="Text"
      density="compact"
      rows="2"
      auto-grow
      :model-value="draft.text"
      @update:model-value="set({ text: $event })"
    />
    <LanguagePick
      v-if="!spoken"
      label="Language"
      none="My own"
      :model-value="draft.language"
      @update:model-value="set({ language: $event })"
    />
  </div>
</template>

<style scoped>
.fields {
  display: grid;
  gap: 10px;
  margin-top: 10px;
}
</style>
