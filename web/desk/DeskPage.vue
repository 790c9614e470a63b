<script setup lang="ts">
import { computed, defineAsyncComponent, ref, useTemplateRef, watch } from 'vue';
import EarlierHead from '../earlier/EarlierHead.vue';
import MarginFilterBar from '../margin/MarginFilterBar.vue';
import { useNarrow } from '../margin/use-narrow.ts';
import WorkAndMargin from '../margin/WorkAndMargin.vue';
import InterruptedTake from '../recorder/InterruptedTake.vue';
import StateNote from '../shell/StateNote.vue';
import AsideList from './AsideList.vue';
import ClassStrip from './ClassStrip.vue';
import DeskEntry from './DeskEntry.vue';
import DeskStrip from './DeskStrip.vue';
import DeskDrawer from './drawer/DeskDrawer.vue';
import PaceLine from './PaceLine.vue';
import { useDeskPage } from './use-desk.ts';
import { BANKING, SPEAKING } from './use-desk-entries.ts';
import { WRITING } from './use-writing.ts';
import VoiceBar from './voice/VoiceBar.vue';

// Most works are not talked through.
const TalkBar = defineAsyncComponent(() => import('../talk/TalkBar.vue'));

/** The desk: one submission, read and spoken about. */
const props = defineProps<{ submission: string }>();

const table = useTemplateRef('table');
const page = useDeskPage(
  () => props.submission,
  () => table.value?.folio ?? null,
);
const { desk, work, feedback, error, load, drawer, earlier, klass, filter, entries, forms, speaking, stamp } = page;
const { hint, targetName, shownById, earlierById, show } = page;
const { marks, lit } = show;
const { boxing, chosen, how, target } = page.choosing;
const { focused, returned } = desk;

const BEING_MADE: readonly string[] = [WRITING, SPEAKING, BANKING];
const now = computed(() => entries.value.find(({ id }) => BEING_MADE.includes(id))?.id);

const narrow = useNarrow();
/** Where there is no room beside the work, scores and all else come from the side. */
const side = ref(false);
watch(drawer, (name) => (side.value = name !== 'scores'));
function leave(): void {
  focused.value = undefined;
}
</script>

<template>
  <div v-if="work && feedback" class="desk">
    <DeskStrip
      :work="work"
      :feedback="feedback"
      :place="klass.place.value"
      :set-returned="page.setReturned"
      :set-ready="page.setReady"
      :others="page.others.value"
    />
    <div class="second">
      <ClassStrip :students="klass.students.value" :student="work.student.id" />
      <PaceLine :students="klass.students.value" />
      <v-btn v-if="narrow" class="tab" size="small" variant="outlined" :aria-expanded="side" @click="side = !side">{{
        side ? 'Close' : 'Scores'
      }}</v-btn>
    </div>
    <main class="middle">
      <WorkAndMargin
        ref="table"
        :key="work.id"
        v-model:boxing="boxing"
        :work="work"
        :entries="entries"
        :also="marks"
        :lit="lit"
        :focused="focused"
        :now="now"
        :target="chosen"
        :choosing="!returned"
        @pick="page.pick"
        @leave="leave"
        @choose="stamp.choose"
      >
        <template #above>
          <MarginFilterBar :filter="filter" />
          <EarlierHead :earlier="earlier" movable :target="targetName" @here="desk.putHere" />
          <InterruptedTake
            v-for="take in speaking.interrupted.value"
            :key="take.id"
            :take="take"
            keep="Keep it"
            @keep="speaking.keepInterrupted(take)"
            @drop="speaking.dropInterrupted(take)"
          />
        </template>
        <template #entry="{ entry: { id, kind } }">
          <DeskEntry
            :id="id"
            :kind="kind"
            :focused="id === focused"
            :remark="shownById.get(id)"
            :earlier="earlierById.get(id)"
          />
        </template>
        <template #below>
          <p v-if="entries.length === 0 && !filter.active.value" class="empty">
            You have not said anything yet. {{ how }}, hold the space bar and speak.
          </p>
          <AsideList v-if="!returned" :remarks="feedback.aside" @back="page.bringBack" />
        </template>
      </WorkAndMargin>
      <DeskDrawer
        v-if="!narrow || side"
        v-model="drawer"
        class="side"
        :work="work"
        :feedback="feedback"
        :kind="desk.nextKind.value"
        :stamp-target="forms.stampTarget.value"
        @stamp="forms.stamp"
        @react="forms.react"
        @dropped="page.dropped"
      />
    </main>
    <TalkBar v-if="show.playing.value" class="talk" :show="show" />
    <VoiceBar :hint="hint" :budget="work.budget" :reactable="target !== undefined" />
  </div>
  <StateNote v-else class="loading" :busy="!error" :error="error" @retry="load" />
</template>

<style scoped>
.desk {
  display: grid;
  grid-template: 48px 32px minmax(0, 1fr) auto 68px / minmax(0, 1fr);
  height: 100dvh;
}
.second {
  display: flex;
  gap: 20px;
  justify-content: space-between;
  padding: 0 16px 0 8px;
  border-bottom: 1px solid var(--hairline);
}
.talk {
  grid-row: 4;
}
.desk > :last-child {
  grid-row: 5;
}
.middle {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 264px;
  min-height: 0;
}
.empty {
  color: var(--quiet);
}
.loading {
  padding: 24px;
}
@media (max-width: 900px) {
  .desk {
    --below: 68px;
  }
  .middle {
    display: block;
    overflow-y: auto;
  }
  .tab {
    flex: none;
    align-self: center;
  }
  .side {
    position: fixed;
    inset: 80px 0 68px auto;
    z-index: 15;
    width: min(340px, 100%);
    box-shadow: -4px 0 20px color-mix(in srgb, var(--ink) 16%, transparent);
  }
}
</style>
