<script setup lang="ts">
import { formatHundredths } from '#core/grading';
import { readRubricTable, rubricCsv, STARTERS } from '#core/rubric-table';
import { PlainRubric, readRubric, readShelf, setRubric } from '#contract/rubrics';
import { mdiArrowDown, mdiArrowUp, mdiChevronDown, mdiContentDuplicate, mdiDrag, mdiTrashCanOutline } from '@mdi/js';
import { useRefHistory } from '@vueuse/core';
import { useSortable } from '@vueuse/integrations/useSortable';
import { computed, nextTick, ref, useTemplateRef } from 'vue';
import { saveAsFile } from '../outbox/save-as-file.ts';
import { call } from '../session/api.ts';
import FileInput from '../shell/FileInput.vue';
import LateMenu from '../shell/LateMenu.vue';
import type { MenuEntry } from '../shell/menu-entry.ts';
import StateNote from '../shell/StateNote.vue';
import { useDeed } from '../shell/use-deed.ts';
import { useLoaded } from '../shell/use-loaded.ts';
import { counted } from '../wording/format.ts';
import LevelRow from './LevelRow.vue';
import {
  draftFrom,
  draftOf,
  duplicateOf,
  faultOf,
  newCriterion,
  newLevel,
  possibleOf,
  rubricOf,
  type CriterionDraft,
} from './rubric-draft.ts';

/** What works are scored by: criteria and their levels, written here, taken from a shelf, or pasted from a spreadsheet. */
const props = defineProps<{ assignment: string; title: string; questions: number }>();

const draft = ref<CriterionDraft[]>([]);
const { undo, redo, canUndo, canRedo, clear } = useRefHistory(draft, { deep: true, capacity: 200 });
const {
  value: kept,
  error,
  load,
} = useLoaded(async () => {
  const found = await call(readRubric, { params: { assignment: props.assignment } });
  draft.value = draftOf(found.rubric);
  moving.value = found.scored.map(({ submission }) => submission);
  weighs.value = found.rubric.some(({ weight, bonus }) => weight !== undefined || bonus === true);
  await nextTick();
  clear();
  return found;
});
const { value: shelf } = useLoaded(() => call(readShelf));
const changed = computed(
  () => kept.value !== undefined && JSON.stringify(draft.value) !== JSON.stringify(draftOf(kept.value.rubric)),
);
const used = computed(() => kept.value?.scored ?? []);
/** Works that go along to a new version; those that are returned stay as they were returned. */
const moving = ref<string[]>([]);
const movable = computed(() => used.value.filter(({ returnedAt }) => returnedAt === null));
const weighs = ref(false);
const { busy, problem, attempt } = useDeed();
const pasting = ref<string>();
const shelfEntries = computed((): MenuEntry[] => [
  { title: 'To begin with', heading: true },
  ...STARTERS.map(({ title, rubric }) => ({ title, run: () => take(rubric) })),
  ...(others.value.length > 0 ? [{ title: 'From your assignments', heading: true as const }] : []),
  ...others.value.map(({ title, course, rubric }) => ({ title, subtitle: course, run: () => take(rubric) })),
]);
const others = computed(() => (shelf.value ?? []).filter(({ assignment }) => assignment !== props.assignment));
const FAULTS = {
  points: 'the points are no number',
  noCriterion: 'there is no criterion',
  noLevel: 'there is no level',
};

// By key there are the arrows beside each.
useSortable(useTemplateRef('list'), draft, { handle: '.handle', watchElement: true });

function move(index: number, by: 1 | -1): void {
  const [one] = draft.value.splice(index, 1);
  draft.value.splice(index + by, 0, one!);
}

async function add(criterion = newCriterion(draft.value.at(-1)), at = draft.value.length): Promise<void> {
  draft.value.splice(at, 0, criterion);
  await nextTick();
  document.getElementById(`title-${criterion.id}`)?.focus();
}

function take(rubric: Parameters<typeof draftFrom>[0]): void {
  draft.value = [...draft.value, ...draftFrom(rubric)];
}

function paste(): void {
  const { rubric, faults } = readRubricTable(pasting.value ?? '');
  problem.value = faults.map(({ line, why }) => `Line ${line}: ${FAULTS[why]}.`).join(' ') || undefined;
  if (faults.length > 0 || rubric.length === 0) return;
  take(rubric);
  pasting.value = undefined;
}

async function choose([file]: readonly File[]): Promise<void> {
  if (!file) return;
  const text = await file.text();
  if (!file.name.endsWith('.json')) {
    pasting.value = text;
    return paste();
  }
  const read = PlainRubric.safeParse(jsonIn(text));
  problem.value = read.success ? undefined : 'This file holds no rubric. docs/rubric.md says what one looks like.';
  if (read.success) take(read.data);
}

function jsonIn(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}

function save(format: 'csv' | 'json'): void {
  const rubric = rubricOf(draft.value).map(({ id: _id, levels, ...criterion }) => ({
    ...criterion,
    levels: levels.map((level) => ({ title: level.title, description: level.description, points: level.points })),
  }));
  const [text, type] =
    format === 'csv' ? [rubricCsv(rubric), 'text/csv'] : [JSON.stringify(rubric, null, 2), 'application/json'];
  saveAsFile(new Blob([text], { type }), `${props.title}.${format}`);
}

async function keep(): Promise<void> {
  problem.value = faultOf(draft.value, props.questions);
  if (problem.value) return;
  await attempt(async () => {
    const move = movable.value.map(({ submission }) => submission).filter((id) => moving.value.includes(id));
    const body = { rubric: rubricOf(draft.value), move };
    await call(setRubric, { params: { assignment: props.assignment }, body });
    await load();
  });
}
</script>

<template>
  <section class="rubric" aria-labelledby="rubric">
    <h2 id="rubric">
      Rubric <span v-if="draft.length > 0" class="figures quiet">{{ formatHundredths(possibleOf(draft)) }} points</span>
    </h2>
    <StateNote v-if="!kept" :busy="!error" :error="error" @retry="load" />
    <form v-else @submit.prevent="keep">
      <p v-if="used.length > 0" class="quiet">
        {{ counted(used.length, 'work has', 'works have') }} been scored by it. What you change becomes a new version;
        you decide below which works move to it.
      </p>
      <p v-if="draft.length === 0" class="quiet">
        Without one, works are heard and answered, and nothing is scored. Write criteria, or begin with a rubric that is
        there.
      </p>
      <div ref="list">
        <fieldset v-for="(criterion, index) in draft" :key="criterion.id" class="criterion">
          <legend class="visually-hidden">{{ criterion.title || `Criterion ${index + 1}` }}</legend>
          <div class="row">
            <v-icon :icon="mdiDrag" class="handle" title="Drag to another place" />
            <v-text-field
              :id="`title-${criterion.id}`"
              v-model="criterion.title"
              class="name"
              density="compact"
              :aria-label="`Criterion ${index + 1}`"
              placeholder="What is looked at"
              maxlength="200"
            />
            <v-text-field
              v-model="criterion.description"
              class="about"
              density="compact"
              :aria-label="`Description of criterion ${index + 1}`"
              placeholder="In a few more words"
              maxlength="2000"
            />
            <v-btn
              :icon="mdiArrowUp"
              size="30"
              :disabled="index === 0"
              :aria-label="`Move criterion ${index + 1} up`"
              @click="move(index, -1)"
            />
            <v-btn
              :icon="mdiArrowDown"
              size="30"
              :disabled="index === draft.length - 1"
              :aria-label="`Move criterion ${index + 1} down`"
              @click="move(index, 1)"
            />
            <v-btn
              :icon="mdiContentDuplicate"
              size="30"
              :aria-label="`Duplicate criterion ${index + 1}`"
              @click="add(duplicateOf(criterion), index + 1)"
            />
            <v-btn
              :icon="mdiTrashCanOutline"
              size="30"
              :aria-label="`Remove criterion ${index + 1}`"
              @click="draft.splice(index, 1)"
            />
          </div>
          <div v-if="weighs" class="row">
            <v-text-field
              v-if="!criterion.bonus"
              v-model="criterion.weight"
              class="weight"
              density="compact"
              inputmode="decimal"
              suffix="%"
              :label="`Weight of criterion ${index + 1}`"
            />
            <v-checkbox v-model="criterion.bonus" :label="`Bonus: counts on top`" />
          </div>
          <div class="levels">
            <LevelRow
              v-for="(level, place) in criterion.levels"
              :key="level.id"
              v-model="criterion.levels[place]!"
              :name="`level ${place + 1} of criterion ${index + 1}`"
              @remove="criterion.levels.splice(place, 1)"
            />
            <v-btn size="small" class="more" @click="criterion.levels.push(newLevel())">Add a level</v-btn>
          </div>
        </fieldset>
      </div>
      <p v-if="problem" class="refused" role="alert">{{ problem }}</p>
      <div v-if="pasting !== undefined" class="paste">
        <v-textarea
          v-model="pasting"
          label="Paste from a spreadsheet"
          placeholder="Levels with their points in the first row, a criterion in each row below"
          rows="4"
        />
        <v-btn size="small" variant="flat" color="primary" :disabled="pasting.trim() === ''" @click="paste"
          >Take it in</v-btn
        >
        <v-btn size="small" @click="((pasting = undefined), (problem = undefined))">Not now</v-btn>
      </div>
      <div class="row">
        <v-btn variant="outlined" @click="add()">Add a criterion</v-btn>
        <LateMenu v-slot="{ attributes }" :entries="shelfEntries">
          <v-btn v-bind="attributes" :append-icon="mdiChevronDown">Begin with …</v-btn>
        </LateMenu>
        <v-btn v-if="pasting === undefined" @click="pasting = ''">Paste a table</v-btn>
        <v-btn v-if="draft.length > 0 && !weighs" @click="weighs = true">Weights and bonus …</v-btn>
        <FileInput
          v-slot="{ open }"
          label="A rubric as a file"
          accept=".csv,.tsv,.json,text/csv,application/json"
          @choose="choose"
        >
          <v-btn @click="open">Open a file …</v-btn>
        </FileInput>
        <template v-if="draft.length > 0">
          <v-btn size="small" @click="save('csv')">Save as CSV</v-btn>
          <v-btn size="small" @click="save('json')">as JSON</v-btn>
        </template>
      </div>
      <fieldset v-if="changed && movable.length > 0" class="moving">
        <legend>Move to the new version</legend>
        <p class="quiet">
          Scores go along where criterion and level are called the same; the others are to be scored again. What is
          returned stays as it was returned.
        </p>
        <v-checkbox
          v-for="work in movable"
          :key="work.submission"
          v-model="moving"
          :value="work.submission"
          :label="work.student"
        />
      </fieldset>
      <div class="row">
        <v-btn v-if="changed" type="submit" variant="flat" color="primary" :loading="busy">{{
          used.length > 0 ? 'Keep it as a new version' : 'Keep the rubric'
        }}</v-btn>
        <v-btn v-if="canUndo" @click="undo()">Undo</v-btn>
        <v-btn v-if="canRedo" @click="redo()">Do it again</v-btn>
      </div>
    </form>
  </section>
</template>

<style scoped>
.rubric {
  margin-top: 32px;
}
h2 {
  margin-bottom: 8px;
}
.criterion {
  padding: 12px 0;
  border: 0;
  border-top: 1px solid var(--hairline);
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 10px;
  align-items: center;
  margin: 6px 0;
}
.handle {
  cursor: grab;
  color: var(--quiet);
}
.name {
  flex: 0 1 240px;
}
.about {
  flex: 1 1 260px;
}
.weight {
  flex: 0 0 180px;
}
.moving {
  padding: 8px 0;
  border: 0;
}
.moving legend {
  padding: 0;
  font-weight: 600;
}
.levels {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(210px, 1fr));
  gap: 10px;
  margin-top: 8px;
}
.more {
  align-self: start;
}
.paste {
  max-width: 760px;
  margin: 10px 0;
}
.quiet {
  max-width: 68ch;
}
</style>
