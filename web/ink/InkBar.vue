<script setup lang="ts">
import { isShape, type InkTool } from '#core/ink';
import { PLAIN_COLOURS } from '#contract/ink';
import {
  mdiArrowTopRight,
  mdiCheck,
  mdiDownloadOutline,
  mdiTextBoxPlusOutline,
  mdiUploadOutline,
  mdiEllipseOutline,
  mdiEraser,
  mdiFormatText,
  mdiLasso,
  mdiMarker,
  mdiPen,
  mdiRectangleOutline,
  mdiVectorLine,
} from '@mdi/js';
import { computed, inject, ref } from 'vue';
import { useMarginKey } from '../feedback/margin-key.ts';
import { saveAsFile } from '../outbox/save-as-file.ts';
import FileInput from '../shell/FileInput.vue';
import { NoInkml } from './inkml-file.ts';
import { INKING } from './inking.ts';
import { useInkTools, WIDTHS, type Hand } from './ink-tools.ts';

/** What one draws with, above the work. */
const { on, hand, colour, width, beside, recolour } = useInkTools();
const margin = useMarginKey();

const HANDS: { hand: Hand; title: string; icon: string }[] = [
  { hand: 'pen', title: 'Pen', icon: mdiPen },
  { hand: 'highlighter', title: 'Highlighter', icon: mdiMarker },
  { hand: 'line', title: 'Straight line', icon: mdiVectorLine },
  { hand: 'arrow', title: 'Arrow', icon: mdiArrowTopRight },
  { hand: 'rectangle', title: 'Rectangle', icon: mdiRectangleOutline },
  { hand: 'ellipse', title: 'Ellipse', icon: mdiEllipseOutline },
  { hand: 'label', title: 'Words', icon: mdiFormatText },
  { hand: 'eraser', title: 'Rub out whole strokes', icon: mdiEraser },
  {
    hand: 'lasso',
    title: 'Draw around strokes to move them, make them larger, or give them another colour',
    icon: mdiLasso,
  },
];
const NAMES = { ink: 'Ink', grey: 'Grey', pale: 'Light grey' } as const;
const WIDTH_NAMES = ['Thin', 'Middle', 'Thick'] as const;

const colours = computed(() => [
  ...margin.key.value.map(({ kind, name, glyph }) => ({ colour: kind, name, glyph })),
  ...PLAIN_COLOURS.map((one) => ({ colour: one as string, name: NAMES[one], glyph: '' })),
]);
const hint = computed(() => {
  if (hand.value === 'lasso') return 'Draw around strokes, then drag them.';
  if (hand.value === 'eraser') return 'Move over strokes to rub them out.';
  if (hand.value === 'label') return 'Press where the words go.';
  return isShape(hand.value as InkTool) ? 'Drag; or Enter and arrow keys.' : 'Draw on the work.';
});

const inking = inject(INKING, undefined);
const problem = ref<string>();

function save(): void {
  const saved = inking?.save();
  problem.value = saved ? undefined : 'Nothing has been drawn on this work yet.';
  if (saved) saveAsFile(new Blob([saved.content], { type: 'application/inkml+xml' }), saved.name);
}

async function take([chosen]: [File, ...File[]]): Promise<void> {
  problem.value = undefined;
  try {
    await inking?.take(await chosen.text());
  } catch (error) {
    problem.value = error instanceof NoInkml ? error.message : 'This file cannot be read. Choose another.';
  }
}

function choose(one: string): void {
  colour.value = one;
  void recolour.trigger(one);
}
</script>

<template>
  <div class="bar" role="toolbar" aria-label="What you draw with" @mousedown.prevent>
    <v-btn
      v-for="one in HANDS"
      :key="one.hand"
      :icon="one.icon"
      size="28"
      :variant="hand === one.hand ? 'flat' : 'text'"
      :color="hand === one.hand ? 'primary' : undefined"
      :aria-label="one.title"
      :title="one.title"
      :aria-pressed="hand === one.hand"
      @click="hand = one.hand"
    />
    <span class="between" />
    <button
      v-for="(one, index) in WIDTHS"
      :key="one"
      type="button"
      class="width"
      :class="{ chosen: width === one }"
      :aria-label="WIDTH_NAMES[index]"
      :title="WIDTH_NAMES[index]"
      :aria-pressed="width === one"
      @click="width = one"
    >
      <span :style="{ height: `${one}px` }" />
    </button>
    <span class="between" />
    <button
      v-for="one in colours"
      :key="one.colour"
      type="button"
      class="colour"
      :class="[`kind-${one.colour}`, { chosen: colour === one.colour }]"
      :aria-label="one.name"
      :title="one.name"
      :aria-pressed="colour === one.colour"
      @click="choose(one.colour)"
    >
      {{ one.glyph }}
    </button>
    <span class="between" />
    <v-btn
      :icon="mdiTextBoxPlusOutline"
      size="28"
      :variant="beside ? 'flat' : 'text'"
      :color="beside ? 'primary' : undefined"
      aria-label="Free paper beside the work"
      title="Free paper beside the work"
      :aria-pressed="beside"
      @click="beside = !beside"
    />
    <v-btn
      :icon="mdiDownloadOutline"
      size="28"
      aria-label="Save the strokes of this work as InkML"
      title="Save the strokes of this work as InkML"
      @click="save"
    />
    <FileInput v-slot="{ open }" label="InkML file" accept=".inkml,.xml" @choose="take">
      <v-btn
        :icon="mdiUploadOutline"
        size="28"
        aria-label="Put the strokes of an InkML file on this page"
        title="Put the strokes of an InkML file on this page"
        @click="open"
      />
    </FileInput>
    <span class="hint" :role="problem ? 'alert' : undefined">{{ problem ?? hint }}</span>
    <v-btn size="small" variant="outlined" :prepend-icon="mdiCheck" title="Stop drawing (I)" @click="on = false"
      >Done</v-btn
    >
  </div>
</template>

<style scoped>
.bar {
  position: sticky;
  top: 44px;
  z-index: 4;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px;
  min-height: 44px;
  margin-bottom: 8px;
  padding: 4px 6px;
  background: var(--paper);
  border: 1px solid var(--hairline);
}
.between {
  width: 1px;
  height: 24px;
  margin: 0 2px;
  background: var(--hairline);
}
.width,
.colour {
  display: grid;
  place-items: center;
  width: 25px;
  height: 26px;
  border-radius: 4px;
}
.width span {
  width: 18px;
  background: currentcolor;
  border-radius: 4px;
}
.width.chosen {
  outline: 2px solid var(--ink);
  outline-offset: -2px;
}
.colour {
  background: var(--kind);
  color: var(--paper);
  font-weight: 600;
  font-size: 13px;
  border: 3px solid var(--paper);
}
.colour.chosen {
  outline: 2px solid var(--ink);
}
.hint {
  flex: 1;
  min-width: 9em;
  padding-left: 8px;
  color: var(--quiet);
  font-size: 13px;
}
@media (max-width: 900px) {
  .hint {
    display: none;
  }
}
</style>
