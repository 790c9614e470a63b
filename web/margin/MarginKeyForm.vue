<script setup lang="ts">
import { KEY_COLORS, KEY_GLYPHS, KEY_LINES, keyProblem, MAX_KINDS, type KeyEntry } from '#core/margin';
import { setMarginKey, type MarginKey } from '#contract/margin-key';
import { mdiArrowDown, mdiArrowUp, mdiPlus, mdiTrashCanOutline } from '@mdi/js';
import { computed, ref } from 'vue';
import { call } from '../session/api.ts';
import { useDeed } from '../shell/use-deed.ts';
import KindLine from './KindLine.vue';

/** The margin key of the course: what its kinds are called and how they are drawn. */
const props = defineProps<{ course: string; marginalKey: MarginKey }>();
const emit = defineEmits<{ done: [key: MarginKey]; leave: [] }>();

const entries = ref<KeyEntry[]>(props.marginalKey.map((entry) => ({ ...entry })));
const { busy, problem: refused, attempt } = useDeed();
const wrong = computed(() => keyProblem(entries.value));

const free = <T,>(all: readonly T[], used: readonly T[]): T => all.find((one) => !used.includes(one)) ?? all[0]!;

function add(): void {
  entries.value.push({
    kind: `kind-${crypto.randomUUID().slice(0, 8)}`,
    name: '',
    color: free(
      KEY_COLORS,
      entries.value.map(({ color }) => color),
    ),
    glyph: free(
      KEY_GLYPHS,
      entries.value.map(({ glyph }) => glyph),
    ),
    line: free(
      KEY_LINES,
      entries.value.map(({ line }) => line),
    ),
  });
}

function move(index: number, by: 1 | -1): void {
  const [entry] = entries.value.splice(index, 1);
  entries.value.splice(index + by, 0, entry!);
}

async function save(): Promise<void> {
  await attempt(async () => {
    const { key } = await call(setMarginKey, { params: { course: props.course }, body: { key: entries.value } });
    emit('done', key);
  });
}
</script>

<template>
  <div>
    <ol>
      <li
        v-for="(entry, index) in entries"
        :key="entry.kind"
        :style="{ '--kind': `rgb(var(--v-theme-${entry.color}))` }"
      >
        <div class="row">
          <kbd>{{ index + 1 }}</kbd>
          <v-text-field
            v-model="entry.name"
            density="compact"
            maxlength="24"
            :aria-label="`Name of kind ${index + 1}`"
            class="name"
          />
          <v-btn
            :icon="mdiArrowUp"
            size="24"
            :aria-label="`Move ${entry.name} up`"
            :disabled="index === 0"
            @click="move(index, -1)"
          />
          <v-btn
            :icon="mdiArrowDown"
            size="24"
            :aria-label="`Move ${entry.name} down`"
            :disabled="index === entries.length - 1"
            @click="move(index, 1)"
          />
          <v-btn
            :icon="mdiTrashCanOutline"
            size="24"
            :aria-label="`Remove ${entry.name}`"
            @click="entries.splice(index, 1)"
          />
        </div>
        <div class="row">
          <v-select v-model="entry.color" :items="[...KEY_COLORS]" :aria-label="`Colour of ${entry.name}`" />
          <v-select
            v-model="entry.glyph"
            class="glyph"
            :items="[...KEY_GLYPHS]"
            :aria-label="`Sign of ${entry.name}`"
          />
        </div>
        <div class="row">
          <v-select v-model="entry.line" :items="[...KEY_LINES]" :aria-label="`Line of ${entry.name}`" />
          <KindLine :kind="entry.kind" :line="entry.line" />
        </div>
      </li>
    </ol>
    <v-btn size="small" variant="outlined" :prepend-icon="mdiPlus" :disabled="entries.length >= MAX_KINDS" @click="add">
      Another kind
    </v-btn>
    <p v-if="wrong ?? refused" class="refused" role="alert">{{ wrong ?? refused }}</p>
    <div class="end">
      <v-btn size="small" @click="$emit('leave')">Leave it as it is</v-btn>
      <v-btn size="small" variant="flat" color="primary" :loading="busy" :disabled="wrong !== undefined" @click="save">
        Save
      </v-btn>
    </div>
  </div>
</template>

<style scoped>
ol {
  margin: 12px 0;
  list-style: none;
}
li {
  padding: 6px 0 8px;
  border-top: 1px solid var(--hairline);
}
.row {
  display: flex;
  align-items: center;
  gap: 4px;
  margin-top: 4px;
}
.name {
  flex: 1;
  min-width: 0;
  color: var(--kind);
  font-weight: 600;
}
.glyph {
  flex: 0 0 76px;
  color: var(--kind);
  font-weight: 600;
}
kbd {
  width: 1.2em;
  color: var(--quiet);
  font: inherit;
}
.refused {
  margin-top: 10px;
}
.end {
  display: flex;
  justify-content: flex-end;
  gap: 6px;
  margin-top: 14px;
}
</style>
