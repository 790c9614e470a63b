<script setup lang="ts">
import type { Flag } from '#core/grading';
import { setStanding } from '#contract/assignments';
import type { Standing } from '#contract/grading';
import { ref, watch } from 'vue';
import { call } from '../session/api.ts';
import { useDeed } from '../shell/use-deed.ts';
import { fromLocal, ownZone, toLocal } from '../wording/local-time.ts';
import { FLAGS } from '../wording/standing.ts';

/** A flag and more time for one student in one assignment. Each is saved when it is chosen. */
const props = defineProps<{
  assignment: string;
  student: { id: string; name: string };
  standing: Standing;
  /** Who was given more time would tell whose a nameless work is. */
  nameless?: boolean;
}>();
const emit = defineEmits<{ changed: [standing: Standing] }>();

const CHOICES = [
  { title: 'no flag', value: null },
  ...(Object.keys(FLAGS) as Flag[]).map((value) => ({ title: FLAGS[value], value })),
];

const localOf = ({ extendedUntil }: Standing): string => (extendedUntil ? toLocal(extendedUntil) : '');
const until = ref(localOf(props.standing));
const { problem, attempt } = useDeed();
watch(
  () => props.standing,
  (now) => (until.value = localOf(now)),
);

async function set(change: Partial<Standing>): Promise<void> {
  await attempt(async () => {
    const params = { assignment: props.assignment, student: props.student.id };
    emit('changed', await call(setStanding, { params, body: { ...props.standing, ...change } }));
  });
}

function leaveUntil(): void {
  const instant = until.value === '' ? null : fromLocal(until.value);
  if (instant === undefined)
    problem.value = 'The clocks go forward in that hour, so it does not exist. Choose another one.';
  else if (instant !== props.standing.extendedUntil) void set({ extendedUntil: instant });
}
</script>

<template>
  <div class="standing">
    <v-select
      :model-value="standing.flag"
      :items="CHOICES"
      density="compact"
      hide-details
      :label="`Flag for ${student.name}`"
      @update:model-value="set({ flag: $event })"
    />
    <v-text-field
      v-if="!nameless"
      v-model="until"
      type="datetime-local"
      density="compact"
      :label="`More time for ${student.name}`"
      :hint="`Time zone: ${ownZone()}`"
      @blur="leaveUntil"
      @keydown.enter="leaveUntil"
    />
    <p v-if="problem" class="refused" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
.standing {
  display: grid;
  gap: 10px;
}
.refused {
  font-size: 13px;
}
</style>
