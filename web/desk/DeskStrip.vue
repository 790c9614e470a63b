<script setup lang="ts">
import type { Feedback, Work } from '#contract/submissions';
import { mdiChevronLeft, mdiChevronRight, mdiKeyboardOutline, mdiRedo, mdiUndo } from '@mdi/js';
import OutboxState from '../shell/OutboxState.vue';
import GoMenu from '../shell/GoMenu.vue';
import { listOf } from '../wording/format.ts';
import { useSitting } from '../feedback/sitting.ts';
import VersionMenu from '../feedback/VersionMenu.vue';
import type { Place } from './class-place.ts';
import { withKey } from '../shell/command.ts';
import { commandOf } from './commands.ts';
import { useDesk } from './desk.ts';
import ReturnPanel from './ReturnPanel.vue';

defineProps<{
  work: Work;
  feedback: Feedback;
  place: Place | undefined;
  setReturned: (returned: boolean) => Promise<void>;
  setReady: (ready: boolean) => Promise<void>;
  /** Who else is at this work. */
  others: readonly string[];
}>();

const desk = useDesk();
const sitting = useSitting();

const deskOf = (submission: string | undefined) => (submission ? { name: 'desk', params: { submission } } : undefined);
</script>

<template>
  <header class="strip">
    <GoMenu />
    <router-link class="back" :to="{ name: 'assignment', params: { assignment: work.assignment.id } }">
      {{ work.assignment.title }}
    </router-link>
    <div class="student">
      <v-btn
        :icon="mdiChevronLeft"
        size="28"
        aria-label="Previous student"
        :disabled="!place?.previous"
        :to="deskOf(place?.previous)"
      />
      <strong>{{ work.student.name }}</strong>
      <span v-if="place" class="figures place">{{ place.position }} of {{ place.count }}</span>
      <v-btn
        :icon="mdiChevronRight"
        size="28"
        aria-label="Next student"
        :disabled="!place?.next"
        :to="deskOf(place?.next)"
      />
    </div>
    <span v-if="work.late" class="flag">handed in late</span>
    <VersionMenu :work="work" route="desk" />
    <span v-if="feedback.returnedAt" class="flag">returned</span>
    <span v-else-if="feedback.readyAt" class="flag">ready</span>
    <span v-if="others.length > 0" class="flag" role="status"
      >{{ listOf(others) }} {{ others.length === 1 ? 'is' : 'are' }} here too</span
    >
    <OutboxState class="saved" />
    <v-btn
      :icon="mdiUndo"
      size="32"
      :disabled="!sitting.next"
      :aria-label="sitting.next ? `Undo: ${sitting.next.label}` : 'Nothing to undo'"
      :title="sitting.next ? `Undo: ${sitting.next.label} (Ctrl + Z)` : undefined"
      @click="desk.undo()"
    />
    <v-btn
      :icon="mdiRedo"
      size="32"
      :disabled="!sitting.nextRedo"
      :aria-label="sitting.nextRedo ? `Do again: ${sitting.nextRedo.label}` : 'Nothing to do again'"
      @click="desk.redo()"
    />
    <v-btn
      :icon="mdiKeyboardOutline"
      size="32"
      aria-label="Show the keys"
      :title="withKey(commandOf('keys'))"
      @click="desk.open('keys')"
    />
    <v-btn
      v-if="work.assignment.moderation"
      size="small"
      variant="flat"
      color="primary"
      :to="{ name: 'moderation', params: { moderation: work.assignment.moderation } }"
      >Hand over</v-btn
    >
    <ReturnPanel v-else :feedback="feedback" :work="work" :set-returned="setReturned" :set-ready="setReady" />
  </header>
</template>

<style scoped>
.strip {
  display: flex;
  align-items: center;
  gap: 14px;
  height: 48px;
  padding: 0 16px;
  border-bottom: 1px solid var(--hairline);
}
.back {
  color: var(--quiet);
}
.student {
  display: flex;
  align-items: center;
  gap: 8px;
}
.place,
.flag {
  color: var(--quiet);
  font-size: 13px;
}
.flag {
  padding: 1px 8px;
  border: 1px solid var(--hairline);
  border-radius: 10px;
}
.saved {
  margin-left: auto;
}
</style>
