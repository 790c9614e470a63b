<script setup lang="ts">
import type { Member } from '#contract/roster';
import { mdiAccountMultipleMinusOutline, mdiPencilOutline } from '@mdi/js';
import { computed, ref } from 'vue';
import { dayAndTime } from '../wording/format.ts';

/** One student of a course, whose name, mail and number can be corrected in place. */
const props = defineProps<{ member: Member }>();
const emit = defineEmits<{
  change: [{ name: string; mail: string; number: string }];
  slip: [];
  remove: [];
  leave: [left: boolean];
  twice: [];
}>();

/** Whoever has never come in gets a way in, and who forgot their password another one. */
const slip = computed(() => (props.member.cameInAt ? 'Forgot the password' : 'Join slip'));
const draft = ref<{ name: string; mail: string; number: string }>();

function edit(): void {
  const { name, mail, number } = props.member;
  draft.value = { name, mail, number };
}

function save(): void {
  if (draft.value) emit('change', draft.value);
  draft.value = undefined;
}
</script>

<template>
  <tr v-if="draft" @keydown.esc="draft = undefined">
    <td>
      <v-text-field
        v-model="draft.name"
        density="compact"
        :aria-label="`Name of ${member.name}`"
        autofocus
        @keydown.enter="save"
      />
    </td>
    <td>{{ member.login }}</td>
    <td>
      <v-text-field
        v-model="draft.mail"
        density="compact"
        :aria-label="`Mail of ${member.name}`"
        @keydown.enter="save"
      />
    </td>
    <td>
      <v-text-field
        v-model="draft.number"
        density="compact"
        :aria-label="`Number of ${member.name}`"
        @keydown.enter="save"
      />
    </td>
    <td colspan="2">
      <v-btn size="small" variant="flat" color="primary" :disabled="draft.name.trim() === ''" @click="save">Save</v-btn>
      <v-btn size="small" @click="draft = undefined">Leave it</v-btn>
    </td>
  </tr>
  <tr v-else>
    <th scope="row" dir="auto">{{ member.name }} <v-chip v-if="member.left">has left</v-chip></th>
    <td>{{ member.login }}</td>
    <td>{{ member.mail }}</td>
    <td class="figures">{{ member.number }}</td>
    <td class="figures">{{ member.cameInAt ? dayAndTime(member.cameInAt) : 'not yet' }}</td>
    <td class="end">
      <v-btn size="small" :aria-label="`${slip}: ${member.name}`" @click="$emit('slip')">{{ slip }}</v-btn>
      <v-btn v-if="member.left" size="small" :aria-label="`${member.name} comes back`" @click="$emit('leave', false)"
        >Comes back</v-btn
      >
      <v-btn
        v-else-if="member.works > 0"
        size="small"
        :aria-label="`${member.name} leaves the course; the works stay`"
        @click="$emit('leave', true)"
        >Leaves</v-btn
      >
      <v-btn v-if="member.works === 0" size="small" :aria-label="`Take out ${member.name}`" @click="$emit('remove')"
        >Take out</v-btn
      >
      <v-btn
        :icon="mdiAccountMultipleMinusOutline"
        size="30"
        title="Entered twice"
        :aria-label="`${member.name} was entered twice`"
        @click="$emit('twice')"
      />
      <v-btn :icon="mdiPencilOutline" size="30" :aria-label="`Correct ${member.name}`" @click="edit" />
    </td>
  </tr>
</template>

<style scoped>
th {
  font-weight: 500;
  text-align: start;
}
.end {
  text-align: end;
  white-space: nowrap;
}
</style>
