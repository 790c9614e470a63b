<script setup lang="ts">
import { readUses, takeBetter } from '#contract/bank';
import { call } from '../session/api.ts';
import StateNote from '../shell/StateNote.vue';
import { useDeed } from '../shell/use-deed.ts';
import { useLoaded } from '../shell/use-loaded.ts';
import { counted, dayAndTime } from '../wording/format.ts';

/** Where a banked remark was said, and what came of it. */
const props = defineProps<{ banked: string }>();
const emit = defineEmits<{ changed: [] }>();

const { problem, attempt } = useDeed();
const { value, error, load } = useLoaded(
  () => call(readUses, { params: { banked: props.banked } }),
  () => props.banked,
);

async function take(remark: string): Promise<void> {
  await attempt(async () => {
    await call(takeBetter, { params: { banked: props.banked }, body: { remark, recording: crypto.randomUUID() } });
    emit('changed');
    await load();
  });
}
</script>

<template>
  <section aria-label="Where it was said">
    <StateNote v-if="!value" :busy="!error" :error="error" @retry="load" />
    <p v-else-if="value.length === 0" class="fine">You have not used it yet.</p>
    <ul v-else>
      <li v-for="use in value" :key="use.remark">
        <router-link :to="{ name: 'desk', params: { submission: use.submission }, hash: `#${use.remark}` }">{{
          use.student
        }}</router-link>
        <span class="fine">
          {{ use.assignment }}, {{ dayAndTime(use.usedAt) }};
          {{ use.heardAt ? `heard ${dayAndTime(use.heardAt)}` : 'not heard yet'
          }}{{ use.answers > 0 ? `; ${counted(use.answers, 'answer')}` : '' }}
        </span>
        <v-btn v-if="use.edited" size="x-small" variant="outlined" @click="take(use.remark)">
          Take this version into the bank
        </v-btn>
      </li>
    </ul>
    <p v-if="problem" class="refused" role="alert">{{ problem }}</p>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 8px;
  align-items: baseline;
  padding: 4px 0;
}
</style>
