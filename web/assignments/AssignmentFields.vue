<script setup lang="ts">
import { formatHundredths, parseHundredths } from '#core/grading';
import { FileFormat } from '#contract/folio';
import { setAssignment, type AssignmentChange, type AssignmentOverview } from '#contract/assignments';
import { ref, watch } from 'vue';
import { call } from '../session/api.ts';
import ToldNote from '../shell/ToldNote.vue';
import { useTold } from '../shell/use-told.ts';
import { fromLocal, ownZone, toLocal } from '../wording/local-time.ts';

/** What an assignment asks for, and by when. Each field is saved when one leaves it. */
const props = defineProps<{ overview: AssignmentOverview }>();
const emit = defineEmits<{ changed: [] }>();

const dueOf = ({ dueAt }: AssignmentOverview): string => (dueAt ? toLocal(dueAt) : '');
const title = ref('');
const brief = ref('');
const due = ref('');
const category = ref('');
const weight = ref('');
const weightWrong = ref(false);
const FORMATS = [...FileFormat.options];
const ATTEMPTS = [
  { title: 'as often as one likes', value: null },
  ...[1, 2, 3, 5].map((times) => ({ title: times === 1 ? 'once' : `${times} times`, value: times })),
];
const weightOf = ({ weight: share }: AssignmentOverview): string => (share === null ? '' : formatHundredths(share));
const { told, attempt } = useTold();
const dueWrong = ref<string>();
watch(
  () => props.overview,
  (now, before) => {
    // What is being typed meanwhile stays.
    if (!before || title.value === before.title) title.value = now.title;
    if (!before || brief.value === before.brief) brief.value = now.brief;
    if (!before || due.value === dueOf(before)) due.value = dueOf(now);
    if (!before || category.value === before.category) category.value = now.category;
    if (!before || weight.value === weightOf(before)) weight.value = weightOf(now);
  },
  { immediate: true },
);

const set = (change: AssignmentChange): Promise<void> =>
  attempt(async () => {
    await call(setAssignment, { params: { assignment: props.overview.id }, body: change });
    emit('changed');
    return 'Saved.';
  });

function leaveTitle(): void {
  const next = title.value.trim();
  if (next === '') title.value = props.overview.title;
  else if (next !== props.overview.title) void set({ title: next });
}

function leaveBrief(): void {
  if (brief.value.trim() !== props.overview.brief) void set({ brief: brief.value });
}

function leaveCategory(): void {
  if (category.value.trim() !== props.overview.category) void set({ category: category.value });
}

function leaveWeight(): void {
  const share = weight.value.trim() === '' ? null : parseHundredths(weight.value);
  weightWrong.value = share === undefined || (share !== null && (share < 0 || share > 100_00));
  if (share !== undefined && !weightWrong.value && share !== props.overview.weight) void set({ weight: share });
}

function leaveDue(): void {
  const instant = due.value === '' ? null : fromLocal(due.value);
  dueWrong.value =
    instant === undefined ? 'The clocks go forward in that hour, so it does not exist. Choose another one.' : undefined;
  if (instant !== undefined && instant !== props.overview.dueAt) void set({ dueAt: instant });
}
</script>

<template>
  <section class="fields" aria-label="What is asked">
    <v-text-field
      v-model="title"
      label="Title"
      density="compact"
      maxlength="200"
      @blur="leaveTitle"
      @keydown.enter="leaveTitle"
    />
    <v-textarea v-model="brief" label="Written instructions" rows="2" maxlength="20000" @blur="leaveBrief" />
    <div class="row">
      <v-text-field
        v-model="due"
        class="due"
        type="datetime-local"
        label="Due"
        density="compact"
        :hint="`Time zone: ${ownZone()}`"
        persistent-hint
        :error-messages="dueWrong ? [dueWrong] : []"
        @blur="leaveDue"
        @keydown.enter="leaveDue"
      />
      <v-btn v-if="due" size="small" @click="((due = ''), leaveDue())">No due date</v-btn>
    </div>
    <p class="row">
      <template v-if="overview.open">
        <span>Students see this and can hand in.</span>
        <v-btn size="small" @click="set({ open: false })">Hide it from them</v-btn>
      </template>
      <template v-else>
        <span>Only its teachers see this so far.</span>
        <v-btn size="small" variant="flat" color="primary" @click="set({ open: true })">Open it to students</v-btn>
      </template>
    </p>
    <div class="row">
      <v-select
        v-if="overview.terms.length > 0"
        :model-value="overview.term"
        :items="[{ title: 'no term', value: null }, ...overview.terms.map((term) => ({ title: term, value: term }))]"
        class="small"
        density="compact"
        hide-details
        label="Term"
        @update:model-value="set({ term: $event })"
      />
      <v-text-field
        v-model="category"
        class="small"
        density="compact"
        hide-details
        maxlength="60"
        label="Category"
        placeholder="Essays"
        @blur="leaveCategory"
        @keydown.enter="leaveCategory"
      />
      <v-text-field
        v-model="weight"
        class="small"
        density="compact"
        hide-details
        inputmode="decimal"
        suffix="%"
        label="Weight in the course"
        :error="weightWrong"
        @blur="leaveWeight"
        @keydown.enter="leaveWeight"
      />
      <v-select
        :model-value="overview.attempts"
        :items="ATTEMPTS"
        class="small"
        density="compact"
        hide-details
        label="Can be handed in"
        @update:model-value="set({ attempts: $event })"
      />
      <v-select
        v-if="overview.questions.length === 0"
        :model-value="[...(overview.formats ?? [])]"
        :items="FORMATS"
        multiple
        class="formats"
        density="compact"
        hide-details
        label="Only these formats; none chosen means all"
        @update:model-value="set({ formats: $event.length === 0 ? null : $event })"
      />
    </div>
    <p v-if="weightWrong" class="refused" role="alert">A weight is a number from 0 to 100, or nothing.</p>
    <v-checkbox
      label="Extra credit: adds to the course grade and takes nothing from whoever leaves it out"
      :model-value="overview.extra"
      @update:model-value="set({ extra: $event === true })"
    />
    <v-checkbox
      label="Mark without names: you see whose a work is when it is returned"
      :model-value="overview.anonymous"
      @update:model-value="set({ anonymous: $event === true })"
    />
    <ToldNote :told="told" />
  </section>
</template>

<style scoped>
.fields {
  display: grid;
  gap: 12px;
  max-width: 760px;
  margin: 16px 0 20px;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
}
.small {
  flex: 0 1 200px;
}
.formats {
  flex: 1 1 260px;
}
.due {
  flex: 0 1 280px;
}
</style>
