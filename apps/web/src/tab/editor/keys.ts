import type { EditorView, KeyBinding } from '@codemirror/view';
import {
  foldCase,
  insertItem,
  repeatEvent,
  sayAnotherWay,
  swapWays,
  togglePalmMute,
  transpose,
  wrapInRepeat,
  type Edit,
  type Edited,
  type Phrase,
  type Span,
} from '@jam-ledger/core/notation';

/** What the keys of the editor ask of the page around it. */
export interface EditorHost {
  /** The phrase as the text of the editor reads just now. */
  readPhrase(): Phrase;
  /** Any text as the editor reads it. */
  readonly readText: (text: string) => Phrase;
  playFrom(caret: Span): void;
  loopOver(selection: Span): void;
  goPhrase(by: 1 | -1): void;
  /** Says why something could not be done. */
  refuse(why: string): void;
}

/** The shortcuts, for the list that is shown on the page. */
export const SHORTCUTS = [
  ['Ctrl-Enter', 'play from the caret, or stop'],
  ['Ctrl-Shift-Enter', 'loop the selection'],
  ['Alt-↓ / Alt-↑', 'next or previous phrase'],
  ['Alt-r', 'the last event once more'],
  ['Alt-. / Alt-,', 'selection up or down a fret'],
  ['Alt-m', 'palm mute on or off'],
  ['Alt-b', 'bar line'],
  ['Alt-k', 'repeat around the selection'],
  ['Alt-s', 'selection said another way: letters, numbers, only where the string changes'],
  ['Alt-c', 'big and little letters of the selection'],
  ['Alt-t', 'the two ways change places'],
  ['Alt-i', 'write in the places that were found'],
  ['Alt-h', 'the note is heard where the song clock stands'],
  ['Alt-y', 'say it in words'],
  ['Alt-n', 'a new phrase'],
  ['Alt-g', 'this section again'],
  ['Alt-a', 'assign the phrase'],
  ['Alt-j', 'the next field: text, assign, name'],
  ['Alt-p', 'the next picking plan'],
  ['Alt-o', 'as recorded, or in one box'],
  ['Alt-w', 'why first, or where first'],
  ['Ctrl-Space', 'what may come next'],
  ['Tab', 'take what is offered; ↓ and Enter take another'],
  ['Ctrl-f', 'find'],
  ['Ctrl-z', 'undo'],
] as const;

/** Puts an edit into the editor as one step that can be undone. */
export function applyEdit(view: EditorView, { span, text, select }: Edit): void {
  view.dispatch({
    changes: { from: span.from, to: span.to, insert: text },
    selection: { anchor: select.from, head: select.to },
    scrollIntoView: true,
    userEvent: 'input',
  });
}

/** The keys of the shorthand editor, our own; they stand before the editor's usual ones. */
export function shorthandKeys(host: EditorHost): readonly KeyBinding[] {
  const selectionOf = (view: EditorView): Span => {
    const { from, to } = view.state.selection.main;
    return { from, to };
  };
  const editing = (edit: (text: string, phrase: Phrase, span: Span) => Edited) => (view: EditorView) => {
    const edited = edit(view.state.doc.toString(), host.readPhrase(), selectionOf(view));
    if (edited.ok) applyEdit(view, edited.edit);
    else host.refuse(edited.why);
    return true;
  };
  const asking = (ask: (span: Span) => void) => (view: EditorView) => {
    ask(selectionOf(view));
    return true;
  };
  return [
    { key: 'Mod-Enter', run: asking((span) => host.playFrom(span)), preventDefault: true },
    { key: 'Mod-Shift-Enter', run: asking((span) => host.loopOver(span)), preventDefault: true },
    { key: 'Alt-ArrowDown', run: asking(() => host.goPhrase(1)) },
    { key: 'Alt-ArrowUp', run: asking(() => host.goPhrase(-1)) },
    { key: 'Alt-r', run: editing((text, phrase, { to }) => repeatEvent(text, phrase, to)) },
    { key: 'Alt-.', run: editing((text, phrase, span) => transpose(text, phrase, span, 1)) },
    { key: 'Alt-,', run: editing((text, phrase, span) => transpose(text, phrase, span, -1)) },
    { key: 'Alt-m', run: editing(togglePalmMute) },
    { key: 'Alt-k', run: editing(wrapInRepeat) },
    { key: 'Alt-s', run: editing((text, phrase, span) => sayAnotherWay(text, phrase, span, host.readText)) },
    { key: 'Alt-c', run: editing(foldCase) },
    { key: 'Alt-t', run: editing((text, phrase, { to }) => swapWays(text, phrase, to)) },
    { key: 'Alt-b', run: editing((text, _phrase, { to }) => ({ ok: true, edit: insertItem(text, to, '|') })) },
  ];
}
