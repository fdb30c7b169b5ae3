<script setup lang="ts">
import type { EditorView } from '@codemirror/view';
import type { StringNames } from '@jam-ledger/core/fretboard';
import { keepStrings, touchNeck, type Problem, type Reading, type Span } from '@jam-ledger/core/notation';
import type { Key, Tuning } from '@jam-ledger/core/pitch';
import { onBeforeUnmount, onMounted, useTemplateRef, watch } from 'vue';
import { applyEdit, closeEditor, makeEditor, showProblems } from '../../tab/index.ts';

const props = defineProps<{
  /** Names the text over the life of the page. */
  textId: string;
  text: string;
  problems: readonly Problem[];
  /** Reads the text as it is typed. */
  read: (text: string) => Reading;
  label: string;
  tuning: Tuning;
  capo: number;
  musicKey: Key;
  frets: number;
  /** How strings are named. */
  names: StringNames;
  /** Whether the song is written by feel. */
  byFeel: boolean;
}>();
const emit = defineEmits<{
  type: [text: string];
  caret: [span: Span];
  playFrom: [caret: Span];
  loopOver: [selection: Span];
  goPhrase: [by: 1 | -1];
  refuse: [why: string];
}>();

const root = useTemplateRef('root');
let view: EditorView | undefined;

/** The phrase as the text reads this very moment; the properties follow a moment later. */
function readPhrase() {
  return props.read(view?.state.doc.toString() ?? '').phrase;
}

/** The problems that are underlined just now. */
let underlined: readonly Problem[] = [];

onMounted(() => {
  if (!root.value) return;
  view = makeEditor({
    parent: root.value,
    text: props.text,
    label: props.label,
    textId: props.textId,
    isByFeel: () => props.byFeel,
    host: {
      readPhrase,
      readText: (text) => props.read(text).phrase,
      playFrom: (span) => emit('playFrom', span),
      loopOver: (span) => emit('loopOver', span),
      goPhrase: (by) => emit('goPhrase', by),
      refuse: (why) => emit('refuse', why),
    },
    surroundings: () => {
      const { tuning, capo, musicKey, frets, names } = props;
      return { phrase: readPhrase(), tuning, capo, key: musicKey, frets, names };
    },
    typed: (text) => emit('type', text),
    problemsOf: (text) => (underlined = props.read(text).problems),
    moved: (span) => emit('caret', span),
  });
  underline(props.problems);
});
onBeforeUnmount(() => {
  if (view) closeEditor(view, props.textId);
});

watch(
  () => props.text,
  (text) => {
    if (!view || view.state.doc.toString() === text) return;
    view.dispatch({ changes: { from: 0, to: view.state.doc.length, insert: text } });
  },
);
watch(() => props.problems, underline);

/** Underlines problems, unless the change that made them has done so. */
function underline(problems: readonly Problem[]): void {
  if (!view || problems === underlined) return;
  underlined = problems;
  showProblems(view, problems);
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
  if (!view) return;
  const before = view.state.doc.toString();
  const after = before.slice(0, from) + text + before.slice(to);
  const kept = keepStrings(before, after, (one) => props.read(one).phrase);
  // What is written out behind the change is the same step.
  const end = kept === after ? to : before.length;
  view.dispatch({
    changes: { from, to: end, insert: kept.slice(from, kept.length - before.length + end) },
    userEvent: 'input',
  });
  view.focus();
}

/** Writes a note where the caret stands, or into the stack before it. */
function touch(note: string, stack: boolean): void {
  if (!view) return;
  applyEdit(view, touchNeck(view.state.doc.toString(), readPhrase(), view.state.selection.main.to, { note, stack }));
}

/** Puts the keyboard into the text, behind what is there. */
function focus(): void {
  if (!view) return;
  view.dispatch({ selection: { anchor: view.state.doc.length } });
  view.focus();
}

defineExpose({ select, replace, touch, focus });
</script>

<template>
  <div ref="root" class="editor"></div>
</template>

<style scoped>
.editor {
  border: 1px solid var(--rule-strong);
  background: var(--page);
}
</style>
