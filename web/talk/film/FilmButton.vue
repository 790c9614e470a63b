<script setup lang="ts">
import { nameOfWork } from '../../wording/file-names.ts';
import type { Remark } from '#contract/remarks';
import { mdiFilmstrip } from '@mdi/js';
import { computed, nextTick, onBeforeUnmount, ref, useTemplateRef } from 'vue';
import { useFeedback } from '../../feedback/feedback-store.ts';
import { saveAsFile } from '../../outbox/save-as-file.ts';
import WorkStage from '../../paper/WorkStage.vue';
import { percent } from '../../wording/format.ts';
import { makeFilm, NoFilm } from './save-film.ts';

/** Saves a talk-through as a film, for somebody who does not come here. */
const props = defineProps<{ remark: Remark }>();

const store = useFeedback();
const stage = useTemplateRef('stage');
const share = ref<number>();
const problem = ref<string>();
const working = computed(() => share.value !== undefined);
let ended = false;

async function save(): Promise<void> {
  const { work } = store;
  if (!work || working.value) return;
  share.value = 0;
  problem.value = undefined;
  ended = false;
  await nextTick();
  await nextTick();
  try {
    const film = await makeFilm({
      ...{ work, remark: props.remark, stage: stage.value!.root as HTMLElement },
      onProgress: (now) => (share.value = now),
      ended: () => ended,
    });
    if (film) saveAsFile(film, nameOfWork(work));
  } catch (error) {
    problem.value =
      error instanceof NoFilm ? error.message : 'The film could not be made. Check the network and try again.';
  } finally {
    share.value = undefined;
  }
}
const stop = (): void => void (ended = true);
onBeforeUnmount(stop);
</script>

<template>
  <WorkStage v-if="working && store.work" ref="stage" :work="store.work" />
  <template v-if="working">
    <span class="figures" role="status">Making the film … {{ percent(share!) }}</span>
    <v-btn size="small" variant="outlined" @click="stop">Stop</v-btn>
  </template>
  <v-btn
    v-else
    :icon="mdiFilmstrip"
    size="36"
    aria-label="Save as a film"
    title="Save it as a film, for somebody who does not come here"
    @click="save"
  />
  <span v-if="problem" class="refused" role="alert">{{ problem }}</span>
</template>

<style scoped>
.figures,
.refused {
  flex: none;
  font-size: 13px;
}
</style>
