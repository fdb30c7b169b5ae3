<script setup lang="ts">
import type { EditorView } from '@codemirror/view';
import type { StringNames } from '@jam-ledger/core/fretboard';
import { keepStrings, touchNeck, type Problem, type Reading, type Span } from '@jam-ledger/core/notation';
import type { Key, Tuning } from '@jam-ledger/core/pitch';
import Button from 'primevue/button';
import { onBeforeUnmount, onMounted, ref, useTemplateRef, watch } from 'vue';
import { applyEdit, loadedEditor, loadEditor, type Editor } from '../../tab/index.ts';

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
/** A plain field that takes what is typed until the editor is there. */
const plain = useTemplateRef('plain');
let view: EditorView | undefined;
const state = ref<'coming' | 'there' | 'failed'>(loadedEditor() ? 'there' : 'coming');
/** What is to be done as soon as it is there: the last that was asked. */
let wanted: ((view: EditorView) => void) | undefined;

/** The phrase as the text reads this very moment; the properties follow a moment later. */
function readPhrase() {
  return props.read(view?.state.doc.toString() ?? '').phrase;
}

/** The problems that are underlined just now. */
let underlined: readonly Problem[] = [];

async function open(): Promise<void> {
  state.value = 'coming';
  const loaded = await loadEditor().catch(() => undefined);
  if (loaded) begin(loaded);
  else state.value = 'failed';
}

/** Goes on with what the plain field holds, and where its caret stands. */
function begin({ makeEditor }: Editor): void {
  // The phrase may have been left by then.
  if (!root.value) return;
  const field = plain.value;
  view = makeEditor({
    parent: root.value,
    text: field?.value ?? props.text,
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
  if (field && field === document.activeElement) {
    view.dispatch({ selection: { anchor: field.selectionStart, head: field.selectionEnd } });
    view.focus();
  }
  state.value = 'there';
  wanted?.(view);
}
onMounted(() => {
  const loaded = loadedEditor();
  if (loaded) begin(loaded);
  else void open();
});
onBeforeUnmount(() => {
  if (view) loadedEditor()?.closeEditor(view, props.textId);
});

/** Does something in the editor, now or as soon as it is there. */
function inEditor(work: (view: EditorView) => void): void {
  if (view) work(view);
  else wanted = work;
}

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
  loadedEditor()?.showProblems(view, problems);
}

/** Puts the caret on a stretch of the text, and the keyboard into it. */
function select({ from, to }: Span): void {
  inEditor((there) => {
    const { length } = there.state.doc;
    there.dispatch({ selection: { anchor: Math.min(from, length), head: Math.min(to, length) }, scrollIntoView: true });
    there.focus();
  });
}

/** Replaces a stretch of the text, as one step that can be undone. */
function replace({ from, to }: Span, text: string): void {
  inEditor((there) => {
    const before = there.state.doc.toString();
    const after = before.slice(0, from) + text + before.slice(to);
    const kept = keepStrings(before, after, (one) => props.read(one).phrase);
    // What is written out behind the change is the same step.
    const end = kept === after ? to : before.length;
    there.dispatch({
      changes: { from, to: end, insert: kept.slice(from, kept.length - before.length + end) },
      userEvent: 'input',
    });
    there.focus();
  });
}

/** Writes a note where the caret stands, or into the stack before it. */
function touch(note: string, stack: boolean): void {
  inEditor((there) => {
    const { doc, selection } = there.state;
    applyEdit(there, touchNeck(doc.toString(), readPhrase(), selection.main.to, { note, stack }));
  });
}

/** Puts the keyboard into the text, behind what is there. */
function focus(): void {
  plain.value?.focus();
  plain.value?.setSelectionRange(props.text.length, props.text.length);
  view?.dispatch({ selection: { anchor: view.state.doc.length } });
  view?.focus();
}

defineExpose({ select, replace, touch, focus });
</script>

<template>
  <div ref="root" class="editor">
    <template v-if="state !== 'there'">
      <p v-if="state === 'failed'" class="failed" role="alert">
        The editor could not be loaded, since the studio cannot be reached.
        <Button size="small" text label="Try again" @click="open" />
      </p>
      <textarea
        ref="plain"
        :value="text"
        :aria-label="label"
        spellcheck="false"
        autocapitalize="off"
        @input="plain && emit('type', plain.value)"
      ></textarea>
    </template>
  </div>
</template>

<style scoped>
.editor {
  border: 1px solid var(--rule-strong);
  background: var(--page);
}
/* Until the editor is there, the text stands where its lines will. */
textarea {
  display: block;
  box-sizing: border-box;
  width: 100%;
  border: 0;
  resize: none;
  field-sizing: content;
  color: inherit;
  background: none;
  padding: 0.6rem 0.5rem 0.6rem calc(0.5rem + 6px);
  min-height: 4.2rem;
  max-height: 38vh;
  font: 600 1.05rem / 1.6 var(--type-mono);
}
.failed {
  margin: 0;
  padding: 4px 6px;
}
</style>
