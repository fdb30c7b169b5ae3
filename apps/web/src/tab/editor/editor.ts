import {
  acceptCompletion,
  autocompletion,
  closeBrackets,
  closeBracketsKeymap,
  completionKeymap,
  completionStatus,
  selectedCompletionIndex,
  setSelectedCompletion,
} from '@codemirror/autocomplete';
import { defaultKeymap, history, historyField, historyKeymap } from '@codemirror/commands';
import { bracketMatching } from '@codemirror/language';
import { diagnosticCount, setDiagnostics, setDiagnosticsEffect, type Diagnostic } from '@codemirror/lint';
import { search, searchKeymap } from '@codemirror/search';
import { EditorState, type EditorStateConfig, type Extension, type Text } from '@codemirror/state';
import { EditorView, keymap, placeholder } from '@codemirror/view';
import type { Problem, Span } from '@jam-ledger/core/notation';
import { completeShorthand, type Surroundings } from './completion.ts';
import { shorthandKeys, type EditorHost } from './keys.ts';
import { shorthandLanguage } from './language.ts';

/** What an editor is made of. */
export interface EditorParts {
  readonly parent: HTMLElement;
  readonly text: string;
  readonly label: string;
  readonly host: EditorHost;
  readonly surroundings: () => Surroundings;
  readonly typed: (text: string) => void;
  /** What the reader says to a text; asked once for each change. */
  readonly problemsOf: (text: string) => readonly Problem[];
  readonly moved: (caret: Span) => void;
  /** Whether the text begins with the order of its notes alone, without saying so. */
  readonly isByFeel?: () => boolean;
  /** Names the text over the life of the page. */
  readonly textId: string;
}

/** Takes the completion that was chosen, else the first that is offered; nothing where none is. */
function takeOffered(view: EditorView): boolean {
  if (completionStatus(view.state) !== 'active') return false;
  if (selectedCompletionIndex(view.state) === null) view.dispatch({ effects: setSelectedCompletion(0) });
  return acceptCompletion(view);
}

/** What editors left behind when they were closed, by their text: caret and steps that can still be undone. */
const left = new Map<string, unknown>();

/** Makes the shorthand editor: meaning in colour, completion, brackets, find, and our own keys. */
export function makeEditor(parts: EditorParts): EditorView {
  return new EditorView({ parent: parts.parent, state: firstState(parts, configOf(parts)) });
}

/** Closes an editor; the next one of the same text goes on where it stood, with every step to undo. */
export function closeEditor(view: EditorView, textId: string): void {
  left.set(textId, view.state.toJSON({ history: historyField }));
  view.destroy();
}

function firstState({ text, textId }: EditorParts, config: EditorStateConfig): EditorState {
  const before = left.get(textId);
  if (before === undefined) return EditorState.create({ ...config, doc: text });
  const state = EditorState.fromJSON(before, config, { history: historyField });
  // Changed elsewhere in the meantime: that is one more step.
  if (state.doc.toString() === text) return state;
  return state.update({ changes: { from: 0, to: state.doc.length, insert: text } }).state;
}

function configOf(parts: EditorParts): EditorStateConfig {
  return {
    extensions: [
      history(),
      keymap.of([
        ...shorthandKeys(parts.host),
        ...closeBracketsKeymap,
        { key: 'Tab', run: takeOffered },
        ...completionKeymap,
        ...searchKeymap,
        ...historyKeymap,
        ...defaultKeymap,
      ]),
      shorthandLanguage(),
      closeBrackets(),
      bracketMatching(),
      typeWithoutTheBrowser,
      underlineWithTheChange(parts.problemsOf),
      search({ top: true }),
      autocompletion({
        override: [(context) => completeShorthand(context, parts.surroundings())],
        icons: false,
        defaultKeymap: false,
        // Nothing is chosen until an arrow key chooses it, so that Enter breaks the line whenever the list opens by itself.
        selectOnOpen: false,
        interactionDelay: 0,
      }),
      copiedByFeel(parts.isByFeel ?? (() => false)),
      EditorView.lineWrapping,
      EditorView.contentAttributes.of({ 'aria-label': parts.label, spellcheck: 'false', autocapitalize: 'off' }),
      placeholder('Fret, then string: 5G 7Gb1r p5 /4 7D~ | …'),
      EditorView.updateListener.of(({ docChanged, selectionSet, state }) => {
        if (docChanged) parts.typed(state.doc.toString());
        const { from, to } = state.selection.main;
        if (docChanged || selectionSet) parts.moved({ from, to });
      }),
    ],
  };
}

/**
 * Puts typed characters into the text directly. Left to the browser they would first be laid out by it, read back
 * from the page, and laid out again with their colours; words that are composed (accents, other scripts) still are.
 */
const typeWithoutTheBrowser = EditorView.domEventHandlers({
  beforeinput(event, view) {
    const { data, inputType, isComposing } = event;
    if (inputType !== 'insertText' || !data || isComposing || view.composing || view.state.readOnly) return false;
    event.preventDefault();
    const { from, to } = view.state.selection.main;
    const insert = () => view.state.update(view.state.replaceSelection(data), TYPED);
    if (view.state.facet(EditorView.inputHandler).some((handle) => handle(view, from, to, data, insert))) return true;
    view.dispatch(insert());
    return true;
  },
});

const TYPED = { userEvent: 'input.type', scrollIntoView: true };

/** What is copied out of a text that is by feel says so itself. */
function copiedByFeel(isByFeel: () => boolean): Extension {
  return EditorView.clipboardOutputFilter.of((copied, { doc, selection }) => {
    const before = doc.sliceString(0, selection.main.from);
    const isSaid = VALUE.test(before) || copied.trimStart().startsWith('/');
    return isByFeel() && !isSaid && copied.trim() !== '' ? `/? ${copied}` : copied;
  });
}

/** A value that holds from there on. */
const VALUE = /(?:^|\s)\/(?:\?|\d)/;

/** Underlines the problems of a changed text in the same step, so that the line is drawn once. */
function underlineWithTheChange(problemsOf: EditorParts['problemsOf']): Extension {
  return EditorState.transactionExtender.of(({ docChanged, newDoc, startState }) => {
    if (!docChanged) return null;
    const problems = problemsOf(newDoc.toString());
    if (problems.length === 0 && diagnosticCount(startState) === 0) return null;
    return { effects: setDiagnosticsEffect.of(diagnosticsOf(problems, newDoc)) };
  });
}

/** Underlines problems at their places. */
export function showProblems(view: EditorView, problems: readonly Problem[]): void {
  view.dispatch(setDiagnostics(view.state, diagnosticsOf(problems, view.state.doc)));
}

function diagnosticsOf(problems: readonly Problem[], text: Text): Diagnostic[] {
  return problems.map(({ span, severity, message }) => ({
    ...underlinedPart(span, text),
    severity: severity === 'hint' ? 'info' : severity,
    message,
  }));
}

/** Of a problem that a whole bar has, its last item: the eye goes to the bar line, and what is typed stays calm. */
function underlinedPart(span: Span, text: Text): Span {
  const to = Math.min(span.to, text.length);
  const from = Math.min(span.from, to);
  return { from: from + Math.max(0, text.sliceString(from, to).search(/\S+\s*$/)), to };
}
