<script setup lang="ts">
import { countWords } from '#core/folio';
import {
  mdiFormatBold,
  mdiFormatItalic,
  mdiFormatListBulleted,
  mdiFormatListNumbered,
  mdiFormatHeader2,
  mdiFormatQuoteClose,
  mdiFormatHeader1,
  mdiFormatUnderline,
  mdiFunctionVariant,
  mdiRedo,
  mdiTableColumnPlusAfter,
  mdiTableColumnRemove,
  mdiTableLarge,
  mdiTableLargeRemove,
  mdiTableRowPlusAfter,
  mdiTableRowRemove,
  mdiUndo,
} from '@mdi/js';
import { Mathematics } from '@tiptap/extension-mathematics';
import { TableKit } from '@tiptap/extension-table';
import StarterKit from '@tiptap/starter-kit';
import { EditorContent, useEditor, type Editor } from '@tiptap/vue-3';
import { computed, ref, watch } from 'vue';
import FormulaBar from './FormulaBar.vue';

/** A work as it is typed: what one reads is what is handed in. */
const props = defineProps<{ html: string }>();
const emit = defineEmits<{ write: [html: string] }>();

interface Formula {
  latex: string;
  /** Where the one stands that is changed; none for a new one. */
  at?: number;
  block?: boolean;
}
const formula = ref<Formula>();
const katexOptions = { output: 'mathml', throwOnError: false } as const;

const editor = useEditor({
  content: props.html,
  extensions: [
    StarterKit.configure({ heading: { levels: [1, 2, 3] }, link: { openOnClick: false } }),
    TableKit.configure({ table: { resizable: false } }),
    Mathematics.configure({
      katexOptions,
      inlineOptions: { onClick: ({ attrs }, at) => (formula.value = { latex: attrs.latex as string, at }) },
      blockOptions: { onClick: ({ attrs }, at) => (formula.value = { latex: attrs.latex as string, at, block: true }) },
    }),
  ],
  editorProps: {
    attributes: {
      role: 'textbox',
      'aria-multiline': 'true',
      'aria-label': 'Your text',
      class: 'typed',
      spellcheck: 'true',
    },
  },
  onUpdate: ({ editor: one }) => emit('write', one.getHTML()),
});
watch(
  () => props.html,
  (html) => editor.value?.commands.setContent(html, { emitUpdate: false }),
);

interface Tool {
  name: string;
  icon: string;
  run: (editor: Editor) => void;
  on?: (editor: Editor) => boolean;
  off?: (editor: Editor) => boolean;
}
const heading = (level: 1 | 2, name: string): Tool => ({
  ...{ name, icon: level === 1 ? mdiFormatHeader1 : mdiFormatHeader2 },
  run: (one) => one.chain().focus().toggleHeading({ level }).run(),
  on: (one) => one.isActive('heading', { level }),
});
const TOOLS: readonly Tool[] = [
  heading(1, 'Title'),
  heading(2, 'Heading'),
  {
    ...{ name: 'Bold', icon: mdiFormatBold, on: (one) => one.isActive('bold') },
    run: (one) => one.chain().focus().toggleBold().run(),
  },
  {
    ...{ name: 'Italic', icon: mdiFormatItalic, on: (one) => one.isActive('italic') },
    run: (one) => one.chain().focus().toggleItalic().run(),
  },
  {
    ...{ name: 'Underline', icon: mdiFormatUnderline, on: (one) => one.isActive('underline') },
    run: (one) => one.chain().focus().toggleUnderline().run(),
  },
  {
    ...{ name: 'List', icon: mdiFormatListBulleted, on: (one) => one.isActive('bulletList') },
    run: (one) => one.chain().focus().toggleBulletList().run(),
  },
  {
    ...{ name: 'Numbered list', icon: mdiFormatListNumbered, on: (one) => one.isActive('orderedList') },
    run: (one) => one.chain().focus().toggleOrderedList().run(),
  },
  {
    ...{ name: 'Quotation', icon: mdiFormatQuoteClose, on: (one) => one.isActive('blockquote') },
    run: (one) => one.chain().focus().toggleBlockquote().run(),
  },
  {
    ...{ name: 'Table', icon: mdiTableLarge, off: (one) => one.isActive('table') },
    run: (one) => one.chain().focus().insertTable({ rows: 3, cols: 3, withHeaderRow: true }).run(),
  },
  { name: 'Formula', icon: mdiFunctionVariant, run: () => (formula.value = { latex: '' }) },
  {
    ...{ name: 'Undo', icon: mdiUndo, off: (one) => !one.can().undo() },
    run: (one) => one.chain().focus().undo().run(),
  },
  {
    ...{ name: 'Do it again', icon: mdiRedo, off: (one) => !one.can().redo() },
    run: (one) => one.chain().focus().redo().run(),
  },
];
const TABLE_TOOLS: readonly Tool[] = [
  { name: 'Row below', icon: mdiTableRowPlusAfter, run: (one) => one.chain().focus().addRowAfter().run() },
  { name: 'Column after', icon: mdiTableColumnPlusAfter, run: (one) => one.chain().focus().addColumnAfter().run() },
  { name: 'Take the row out', icon: mdiTableRowRemove, run: (one) => one.chain().focus().deleteRow().run() },
  { name: 'Take the column out', icon: mdiTableColumnRemove, run: (one) => one.chain().focus().deleteColumn().run() },
  { name: 'Take the table out', icon: mdiTableLargeRemove, run: (one) => one.chain().focus().deleteTable().run() },
];
const words = computed(() => countWords(editor.value?.getText({ blockSeparator: '\n' }) ?? ''));

function putIn(latex: string): void {
  const { at, block } = formula.value!;
  formula.value = undefined;
  const chain = editor.value!.chain().focus();
  if (at === undefined) chain.insertInlineMath({ latex }).run();
  else if (block) chain.updateBlockMath({ latex }).run();
  else chain.setNodeSelection(at).updateInlineMath({ latex }).run();
}

function leaveFormula(): void {
  formula.value = undefined;
  editor.value?.commands.focus();
}

defineExpose({ editor });
</script>

<template>
  <div v-if="editor" class="writing">
    <div class="tools" role="toolbar" aria-label="How it is set">
      <v-btn
        v-for="tool in TOOLS"
        :key="tool.name"
        :icon="tool.icon"
        size="36"
        :class="{ on: tool.on?.(editor) }"
        :aria-label="tool.name"
        :title="tool.name"
        :aria-pressed="tool.on?.(editor)"
        :disabled="tool.off?.(editor) ?? false"
        @mousedown.prevent
        @click="tool.run(editor)"
      />
      <span class="figures count">{{ words === 1 ? '1 word' : `${words} words` }}</span>
    </div>
    <FormulaBar v-if="formula" :key="formula.at ?? -1" :latex="formula.latex" @done="putIn" @close="leaveFormula" />
    <EditorContent :editor="editor" class="paper" />
    <!-- Below the text, so that nothing moves while one goes into a table. -->
    <div v-if="editor.isActive('table')" class="tools below" role="toolbar" aria-label="The table">
      <v-btn
        v-for="tool in TABLE_TOOLS"
        :key="tool.name"
        size="small"
        :prepend-icon="tool.icon"
        @mousedown.prevent
        @click="tool.run(editor)"
        >{{ tool.name }}</v-btn
      >
    </div>
  </div>
</template>

<style scoped>
.tools {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px;
  position: sticky;
  top: 0;
  z-index: 5;
  padding: 4px 0;
  background: var(--ground);
}
.below {
  top: auto;
  bottom: 0;
}
.on {
  background: var(--hairline);
}
.count {
  margin-left: auto;
  color: var(--quiet);
}
.paper {
  background: var(--paper);
  border: 1px solid var(--hairline);
}
.paper :deep(.typed) {
  min-height: 60vh;
  padding: 40px 44px;
  font-family: var(--serif);
  font-size: 19px;
  line-height: 1.5;
  overflow-wrap: anywhere;
}
.paper :deep(.typed > * + *) {
  margin-top: 0.7em;
}
.paper :deep(:is(h1, h2, h3)) {
  font-weight: 600;
  line-height: 1.25;
}
.paper :deep(:is(ul, ol)) {
  padding-left: 1.4em;
}
.paper :deep(blockquote) {
  padding-left: 1em;
  border-left: 3px solid var(--hairline);
}
.paper :deep(table) {
  width: 100%;
  border-collapse: collapse;
}
.paper :deep(:is(td, th)) {
  padding: 4px 8px;
  border: 1px solid var(--hairline);
  text-align: start;
  vertical-align: top;
}
.paper :deep([data-latex]) {
  cursor: pointer;
}
.paper :deep(.ProseMirror-selectednode) {
  outline: 2px solid var(--ink);
}
@media (max-width: 600px) {
  .paper :deep(.typed) {
    padding: 18px;
    font-size: 17px;
  }
}
</style>
