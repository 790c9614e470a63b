<script setup lang="ts">
import { storeToRefs } from 'pinia';
import { computed, nextTick, onBeforeUnmount, ref, useTemplateRef } from 'vue';
import { useFeedback } from '../shared/feedback-store.ts';
import FolioView from '../shared/folio/FolioView.vue';
import { marginEntries } from '../shared/margin/entries.ts';
import MarginColumn from '../shared/margin/MarginColumn.vue';
import OutboxState from '../shared/OutboxState.vue';
import { usePlayer } from '../shared/player.ts';
import StateNote from '../shared/StateNote.vue';
import { dayAndTime } from '../shared/time.ts';
import { useFeedbackActions } from '../shared/use-feedback-actions.ts';
import { useLoaded } from '../shared/use-loaded.ts';
import ResultDrawer from './ResultDrawer.vue';
import ReturnedRibbon from './ReturnedRibbon.vue';
import { useHeard } from './use-heard.ts';

/** What the student gets back: the work, the remarks beside it, the scores. */
const props = defineProps<{ submission: string }>();

const store = useFeedback();
const { work, feedback } = storeToRefs(store);
const actions = useFeedbackActions();
const player = usePlayer();
const focused = ref<string>();
const folioView = useTemplateRef('folioView');
const folio = computed(() => folioView.value?.root ?? null);
const { error, load } = useLoaded(
  () => store.load(props.submission),
  () => props.submission,
);

const remarks = computed(() => feedback.value?.remarks ?? []);
const entries = computed(() => marginEntries(remarks.value));
const stretches = computed(() =>
  entries.value.flatMap(({ id, kind, passage }) => (passage ? { id, kind, ...passage } : [])),
);

useHeard(remarks);
onBeforeUnmount(() => player.stop());

async function focusRibbon(id: string): Promise<void> {
  focused.value = id;
  await nextTick();
  const ribbon = document.querySelector<HTMLElement>(`[data-remark="${id}"]`);
  ribbon?.focus({ preventScroll: true });
  ribbon?.scrollIntoView({ block: 'nearest', behavior: 'smooth' });
}
</script>

<template>
  <div v-if="work && feedback" class="page">
    <header class="strip">
      <router-link :to="{ name: 'home' }" class="back">Your work</router-link>
      <strong>{{ work.assignment.title }}</strong>
      <span v-if="feedback.returnedAt" class="figures quiet">returned {{ dayAndTime(feedback.returnedAt) }}</span>
      <OutboxState class="saved" />
    </header>
    <main class="middle">
      <div class="scroller">
        <div class="paper">
          <FolioView ref="folioView" :work="work" :stretches="stretches" :focused="focused" @pick="focusRibbon" />
        </div>
        <div class="margin" aria-label="Margin" role="region">
          <MarginColumn :entries="entries" :folio="folio" :focused="focused">
            <template #default="{ entry }">
              <ReturnedRibbon
                v-for="remark in remarks.filter(({ id }) => id === entry.id)"
                :key="remark.id"
                :remark="remark"
                :submission="submission"
                :focused="remark.id === focused"
                :answer="(reply) => actions.answer(remark, reply)"
                @focus="focused = remark.id"
              />
            </template>
          </MarginColumn>
          <p v-if="remarks.length === 0" class="quiet">There are no remarks about this work.</p>
        </div>
      </div>
      <ResultDrawer :feedback="feedback" />
    </main>
  </div>
  <StateNote v-else class="loading" :busy="!error" :error="error" @retry="load" />
</template>

<style scoped>
.page {
  display: grid;
  grid-template: 48px minmax(0, 1fr) / minmax(0, 1fr);
  height: 100dvh;
}
.strip {
  display: flex;
  align-items: center;
  gap: 16px;
  padding: 0 16px;
  border-bottom: 1px solid var(--hairline);
}
.back,
.quiet {
  color: var(--quiet);
}
.saved {
  margin-left: auto;
}
.middle {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 264px;
  min-height: 0;
}
.scroller {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(280px, 330px);
  align-items: start;
  gap: 24px;
  padding: 24px 20px 80px 24px;
  overflow-y: auto;
}
.paper {
  padding: 40px 32px 56px;
  background: var(--paper);
  border: 1px solid var(--hairline);
}
.loading {
  padding: 24px;
}
</style>
