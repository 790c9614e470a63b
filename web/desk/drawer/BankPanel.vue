<script setup lang="ts">
import type { Anchor } from '#core/anchor';
import type { BankedRemark } from '#contract/bank';
import type { Work } from '#contract/submissions';
import { computed, onBeforeUnmount } from 'vue';
import BankPicker from '../../bank/BankPicker.vue';
import GreetingLine from '../../bank/GreetingLine.vue';
import { useBankPicker } from '../../bank/use-bank-picker.ts';
import { useDropping } from '../../bank/use-dropping.ts';
import { useGreeting } from '../../bank/use-greeting.ts';
import { useAnchorName } from '../../feedback/use-anchor-name.ts';
import { usePlayer } from '../../player/player.ts';
import { useDesk } from '../desk.ts';
import SidePanel from '../../shell/SidePanel.vue';

/** The bank beside the margin: what is likely to be said about what is selected. */
const props = defineProps<{ work: Work }>();
const emit = defineEmits<{ close: []; dropped: [remark: string] }>();

const desk = useDesk();
const player = usePlayer();
const anchorName = useAnchorName();
const anchor = computed((): Anchor => desk.banking.value ?? { type: 'whole' });

const picker = useBankPicker(
  () => ({ submission: props.work.id, folio: props.work.folio, anchor: anchor.value }),
  () => null,
);
const greeting = useGreeting(
  () => props.work.course,
  () => props.work.student,
);
const { drop, busy, problem } = useDropping(() => props.work);
const about = computed(() => (anchor.value.type === 'whole' ? 'the whole work' : anchorName(anchor.value)));

async function take(banked: BankedRemark): Promise<void> {
  player.stop();
  const greets = greeting.wanted.value && !props.work.nameless ? greeting.recording.value : undefined;
  const remark = await drop(banked, {
    anchor: anchor.value,
    rubric: desk.rubric.value,
    likely: picker.criterion.value,
    greeting: greets,
  });
  if (remark) emit('dropped', remark);
}
onBeforeUnmount(() => player.stop());
</script>

<template>
  <SidePanel title="Remark bank" @close="$emit('close')">
    <p class="about">On {{ about }}</p>
    <BankPicker :picker="picker" @drop="take" @close="$emit('close')" />
    <p v-if="problem" class="refused" role="alert">{{ problem }}</p>
    <p v-if="busy" class="fine" role="status">Putting the greeting before it …</p>
    <GreetingLine v-if="!work.nameless" :greeting="greeting" :name="work.student.name" />
    <p class="fine keys">Digits or Enter: say it. Up and Down: go through. Right: listen. Escape: close.</p>
  </SidePanel>
</template>

<style scoped>
.about {
  display: -webkit-box;
  overflow: hidden;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
  margin-top: 6px;
  font-family: var(--serif);
  font-style: italic;
  font-size: 14px;
}
.keys {
  margin-top: 12px;
}
.refused {
  font-size: 13px;
}
</style>
