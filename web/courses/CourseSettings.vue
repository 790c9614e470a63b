<script setup lang="ts">
import { changeCourse, copyCourse, type Course } from '#contract/courses';
import { computed, defineAsyncComponent, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import { call } from '../session/api.ts';
import { useCourses } from '../session/courses.ts';
import { useSpeechSettings } from '../session/speech-settings.ts';
import ToldNote from '../shell/ToldNote.vue';
import { useTold } from '../shell/use-told.ts';
import LanguagePick from '../transcript/LanguagePick.vue';

const MarginKeyForm = defineAsyncComponent(() => import('../margin/MarginKeyForm.vue'));

/** What is set for a whole course; it is copied for another year, and put aside when it is over. */
const props = defineProps<{ course: Course }>();
const emit = defineEmits<{ changed: [] }>();

const router = useRouter();
const courses = useCourses();
const speech = useSpeechSettings();
void speech.load();

const title = ref('');
const terms = ref('');
const copyTitle = ref('');
const keying = ref(false);
const { told, attempt } = useTold();
const termsOf = (text: string): string[] =>
  text
    .split(',')
    .map((term) => term.trim())
    .filter(Boolean);
watch(
  () => props.course,
  (now, before) => {
    // What is being typed stays.
    if (!before || title.value === before.title) title.value = now.title;
    if (!before || terms.value === before.terms.join(', ')) terms.value = now.terms.join(', ');
  },
  { immediate: true },
);
const language = computed(() => speech.settings?.courses.find(({ id }) => id === props.course.id)?.language ?? 'en');

const set = (change: { title?: string; terms?: string[]; aside?: boolean }): Promise<void> =>
  attempt(async () => {
    await call(changeCourse, { params: { course: props.course.id }, body: change });
    await courses.refresh();
    emit('changed');
    return 'Saved.';
  });

function leaveTitle(): void {
  const next = title.value.trim();
  if (next === '') title.value = props.course.title;
  else if (next !== props.course.title) void set({ title: next });
}

function leaveTerms(): void {
  const next = termsOf(terms.value);
  if (next.join(', ') !== props.course.terms.join(', ')) void set({ terms: next });
}

const speak = (spoken: string | null): Promise<void> =>
  attempt(async () => {
    await speech.speakInCourse(props.course.id, spoken ?? 'en');
    return 'Saved. Words are made out in this language.';
  });

const copy = (): Promise<void> =>
  attempt(async () => {
    const made = await call(copyCourse, {
      params: { course: props.course.id },
      body: { title: copyTitle.value.trim() },
    });
    await courses.refresh();
    await router.push({ name: 'course', params: { course: made.id } });
    return `“${made.title}” has the same assignments, without students, works and dates.`;
  });
</script>

<template>
  <section class="settings" aria-label="The course">
    <div class="row">
      <v-text-field
        v-model="title"
        class="field"
        label="Title"
        density="compact"
        maxlength="200"
        @blur="leaveTitle"
        @keydown.enter="leaveTitle"
      />
      <v-text-field
        v-model="terms"
        class="field"
        label="Terms, with commas between"
        placeholder="Autumn, Spring"
        density="compact"
        maxlength="600"
        @blur="leaveTerms"
        @keydown.enter="leaveTerms"
      />
      <LanguagePick
        class="language"
        label="Language spoken in it"
        :model-value="language"
        @update:model-value="speak($event)"
      />
    </div>
    <div class="row">
      <v-btn size="small" :aria-expanded="keying" @click="keying = !keying">Margin key</v-btn>
      <v-btn v-if="course.aside" size="small" variant="outlined" @click="set({ aside: false })">Bring it back</v-btn>
      <v-btn v-else size="small" @click="set({ aside: true })">Put it aside: it is over</v-btn>
    </div>
    <MarginKeyForm
      v-if="keying"
      class="key"
      :course="course.id"
      :marginal-key="course.marginKey"
      @done="((keying = false), emit('changed'))"
      @leave="keying = false"
    />
    <form class="row" @submit.prevent="copy">
      <v-text-field
        v-model="copyTitle"
        class="field"
        label="Title of a copy for another year"
        density="compact"
        maxlength="200"
      />
      <v-btn type="submit" size="small" variant="outlined" :disabled="copyTitle.trim() === ''">Copy the course</v-btn>
    </form>
    <ToldNote :told="told" />
  </section>
</template>

<style scoped>
.settings {
  max-width: 900px;
  margin: 12px 0;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
  margin: 8px 0;
}
.field {
  flex: 0 1 300px;
}
.language {
  flex: 0 1 220px;
  margin-top: 0;
}
.key {
  max-width: 300px;
  padding: 12px;
  background: var(--paper);
  border: 1px solid var(--hairline);
}
</style>
