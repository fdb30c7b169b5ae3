import { SHORTCUTS } from '../tab/index.ts';

/** A key, and what it does. */
export type KeyLine = readonly [key: string, what: string];

const EVERYWHERE: readonly KeyLine[] = [
  ['?', 'help with this page'],
  ['/', 'search (teachers)'],
];

/** What keys do on each page, by the name of its route. */
const KEYS: Readonly<Partial<Record<string, readonly KeyLine[]>>> = {
  desk: [['the letter at a line', 'opens it']],
  ledger: [
    ['← ↑ → ↓', 'from cell to cell'],
    ['Enter', 'opens a piece'],
    ['<', 'earlier days'],
    ['>', 'the newest days'],
    ['p', 'print'],
  ],
  lesson: [
    ['↓ / ↑', 'next or previous piece'],
    ['→ / ←', 'one step on or back'],
    ['c', 'clean'],
    ['n', 'not yet'],
    ['d', 'a rung lower'],
    ['h', 'hear it, or stop'],
    ['j / k', 'next or previous point to listen for'],
    ['t', 'the point was right'],
    ['r', 'a remark on the point'],
    ['x', 'leave the piece out today'],
    ['s', 'lesson clock: start or pause'],
    ['e', 'lesson summary'],
  ],
  pieces: [
    ['↓ / ↑', 'next or previous piece'],
    ['Alt-↓ / Alt-↑', 'move the piece'],
    ['g', 'assign it, or undo that'],
    ['h', 'split in two'],
    ['d', 'hard spot'],
    ['j', 'join with the next'],
    ['t', 'from the top to here'],
    ['Delete', 'remove from the plan'],
    ['Ctrl-z', 'undo'],
  ],
  piece: [
    ['→ / ←', 'one step on or back'],
    ['[ / ]', 'go round from here, to here'],
    ['0', 'the whole piece'],
    ['h', 'hear it, or stop'],
    ['c', 'clean'],
    ['n', 'not yet'],
  ],
  sheet: [['p', 'print']],
  'series-report': [['p', 'print']],
  song: [
    ['p', 'on the strip: run or stop the song clock'],
    ['d', 'on the strip: a section begins here'],
    ['s', 'on the strip: the phrase is heard from here'],
    ['b', 'on the strip: a beat falls here'],
    ['f', 'on the strip: fold or unfold the repeats'],
    ['+ / -', 'on the strip: zoom'],
    ['Alt-← / Alt-→', 'on a section: it starts earlier or later'],
    ...SHORTCUTS,
  ],
};

/** What keys do on a page, and everywhere. */
export function keysOfPage(name: unknown): readonly KeyLine[] {
  return [...((typeof name === 'string' ? KEYS[name] : undefined) ?? []), ...EVERYWHERE];
}
