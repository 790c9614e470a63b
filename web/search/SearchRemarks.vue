<script setup lang="ts">
import { searchRemarks } from '#contract/search';
import { mdiMagnify } from '@mdi/js';
import { refDebounced } from '@vueuse/core';
import { computed, onBeforeUnmount, onMounted, ref, useTemplateRef } from 'vue';
import { call } from '../session/api.ts';
import { usePlayer } from '../player/player.ts';
import { useSession } from '../session/session.ts';
import StateNote from '../shell/StateNote.vue';
import { useLoaded } from '../shell/use-loaded.ts';
import SearchHit from './SearchHit.vue';

/** One field that looks through all that was said and written in remarks. */
const words = defineModel<string>({ required: true });

/** Milliseconds without a key, after which the words are looked for. */
const PATIENCE = 200;

const session = useSession();
const player = usePlayer();
const teaches = computed(() => session.person?.teaches === true);
const own = ref(false);
const wanted = refDebounced(
  computed(() => words.value.trim()),
  PATIENCE,
);
const field = useTemplateRef('field');

const { value, error, load } = useLoaded(async () => {
  const asked = wanted.value;
  return asked === ''
    ? undefined
    : { asked, ...(await call(searchRemarks, { body: { words: asked, own: own.value } })) };
}, [wanted, own]);
const found = computed(() => (value.value && value.value.hits.length > 0 ? value.value : undefined));
const count = computed(() => {
  const { hits, more } = found.value ?? { hits: [], more: false };
  if (more) return `Showing the first ${hits.length}. Add another word to narrow them down.`;
  return hits.length === 1 ? '1 remark' : `${hits.length} remarks`;
});

onMounted(() => field.value?.focus());
onBeforeUnmount(() => player.stop());
</script>

<template>
  <search>
    <div class="row">
      <v-text-field
        ref="field"
        v-model="words"
        class="field"
        type="search"
        label="Find remarks by their words"
        maxlength="200"
        autocomplete="off"
        :prepend-inner-icon="mdiMagnify"
      />
      <v-checkbox v-if="teaches" v-model="own" class="own" label="Only mine" />
    </div>
    <StateNote v-if="error" :error="error" @retry="load" />
    <p v-else-if="!value" class="quiet">
      Type any words from a remark, spoken, written or translated. Each result plays from those words.
    </p>
    <p v-else-if="!found" class="quiet" role="status">No remark has all of these words. Try fewer.</p>
    <template v-else>
      <p class="quiet" role="status">{{ count }}</p>
      <SearchHit
        v-for="hit in found.hits"
        :key="hit.remark.id"
        v-bind="hit"
        :find="found.asked"
        :route="teaches ? 'desk' : 'returned'"
      />
    </template>
  </search>
</template>

<style scoped>
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 16px;
}
.field {
  flex: 1 1 12rem;
}
.own {
  flex: none;
}
.quiet {
  margin: 10px 0 4px;
  font-size: 13px;
}
</style>
