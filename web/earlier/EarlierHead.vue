<script setup lang="ts">
import type { EarlierRemark } from '#contract/submissions';
import { useAnchorName } from '../feedback/use-anchor-name.ts';
import RecordingView from '../recordings/RecordingView.vue';
import { counted } from '../wording/format.ts';
import type { Earlier } from './use-earlier.ts';

/** At the head of the margin: remarks of earlier versions shown or not, and those that have no place in this one. */
defineProps<{
  earlier: Earlier;
  movable?: boolean;
  target?: string | undefined;
}>();
defineEmits<{ here: [earlier: EarlierRemark] }>();

const anchorName = useAnchorName();
</script>

<template>
  <section v-if="earlier.all.value.length > 0" class="head" aria-label="Remarks on earlier versions">
    <v-checkbox
      :model-value="earlier.shown.value"
      :label="`Show ${counted(earlier.all.value.length, 'remark')} on earlier versions`"
      @update:model-value="earlier.toggle"
    />
    <template v-if="earlier.shown.value && earlier.lost.value.length > 0">
      <h2>
        No place in this version <span class="figures">{{ earlier.lost.value.length }}</span>
      </h2>
      <ul>
        <li v-for="one in earlier.lost.value" :key="one.remark.id" :class="`kind-${one.remark.kind}`">
          <p class="old">{{ anchorName(one.remark.anchor) }}</p>
          <p v-if="one.remark.text">{{ one.remark.text }}</p>
          <RecordingView
            v-if="one.remark.recording"
            :recording="one.remark.recording"
            :label="`the remark on version ${one.version} about ${anchorName(one.remark.anchor)}`"
          />
          <v-btn
            v-if="movable"
            size="x-small"
            variant="outlined"
            :disabled="!target"
            @mousedown.prevent
            @click="$emit('here', one)"
          >
            {{ target ? `Put it at ${target}` : 'Select where it belongs' }}
          </v-btn>
        </li>
      </ul>
    </template>
  </section>
  <p v-if="earlier.error.value" class="refused" role="alert">
    {{ earlier.error.value }}
    <v-btn size="x-small" variant="outlined" @click="earlier.load">Look for earlier remarks again</v-btn>
  </p>
</template>

<style scoped>
.head {
  margin-bottom: 12px;
  padding: 8px 10px;
  border: 1px dashed var(--hairline);
  border-radius: 4px;
  font-size: 14px;
}
h2 {
  margin: 10px 0 4px;
  font-weight: 650;
  font-size: 14px;
}
h2 span {
  color: var(--quiet);
  font-weight: 400;
}
ul {
  list-style: none;
}
li + li {
  margin-top: 10px;
}
.old {
  font-family: var(--serif);
  overflow-wrap: anywhere;
}
li :deep(.v-btn__content) {
  max-width: 250px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.refused {
  margin-bottom: 12px;
  font-size: 14px;
}
</style>
