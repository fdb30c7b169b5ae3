<script setup lang="ts">
import { defaultKeymap, history, historyKeymap } from '@codemirror/commands';
import { setDiagnostics, type Diagnostic } from '@codemirror/lint';
import { EditorState } from '@codemirror/state';
import { EditorView, keymap, placeholder } from '@codemirror/view';
import type { Problem, Span } from '@jam-ledger/core/notation';
import { onBeforeUnmount, onMounted, useTemplateRef, watch } from 'vue';

const props = defineProps<{ text: string; problems: readonly Problem[]; label: string }>();
const emit = defineEmits<{ type: [text: string]; caret: [span: Span] }>();

const root = useTemplateRef('root');
let view: EditorView | undefined;

onMounted(() => {
  if (!root.value) return;
  view = new EditorView({
    parent: root.value,
    state: EditorState.create({
      doc: props.text,
      extensions: [
        history(),
        keymap.of([...defaultKeymap, ...historyKeymap]),
        EditorView.lineWrapping,
        EditorView.contentAttributes.of({ 'aria-label': props.label, spellcheck: 'false', autocapitalize: 'off' }),
        placeholder('Fret, then string: 5G 7Gb1r p5 /4 7D~ | …'),
        EditorView.updateListener.of((update) => {
          if (update.docChanged) emit('type', update.state.doc.toString());
          if (update.selectionSet || update.docChanged) {
            const { from, to } = update.state.selection.main;
            emit('caret', { from, to });
          }
        }),
      ],
    }),
  });
  showProblems();
});
onBeforeUnmount(() => view?.destroy());

watch(
  () => props.text,
  (text) => {
    if (!view || view.state.doc.toString() === text) return;
    view.dispatch({ changes: { from: 0, to: view.state.doc.length, insert: text } });
  },
);
watch(() => props.problems, showProblems);

function showProblems(): void {
  if (!view) return;
  const { length } = view.state.doc;
  const diagnostics: Diagnostic[] = props.problems.map(({ span, severity, message }) => ({
    from: Math.min(span.from, length),
    to: Math.min(span.to, length),
    severity: severity === 'hint' ? 'info' : severity,
    message,
  }));
  view.dispatch(setDiagnostics(view.state, diagnostics));
}

/** Puts the caret on a stretch of the text, and the keyboard into it. */
function select({ from, to }: Span): void {
  if (!view) return;
  const { length } = view.state.doc;
  view.dispatch({ selection: { anchor: Math.min(from, length), head: Math.min(to, length) }, scrollIntoView: true });
  view.focus();
}

/** Replaces a stretch of the text, as one step that can be undone. */
function replace({ from, to }: Span, text: string): void {
  view?.dispatch({ changes: { from, to, insert: text }, userEvent: 'input' });
  view?.focus();
}

defineExpose({ select, replace });
</script>

<template>
  <div ref="root" class="editor"></div>
</template>

<style scoped>
.editor {
  border: 1px solid var(--rule-strong);
  background: var(--page);
}
.editor :deep(.cm-editor.cm-focused) {
  outline: 2px solid var(--focus);
  outline-offset: 1px;
}
.editor :deep(.cm-content) {
  font-family: var(--type-mono);
  font-size: 1.05rem;
  line-height: 1.6;
  padding: 0.6rem 0.5rem;
  min-height: 4.2rem;
  max-height: 40vh;
  caret-color: var(--ink);
}
.editor :deep(.cm-scroller) {
  max-height: 38vh;
  overflow: auto;
}
.editor :deep(.cm-cursor) {
  border-left-color: var(--ink);
}
.editor :deep(.cm-placeholder) {
  color: var(--ink-soft);
}
.editor :deep(.cm-lintRange-error) {
  background: none;
  text-decoration: underline wavy var(--warm) 1.5px;
  text-underline-offset: 4px;
}
.editor :deep(.cm-lintRange-warning) {
  background: none;
  text-decoration: underline dashed var(--warm) 1.5px;
  text-underline-offset: 4px;
}
.editor :deep(.cm-lintRange-info) {
  background: none;
  text-decoration: underline dotted var(--cool) 2px;
  text-underline-offset: 4px;
}
.editor :deep(.cm-tooltip) {
  background: var(--page);
  color: var(--ink);
  border: 1px solid var(--rule-strong);
}
</style>
