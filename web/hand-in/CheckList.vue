<script setup lang="ts">
import type { Remark } from '#contract/remarks';
import { useTimeoutFn } from '@vueuse/core';
import { storeToRefs } from 'pinia';
import { computed, ref } from 'vue';
import { useFeedback } from '../feedback/feedback-store.ts';
import { useFeedbackActions } from '../feedback/use-feedback-actions.ts';
import { marginEntries } from '../margin/entries.ts';
import RibbonFrame from '../margin/RibbonFrame.vue';
import { provideRecordingActions } from '../recordings/recording-actions.ts';
import ReplyBox from '../replies/ReplyBox.vue';
import ReplyThread from '../replies/ReplyThread.vue';
import StateNote from '../shell/StateNote.vue';
import { useLoaded } from '../shell/use-loaded.ts';

/** The remarks on the version before, to be dealt with one after another. */
const props = defineProps<{
  submission: string;
  /** Puts suggested words into the text that is being typed; whether their place was found. None where nothing is typed here. */
  putIn?: ((remark: Remark) => boolean) | undefined;
}>();

const store = useFeedback();
const { work, feedback } = storeToRefs(store);
const actions = useFeedbackActions();
provideRecordingActions(actions);
const { error, load } = useLoaded(
  () => store.load(props.submission),
  () => props.submission,
);
const here = computed(() => (work.value?.id === props.submission ? work.value : undefined));
const remarks = computed(() => {
  const all = (feedback.value?.remarks ?? []).filter(({ author }) => author.id !== here.value?.student.id);
  return here.value
    ? marginEntries(here.value.folio, all).flatMap(({ id }) => all.find((one) => one.id === id) ?? [])
    : [];
});
const done = computed(() => remarks.value.filter(({ dealtAt }) => dealtAt !== null).length);
const inHand = ref<string>();
const speaking = ref(false);
/** The suggestion whose words are not in the text any more. */
const astray = ref<string>();
const forget = useTimeoutFn(() => (astray.value = undefined), 8000, { immediate: false });

function put(remark: Remark): void {
  if (props.putIn!(remark)) {
    void actions.take(remark, true);
    return void actions.deal(remark, true);
  }
  astray.value = remark.id;
  forget.start();
}
</script>

<template>
  <aside aria-label="Remarks to deal with">
    <StateNote v-if="!here || !feedback" :busy="!error" :error="error" @retry="load" />
    <template v-else>
      <h2>
        Remarks on version {{ here.version }}
        <span class="figures quiet" role="status">{{ done }} of {{ remarks.length }} dealt with</span>
      </h2>
      <p v-if="remarks.length === 0" class="quiet">There are none on it.</p>
      <div v-for="remark in remarks" :key="remark.id">
        <p v-if="remark.anchor.type === 'passage'" class="quote">“{{ remark.anchor.quote.exact }}”</p>
        <RibbonFrame :remark="remark" :focused="remark.id === inHand" @focus="inHand = remark.id">
          <div v-if="remark.suggestion !== null && putIn" class="row">
            <v-btn size="x-small" variant="outlined" :disabled="remark.takenAt !== null" @click.stop="put(remark)">{{
              remark.takenAt ? 'These words are in your text' : 'Put these words into my text'
            }}</v-btn>
            <span v-if="astray === remark.id" role="alert" class="quiet"
              >The words it is about are not in your text any more.</span
            >
          </div>
          <ReplyThread :replies="remark.replies" />
          <v-checkbox
            :model-value="remark.dealtAt !== null"
            label="Dealt with"
            density="compact"
            hide-details
            @update:model-value="actions.deal(remark, $event === true)"
          />
          <ReplyBox
            v-if="remark.id === inHand"
            v-model:speaking="speaking"
            :submission="submission"
            :remark="remark.id"
            ask="Say how you dealt with it"
            :send="(reply) => actions.answer(remark, reply)"
          />
        </RibbonFrame>
      </div>
    </template>
  </aside>
</template>

<style scoped>
aside {
  display: grid;
  align-content: start;
  gap: 12px;
}
.quiet {
  font-size: 13px;
  font-weight: 400;
}
.quote {
  margin-bottom: 4px;
  font-family: var(--serif);
  overflow-wrap: anywhere;
}
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  margin-top: 6px;
}
</style>
