<script setup lang="ts">
import { readColleagues, type BankedChange, type BankedRemark } from '#contract/bank';
import { storeToRefs } from 'pinia';
import { computed } from 'vue';
import { call } from '../session/api.ts';
import { useCourses } from '../session/courses.ts';
import { useLoaded } from '../shell/use-loaded.ts';

/** With whom a banked remark is shared, and whether in one's own voice. */
const props = defineProps<{ remark: BankedRemark }>();
const emit = defineEmits<{ change: [change: BankedChange] }>();

const { courses, known } = storeToRefs(useCourses());
const { value: colleagues } = useLoaded(() => call(readColleagues));

/**
 * Courses and people in one list, told apart by what stands before their id. There is none before both are known: it would grow
 * under the hand of whoever chooses from it.
 */
const choices = computed(() =>
  colleagues.value && known.value
    ? [
        ...courses.value.map(({ id, title }) => ({ value: `course ${id}`, title: `Everybody who teaches ${title}` })),
        ...colleagues.value.map(({ id, name }) => ({ value: `person ${id}`, title: name })),
      ]
    : undefined,
);
const chosen = computed(() => [
  ...props.remark.shared.courses.map((id) => `course ${id}`),
  ...props.remark.shared.people.map((id) => `person ${id}`),
]);
const idsOf = (values: readonly string[], what: string): string[] =>
  values.filter((value) => value.startsWith(`${what} `)).map((value) => value.slice(what.length + 1));
const share = (values: readonly string[]): void =>
  emit('change', { shared: { courses: idsOf(values, 'course'), people: idsOf(values, 'person') } });
</script>

<template>
  <v-select
    label="Shared with"
    multiple
    chips
    closable-chips
    :items="choices ?? []"
    :loading="!choices"
    :model-value="chosen"
    :no-data-text="choices ? 'There is nobody else yet' : 'One moment …'"
    @update:model-value="share"
  />
  <v-checkbox
    v-if="chosen.length > 0 && remark.recording"
    :model-value="remark.lendsVoice"
    label="They may use it in my voice"
    @update:model-value="emit('change', { lendsVoice: $event === true })"
  />
</template>
