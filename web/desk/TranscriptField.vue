<script setup lang="ts">
import type { Transcript } from '#core/transcript';
import { nextTick, ref, useTemplateRef } from 'vue';

/** The words of a remark: read in place, mended in place. */
const props = defineProps<{ transcript: Transcript | null }>();
const emit = defineEmits<{ mend: [text: string] }>();

const draft = ref<string>();
const field = useTemplateRef<{ focus: () => void }>('field');

async function edit(): Promise<void> {
  draft.value = props.transcript?.text ?? '';
  await nextTick();
  field.value?.focus();
}

function save(): void {
  const text = draft.value?.trim();
  draft.value = undefined;
  if (text !== undefined && text !== (props.transcript?.text ?? '')) emit('mend', text);
}
</script>

<template>
  <v-textarea
    v-if="draft !== undefined"
    ref="field"
    v-model="draft"
    class="field"
    aria-label="Transcript"
    maxlength="20000"
    @blur="save"
    @keydown.ctrl.enter="save"
    @keydown.meta.enter="save"
    @keydown.esc.stop="draft = undefined"
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
