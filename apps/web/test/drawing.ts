import { readShorthand, scoreOf } from '@jam-ledger/core/notation';
import { loadNotation } from '../src/tab/engraving/notation.ts';
import { piecesOf } from '../src/tab/engraving/pen.ts';
import { TabView, type TabContent } from '../src/tab/engraving/tabView.ts';

// Standard notation comes when it is first shown; here it always is.
await loadNotation();

/** A word or a sign on a page, and where it stands. */
export interface Sign {
  readonly text: string;
  readonly x: number;
  readonly y: number;
  readonly look: string;
}

/** A tab as it is drawn on a page. */
export interface Sheet {
  readonly view: TabView;
  readonly root: HTMLElement;
  /** Shows another text in the place of the one before. */
  show(text: string, more?: Partial<TabContent>): void;
  /** Every word and sign, as they are drawn. */
  signs(): readonly Sign[];
  /** What is written, without the word “tab” at the head of a line. */
  written(): readonly string[];
  /** Outlines that have some look, each as one string of moves. */
  outlines(look: RegExp): readonly string[];
}

/** Draws a text as it would stand on a page; the page is as wide as asked for. */
export function draw(text: string, more: Partial<TabContent> = {}): Sheet {
  const root = document.createElement('div');
  document.body.append(root);
  const view = new TabView(root);
  const sheet: Sheet = {
    ...{ view, root },
    show(shown, options = {}) {
      const bars = scoreOf(readShorthand(shown).phrase);
      view.show({ bars, width: 800, strings: 6, ...more, ...options });
    },
    signs: () =>
      [...root.querySelectorAll('text')].flatMap((one) =>
        piecesOf(one).map((piece) => ({ ...piece, look: one.outerHTML.split('>')[0] ?? '' })),
      ),
    // The word at the head of a line is as large as nothing else.
    written: () => sheet.signs().flatMap(({ text: sign, look }) => (look.includes('font-size="15"') ? [] : [sign])),
    outlines: (look) =>
      [...root.querySelectorAll('path')]
        .filter((one) => look.test(one.outerHTML))
        .flatMap((one) => (one.getAttribute('d') ?? '').split(/(?=M)/)),
  };
  sheet.show(text);
  return sheet;
}
