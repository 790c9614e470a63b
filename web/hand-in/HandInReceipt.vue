<script setup lang="ts">
import { readReceipt } from '#contract/submissions';
import { computed } from 'vue';
import { call } from '../session/api.ts';
import StateNote from '../shell/StateNote.vue';
import { useLoaded } from '../shell/use-loaded.ts';
import { byteSize, exactTime } from '../wording/format.ts';
import { receiptText } from './receipt-text.ts';

/** That something has been handed in, and when; and the way to see it as its teacher will. */
const props = defineProps<{ submission: string }>();

const { value, error, load } = useLoaded(
  () => call(readReceipt, { params: { submission: props.submission } }),
  () => props.submission,
);
const file = computed(
  () => value.value && `data:text/plain;charset=utf-8,${encodeURIComponent(receiptText(value.value))}`,
);
</script>

<template>
  <section class="receipt" role="status" aria-label="Receipt">
    <p class="title">It is handed in.</p>
    <StateNote v-if="!value" :busy="!error" :error="error" @retry="load" />
    <template v-else>
      <p>
        Version {{ value.version }} of {{ value.assignment }},
        <span class="figures">{{ exactTime(value.handedInAt) }}</span>.
        <template v-if="value.late">It came after the date, and your teacher gets it all the same.</template>
      </p>
      <ul v-if="value.files.length > 0">
        <li v-for="one in value.files" :key="one.sha256 + one.name">
          {{ one.name }} <span class="quiet figures">{{ byteSize(one.byteLength) }}</span>
        </li>
      </ul>
      <p class="row">
        <v-btn size="small" variant="outlined" :to="{ name: 'returned', params: { submission } }"
          >See it as your teacher will</v-btn
        >
        <a :href="file" :download="`Receipt ${value.assignment}, version ${value.version}.txt`">Keep the receipt</a>
      </p>
    </template>
  </section>
</template>

<style scoped>
.receipt {
  padding: 14px 18px;
  background: var(--paper);
  border: 1px solid var(--hairline);
}
.title {
  font-weight: 650;
}
ul {
  list-style: none;
}
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 16px;
  margin-top: 10px;
}
a {
  color: inherit;
  text-decoration: underline;
}
</style>
