/** @jest-environment ./apps/web/test/pageEnvironment.mjs */
import { undo } from '@codemirror/commands';
import { diagnosticCount, forEachDiagnostic } from '@codemirror/lint';
import { EditorView, runScopeHandlers } from '@codemirror/view';
import { afterEach, describe, expect, test } from '@jest/globals';
import { readShorthand, type Span } from '@jam-ledger/core/notation';
import { OPEN_KEY, TUNINGS } from '@jam-ledger/core/pitch';
import { closeEditor, makeEditor, showProblems } from '../src/tab/editor/editor.ts';

afterEach(() => document.body.replaceChildren());

let opened = 0;

/** An editor of a text on a page, and all that it asked of the page around it. */
function open(text: string, textId = `text ${(opened += 1)}`) {
  const asked: string[] = [];
  const typed: string[] = [];
  const carets: Span[] = [];
  const phrase = () => readShorthand(view.state.doc.toString()).phrase;
  const say = (what: string) => (span: Span) => void asked.push(`${what} ${span.from}-${span.to}`);
  const view: EditorView = makeEditor({
    parent: document.body,
    ...{ text, textId, label: 'Phrase' },
    host: {
      readPhrase: phrase,
      playFrom: say('play'),
      loopOver: say('loop'),
      goPhrase: (by) => void asked.push(`phrase ${by}`),
      refuse: (why) => void asked.push(why),
      readText: (text) => readShorthand(text).phrase,
    },
    surroundings: () => ({
      ...{ phrase: phrase(), tuning: TUNINGS.standard, capo: 0, key: OPEN_KEY, frets: 22, names: 'letters' },
    }),
    typed: (to) => void typed.push(to),
    problemsOf: (of) => readShorthand(of).problems,
    moved: (caret) => void carets.push(caret),
  });
  showProblems(view, []);
  return {
    ...{ view, asked, typed, carets, textId },
    text: () => view.state.doc.toString(),
    /** Selects a part of the text, by what it says. */
    select(part: string) {
      const from = view.state.doc.toString().indexOf(part);
      view.dispatch({ selection: { anchor: from, head: from + part.length } });
    },
    press(key: string, more: KeyboardEventInit = {}) {
      return runScopeHandlers(view, new KeyboardEvent('keydown', { key, ...more }), 'editor');
    },
    /** Types as a browser would hand it over; whether the editor took it. */
    input(data: string, more: InputEventInit = {}) {
      const event = new InputEvent('beforeinput', {
        ...{ data, inputType: 'insertText', bubbles: true, cancelable: true },
        ...more,
      });
      view.contentDOM.dispatchEvent(event);
      return event.defaultPrevented;
    },
  };
}
const ALT = { altKey: true };

describe('the keys of the editor', () => {
  test.each([
    ['the last event once more', 'r', '/8 5G 7G', '7G', '/8 5G 7G 7G '],
    ['a fret up', '.', '/8 5G 7G', '5G 7G', '/8 6G 8G'],
    ['a fret down', ',', '/8 5G 7G', '7G', '/8 5G 6G'],
    ['palm mute on', 'm', '/8 5G 7G', '7G', '/8 5G {m: 7G }'],
    ['palm mute off', 'm', '/8 5G {m: 7G }', '7G', '/8 5G 7G'],
    ['a repeat around the selection', 'k', '/8 5G 7G', '5G 7G', '/8 [ 5G 7G ]2'],
    ['a bar line', 'b', '/8 5G 7G', '5G', '/8 5G | 7G'],
  ])('%s: Alt-%s', (_, key, before, selected, after) => {
    const editor = open(before);
    editor.select(selected);
    expect(editor.press(key, ALT)).toBe(true);
    expect(editor.text()).toBe(after);
    expect(editor.typed).toEqual([after]);
    undo(editor.view);
    expect(editor.text()).toBe(before);
  });

  test('what cannot be done is told, and nothing changes', () => {
    const editor = open('/8 0G 7G');
    editor.select('0G');
    editor.press(',', ALT);
    expect([editor.text(), editor.asked.length, editor.typed]).toEqual(['/8 0G 7G', 1, []]);
  });

  test('playing, looping and other phrases are asked of the page', () => {
    const editor = open('/8 5G 7G');
    editor.select('7G');
    editor.press('Enter', { ctrlKey: true });
    editor.press('Enter', { ctrlKey: true, shiftKey: true });
    editor.press('ArrowDown', ALT);
    editor.press('ArrowUp', ALT);
    expect(editor.asked).toEqual(['play 6-8', 'loop 6-8', 'phrase 1', 'phrase -1']);
  });

  test('the page is told where the caret goes', () => {
    const editor = open('/8 5G 7G');
    editor.select('5G');
    expect(editor.carets).toEqual([{ from: 3, to: 5 }]);
  });

  test('Tab leaves the editor while nothing is offered', () => expect(open('/8 5G').press('Tab')).toBe(false));
});

describe('typing', () => {
  test('goes into the text at once, over what is selected', () => {
    const editor = open('/8 5G 7G');
    editor.select('7G');
    expect(editor.input('9')).toBe(true);
    expect([editor.text(), editor.typed]).toEqual(['/8 5G 9', ['/8 5G 9']]);
  });

  test('a bracket closes itself, and its end is typed over', () => {
    const editor = open('');
    editor.input('[');
    expect(editor.text()).toBe('[]');
    editor.input(']');
    expect(editor.text()).toBe('[]');
  });

  test.each([
    ['composed', { isComposing: true }],
    ['pasted', { inputType: 'insertFromPaste' }],
    ['empty', { data: '' }],
  ])('what is %s is left to the browser', (_, more) => {
    const editor = open('/8 5G');
    expect(editor.input('é', more)).toBe(false);
    expect(editor.text()).toBe('/8 5G');
  });
});

describe('problems', () => {
  const told = ({ view }: { view: EditorView }) => {
    const found: string[] = [];
    forEachDiagnostic(view.state, ({ severity }, from, to) => void found.push(`${severity} ${from}-${to}`));
    return found;
  };

  test('are underlined with the change that makes them, and go with the one that mends them', () => {
    const editor = open('/8 5G 7G');
    editor.select('7G');
    editor.input('H');
    expect(told(editor)).toEqual(['error 6-7']);
    undo(editor.view);
    expect(diagnosticCount(editor.view.state)).toBe(0);
  });

  test('of a whole bar stand at its last item; hints are no warnings; none reaches behind the text', () => {
    const editor = open('/4 5G 7G | 9G');
    const problem = (from: number, to: number, severity: 'hint' | 'warning') => ({
      ...{ span: { from, to }, severity, message: 'Odd.', code: 'bend-unsized' as const },
    });
    showProblems(editor.view, [problem(0, 8, 'warning'), problem(11, 99, 'hint')]);
    expect(told(editor)).toEqual(['warning 6-8', 'info 11-13']);
  });
});

describe('an editor that is opened again', () => {
  test('goes on where it stood, with every step to undo', () => {
    const first = open('/8 5G');
    first.view.dispatch({ selection: { anchor: 5 } });
    first.input(' 7G');
    closeEditor(first.view, first.textId);
    const again = open('/8 5G 7G', first.textId);
    expect([again.text(), again.view.state.selection.main.head]).toEqual(['/8 5G 7G', 8]);
    undo(again.view);
    expect(again.text()).toBe('/8 5G');
  });

  test('shows what was changed elsewhere, and undo leads back to what stood here', () => {
    const first = open('/8 5G');
    closeEditor(first.view, first.textId);
    const again = open('/8 9G', first.textId);
    expect(again.text()).toBe('/8 9G');
    undo(again.view);
    expect(again.text()).toBe('/8 5G');
  });

  test('another text begins with nothing to undo', () => {
    const editor = open('/8 5G');
    expect(undo(editor.view)).toBe(false);
  });
});

describe('copied out of a song by feel', () => {
  const copied = (text: string, part: string, byFeel = true) => {
    const view = makeEditor({
      ...{ parent: document.body, text, textId: `copied ${(opened += 1)}`, label: 'Phrase', isByFeel: () => byFeel },
      host: {
        readPhrase: () => readShorthand(text).phrase,
        readText: (one) => readShorthand(one).phrase,
        ...{ playFrom: () => undefined, loopOver: () => undefined, goPhrase: () => undefined, refuse: () => undefined },
      },
      surroundings: () => ({
        phrase: readShorthand(text).phrase,
        ...{ tuning: TUNINGS.standard, capo: 0, key: OPEN_KEY, frets: 22, names: 'letters' },
      }),
      ...{ typed: () => undefined, problemsOf: () => [], moved: () => undefined },
    });
    const from = text.indexOf(part);
    view.dispatch({ selection: { anchor: from, head: from + part.length } });
    const [filter] = view.state.facet(EditorView.clipboardOutputFilter);
    return filter?.(part, view.state);
  };

  test('a text says that only the order of its notes is known, unless it says another value', () => {
    expect(copied('5G 7G 9G', '7G 9G')).toBe('/? 7G 9G');
    expect(copied('/8 5G 7G', '7G')).toBe('7G');
    expect(copied('5G /8 7G', '/8 7G')).toBe('/8 7G');
    expect(copied('5G 7G', '7G', false)).toBe('7G');
  });
});

describe('keys that say it another way', () => {
  test('letters, numbers, and only where the string changes', () => {
    const editor = open('7G 9G 5G');
    editor.select('7G 9G 5G');
    editor.press('s', { altKey: true });
    expect(editor.text()).toBe('7@3 9@3 5@3');
    editor.press('s', { altKey: true });
    expect(editor.text()).toBe('7G 9 5');
    undo(editor.view);
    expect(editor.text()).toBe('7@3 9@3 5@3');
  });

  test('the case of the letters, and the two ways of a few notes', () => {
    const editor = open('12E {either: 5G // 7G }');
    editor.select('12E');
    editor.press('c', { altKey: true });
    expect(editor.text()).toBe('12e {either: 5G // 7G }');
    editor.select('5G');
    editor.press('t', { altKey: true });
    expect(editor.text()).toBe('12e {either: 7G // 5G }');
  });

  test('what cannot be done is said', () => {
    const editor = open('12@1');
    editor.press('c', { altKey: true });
    editor.press('t', { altKey: true });
    expect(editor.asked).toEqual([
      'There is no letter of a string here.',
      'Stand inside {either: … // … } to swap its ways.',
    ]);
  });
});
