<script setup lang="ts">
import type { Stamp } from '#contract/stamps';
import type { Feedback, Work } from '#contract/submissions';
import { defineAsyncComponent } from 'vue';
import { useFeedback } from '../../feedback/feedback-store.ts';
import { useFeedbackActions } from '../../feedback/use-feedback-actions.ts';
import type { DrawerName } from './drawer-name.ts';
import KeyList from './KeyList.vue';
import ScoreDrawer from './ScoreDrawer.vue';
import SearchPanel from './SearchPanel.vue';

defineProps<{ work: Work; feedback: Feedback; kind: string; stampTarget: string }>();
defineEmits<{ stamp: [stamp: Stamp]; react: [emoji: string]; dropped: [remark: string] }>();
const name = defineModel<DrawerName>({ required: true });

// Seldom needed, so not loaded with the desk.
const MicrophonePanel = defineAsyncComponent(() => import('./MicrophonePanel.vue'));
const EmojiPanel = defineAsyncComponent(() => import('./EmojiPanel.vue'));
const StampPanel = defineAsyncComponent(() => import('./StampPanel.vue'));
const BankPanel = defineAsyncComponent(() => import('./BankPanel.vue'));
const KeepPanel = defineAsyncComponent(() => import('./KeepPanel.vue'));
const PartsPanel = defineAsyncComponent(() => import('./PartsPanel.vue'));
const KindsPanel = defineAsyncComponent(() => import('./KindsPanel.vue'));

const actions = useFeedbackActions();
const store = useFeedback();
const close = (): void => void (name.value = 'scores');
</script>

<template>
  <KeyList v-if="name === 'keys'" @close="close" />
  <MicrophonePanel v-else-if="name === 'microphone'" @close="close" />
  <EmojiPanel v-else-if="name === 'emoji'" @close="close" @react="$emit('react', $event)" />
  <StampPanel
    v-else-if="name === 'stamp'"
    :kind="kind"
    :target="stampTarget"
    @close="close"
    @stamp="$emit('stamp', $event)"
  />
  <KindsPanel v-else-if="name === 'kinds'" :work="work" @close="close" />
  <BankPanel
    v-else-if="name === 'bank'"
    :key="work.id"
    :work="work"
    @close="close"
    @dropped="$emit('dropped', $event)"
  />
  <PartsPanel v-else-if="name === 'parts'" :work="work" :feedback="feedback" @close="close" />
  <KeepPanel v-else-if="name === 'keep'" :feedback="feedback" @close="close" />
  <SearchPanel v-else-if="name === 'search'" @close="close" />
  <ScoreDrawer
    v-else
    :feedback="feedback"
    :work="work"
    @score="actions.score"
    @points="actions.givePoints"
    @adjust="actions.adjust"
    @standing="store.setStanding"
  />
</template>
