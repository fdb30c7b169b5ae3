import { MARK_RECORDS, type EventMark } from '@jam-ledger/core/notation';
import type { Pen, Point } from './pen.ts';

/** Where a mark of an event is drawn, and how: a word or a shape in the row of the hands or under the stave, or a span above. */
type MarkDrawing =
  | { readonly at: 'hands' | 'stave'; readonly word: string }
  | { readonly at: 'hands'; readonly shape: (pen: Pen, place: Point) => void; readonly isStroke: boolean }
  | { readonly at: 'span'; readonly word: string }
  /** The fret itself shows it. */
  | { readonly at: 'fret' };

const wordOf = (mark: EventMark) => ({ at: 'hands', word: MARK_RECORDS[mark].sign }) as const;
const spanOf = (mark: EventMark) => ({ at: 'span', word: MARK_RECORDS[mark].sign }) as const;

/** How each mark is drawn; one without a drawing does not compile. */
export const MARK_DRAWINGS: Readonly<Record<EventMark, MarkDrawing>> = {
  quiet: { at: 'fret' },
  'palm-mute': spanOf('palm-mute'),
  'let-ring': spanOf('let-ring'),
  down: {
    at: 'hands',
    isStroke: true,
    shape(pen, { x, y }) {
      pen.line({ x: x - 4, y: y - 8 }, { x: x + 4, y: y - 8 }, 2.2);
      pen.line({ x: x - 4, y: y - 8 }, { x: x - 4, y });
      pen.line({ x: x + 4, y: y - 8 }, { x: x + 4, y });
    },
  },
  up: {
    at: 'hands',
    isStroke: true,
    shape(pen, { x, y }) {
      pen.line({ x: x - 4, y: y - 9 }, { x, y }, 1.3);
      pen.line({ x: x + 4, y: y - 9 }, { x, y }, 1.3);
    },
  },
  cut: { at: 'stave', word: MARK_RECORDS.cut.sign },
  accent: { at: 'stave', word: MARK_RECORDS.accent.sign },
  rake: wordOf('rake'),
  rolled: wordOf('rolled'),
  plucked: wordOf('plucked'),
  'plucked-thumb': wordOf('plucked-thumb'),
  'plucked-index': wordOf('plucked-index'),
  'plucked-middle': wordOf('plucked-middle'),
  'plucked-ring': wordOf('plucked-ring'),
  'plucked-little': wordOf('plucked-little'),
  tremolo: {
    at: 'hands',
    isStroke: false,
    shape(pen, { x, y }) {
      for (const lift of [0, 4, 8]) pen.line({ x: x - 4, y: y - lift + 1 }, { x: x + 4, y: y - lift - 2 }, 1.6);
    },
  },
};
