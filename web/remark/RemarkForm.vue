<script setup lang="ts">
import type { Rubric } from '#core/grading';
import { mdiLinkVariant, mdiPaperclip, mdiTagOutline } from '@mdi/js';
import { computed, nextTick, onMounted, ref, useTemplateRef } from 'vue';
import { useSchool } from '../session/school.ts';
import FileInput from '../shell/FileInput.vue';
import { byteSize } from '../wording/format.ts';
import { linkOf, type Draft } from './draft.ts';

/** A remark as it is written: its text, and whatever else goes along. */
const props = defineProps<{
  rubric: Rubric;
  /** The words that a suggestion changes. */
  quote?: string | undefined;
  /** A remark that is there already cannot get another file. */
  existing?: boolean;
}>();
const emit = defineEmits<{ save: [file: File | undefined]; cancel: [] }>();
const draft = defineModel<Draft>({ required: true });

const schools = useSchool();

const text = useTemplateRef<{ focus: () => void }>('text');
const words = useTemplateRef<{ focus: () => void }>('words');
const file = ref<File>();
const problem = ref<string>();
const link = ref(draft.value.content.link ?? '');
const shows = ref({ link: link.value !== '', details: props.existing === true });
const suggests = computed(() => draft.value.content.suggestion !== null);

const set = (change: Partial<Draft['content']>): void => {
  draft.value = { ...draft.value, content: { ...draft.value.content, ...change } };
};

onMounted(async () => {
  await nextTick();
  (suggests.value ? words : text).value?.focus();
});

async function choose([chosen]: [File, ...File[]]): Promise<void> {
  problem.value = undefined;
  // Where the server cannot be asked now, it says so itself when the file arrives.
  const most = (await schools.load().catch(() => undefined))?.limits.fileBytes ?? Infinity;
  if (chosen.size > most) problem.value = `${chosen.name} is larger than ${byteSize(most)}.`;
  else if (chosen.size === 0) problem.value = `${chosen.name} is empty (0 bytes).`;
  else file.value = chosen;
}

function save(): void {
  const address = linkOf(link.value);
  const { text, suggestion, reaction, stamp } = draft.value.content;
  if (address === undefined)
    problem.value = 'That is not a web address. A web address looks like https://example.org/page.';
  else if (suggestion !== null && suggestion === props.quote)
    problem.value = 'These are still the student’s words. Change them, or press Escape.';
  else if (!props.existing && !text.trim() && !address && !file.value && suggestion === null && !reaction && !stamp)
    problem.value = 'Write something first, or press Escape.';
  else {
    set({ link: address, text: text.trim() });
    emit('save', file.value);
  }
}
</script>

<template>
  <form
    class="form"
    aria-label="Remark"
    novalidate
    @submit.prevent="save"
    @keydown.ctrl.enter.prevent="save"
    @keydown.meta.enter.prevent="save"
    @keydown.esc.stop="$emit('cancel')"
  >
    <v-textarea
      v-if="suggests"
      ref="words"
      label="Your wording"
      class="suggestion"
      maxlength="5000"
      :model-value="draft.content.suggestion"
      @update:model-value="set({ suggestion: $event })"
    />
    <v-textarea
      ref="text"
      :label="suggests ? 'Why, if you wish' : 'Write your remark'"
      maxlength="20000"
      :model-value="draft.content.text"
      @update:model-value="set({ text: $event })"
    />
    <v-text-field
      v-if="shows.link"
      v-model="link"
      label="Link"
      type="url"
      inputmode="url"
      density="compact"
      placeholder="https://"
    />
    <template v-if="shows.details">
      <v-text-field
        label="Name of this remark"
        maxlength="80"
        density="compact"
        :model-value="draft.content.name"
        @update:model-value="set({ name: $event })"
      />
      <v-combobox
        label="Tags"
        multiple
        chips
        closable-chips
        hide-details
        variant="outlined"
        density="compact"
        :model-value="draft.content.tags"
        @update:model-value="
          set({
            tags: $event
              .map((tag: string) => tag.trim().slice(0, 40))
              .filter(Boolean)
              .slice(0, 20),
          })
        "
      />
      <v-select
        label="Criterion"
        clearable
        item-title="title"
        item-value="id"
        :items="rubric"
        :model-value="draft.content.criterion"
        @update:model-value="set({ criterion: $event ?? null })"
      />
    </template>
    <p v-if="file" class="file">{{ file.name }}, {{ byteSize(file.size) }}</p>
    <p v-if="problem" class="refused" role="alert">{{ problem }}</p>
    <div class="row">
      <v-checkbox
        class="private"
        label="Private"
        :model-value="draft.content.private"
        @update:model-value="set({ private: $event === true })"
      />
      <v-btn
        :icon="mdiLinkVariant"
        size="30"
        aria-label="Add a link"
        title="Link"
        :aria-expanded="shows.link"
        @click="shows.link = !shows.link"
      />
      <FileInput v-if="!existing" v-slot="{ open }" label="File" @choose="choose">
        <v-btn :icon="mdiPaperclip" size="30" aria-label="Attach a file" title="File" @click="open" />
      </FileInput>
      <v-btn
        :icon="mdiTagOutline"
        size="30"
        aria-label="Name, tags and criterion"
        title="Name, tags, criterion"
        :aria-expanded="shows.details"
        @click="shows.details = !shows.details"
      />
      <v-btn class="keep" type="submit" size="small" variant="flat" color="primary">Keep</v-btn>
    </div>
  </form>
</template>

<style scoped>
.form {
  display: grid;
  gap: 8px;
  margin-top: 6px;
}
.suggestion :deep(textarea) {
  font-family: var(--serif);
}
.row {
  display: flex;
  align-items: center;
  gap: 2px;
}
.keep {
  margin-left: auto;
}
.file {
  color: var(--quiet);
  font-size: 13px;
  overflow-wrap: anywhere;
}
.refused {
  font-size: 13px;
}
</style>
