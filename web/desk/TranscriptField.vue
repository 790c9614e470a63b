<script setup lang="ts">
import type { Transcript } from '#core/transcript';
import { StorageSerializers, useLocalStorage } from '@vueuse/core';
import { nextTick, useTemplateRef } from 'vue';

/** The words of a remark: read in place, mended in place. */
const props = defineProps<{ remark: string; transcript: Transcript | null }>();
const emit = defineEmits<{ mend: [text: string] }>();

/** What is being typed; in the browser's storage, so that a closed tab loses nothing. Null while nobody types. */
const draft = useLocalStorage<string | null>(`transcript:${props.remark}`, null, {
  serializer: StorageSerializers.object,
});
const field = useTemplateRef<{ focus: () => void }>('field');

async function edit(): Promise<void> {
  draft.value = props.transcript?.text ?? '';
  await nextTick();
  field.value?.focus();
}

function save(): void {
  const text = draft.value?.trim();
  draft.value = null;
  if (text !== undefined && text !== (props.transcript?.text ?? '')) emit('mend', text);
}
</script>

<template>
  <v-textarea
    v-if="draft !== null"
    ref="field"
    v-model="draft"
    class="field"
    aria-label="Transcript"
    maxlength="20000"
    @blur="save"
    @keydown.ctrl.enter="save"
    @keydown.meta.enter="save"
    @keydown.esc.stop="draft = null"
  />
  <button v-else type="button" class="words" :class="{ draft: transcript?.source === 'machine' }" @click.stop="edit">
    <template v-if="transcript?.text">
      <span class="visually-hidden">Mend the transcript: </span>{{ transcript.text }}
      <span v-if="transcript.source === 'machine'" class="tag">draft, not read yet</span>
    </template>
    <span v-else class="none">No transcript yet. Write it</span>
  </button>
</template>

<style scoped>
.words {
  display: block;
  width: 100%;
  margin-top: 4px;
  text-align: start;
  line-height: 1.4;
  border-radius: 3px;
  cursor: text;
  overflow-wrap: anywhere;
}
.draft {
  font-style: italic;
}
.tag,
.none {
  color: var(--quiet);
  font-size: 13px;
}
.none {
  text-decoration: underline dotted;
}
.field {
  margin-top: 6px;
}
</style>
