<script setup lang="ts">
import type { Remark } from '#contract/remarks';
import type { Work } from '#contract/submissions';
import { KEY_INKS, keyEntry } from '#core/margin';
import { numbered, wordsOf } from '#core/marked';
import { computed, useTemplateRef } from 'vue';
import PaperStage from './PaperStage.vue';
import { PAPER_WIDTH } from './photograph.ts';

/** The words of all remarks with their numbers, to be printed behind the work. */
const props = defineProps<{ work: Work; remarks: readonly Remark[] }>();

const QUOTED = 160;

const entries = computed(() =>
  numbered(props.remarks, props.work.folio.leaves).map(({ remark, number }) => {
    const { name, color } = keyEntry(props.work.marginKey, remark.kind);
    return {
      id: remark.id,
      number,
      kind: name,
      ink: KEY_INKS[color],
      by: remark.author.name,
      about: aboutOf(remark),
      words: wordsOf(remark),
    };
  }),
);

function aboutOf({ anchor }: Remark): string | undefined {
  if (anchor.type === 'passage') {
    const { exact } = anchor.quote;
    return `“${exact.length > QUOTED ? `${exact.slice(0, QUOTED)} …` : exact}”`;
  }
  if (anchor.type === 'whole') return 'The whole work';
  return 'leaf' in anchor ? props.work.folio.leaves[anchor.leaf]?.label : undefined;
}

const root = useTemplateRef<HTMLElement>('root');
defineExpose({ root });
</script>

<template>
  <PaperStage>
    <div ref="root" :style="{ width: `${PAPER_WIDTH}px` }">
      <section data-leaf="0" class="remarks">
        <h1>Remarks</h1>
        <p class="of">{{ work.student.name }}, {{ work.assignment.title }}</p>
        <div v-for="{ id, number, kind, ink, by, about, words } in entries" :key="id" class="remark">
          <span class="number" :style="{ background: ink }">{{ number }}</span>
          <div>
            <p class="head">
              <strong>{{ kind }}</strong>, {{ by }}
            </p>
            <p v-if="about" class="about" dir="auto">{{ about }}</p>
            <p v-for="(one, index) in words" :key="index" class="words" dir="auto">{{ one }}</p>
          </div>
        </div>
      </section>
    </div>
  </PaperStage>
</template>

<style scoped>
.remarks {
  padding: 64px 72px;
  background: #fff;
  color: #22201c;
  font: 15px/1.5 var(--sans);
}
h1 {
  font: 650 22px/1.3 var(--sans);
}
.of {
  margin-bottom: 28px;
  color: #5f5a50;
}
.remark {
  display: grid;
  grid-template-columns: 44px 1fr;
  margin-bottom: 18px;
}
.number {
  justify-self: start;
  align-self: start;
  min-width: 22px;
  padding: 0 5px;
  color: #fff;
  font-size: 13px;
  font-weight: 700;
  line-height: 20px;
  text-align: center;
}
.head {
  font-size: 13px;
}
.about {
  font-family: var(--serif);
  font-style: italic;
}
.words {
  white-space: pre-line;
  overflow-wrap: anywhere;
}
</style>
