import type { Guitar } from '../fretboard/index.ts';
import type { DraftNote } from '../listen/index.ts';
import { barTicks, TICKS_PER_QUARTER, type BendMove, type Link, type Meter } from '../notation/index.ts';
import type { BroughtBar, BroughtEvent, BroughtNote } from './brought.ts';
import { sectionsOf } from './fromBrought.ts';
import { OF_HANDS, quantised } from './midi/quantise.ts';

/** Where a draft stands in the song. */
export interface DraftSetting {
  readonly guitar: Guitar;
  readonly meter: Meter;
  /** Quarter notes a minute. */
  readonly bpm: number;
  /** When a bar begins, by the seconds of the drafted notes. */
  readonly barSeconds: number;
}

const LINKS: Readonly<Partial<Record<DraftNote['begins'], Link>>> = {
  hammered: 'hammer',
  pulled: 'pull',
  slid: 'slide',
};

/**
 * A draft as shorthand, every note of it a guess: its rhythm on the nearest places that are usual, its notes on the neck where the hand
 * goes least. Empty for no notes.
 *
 * @throws RangeError for a tempo not above 0
 */
export function draftText(notes: readonly DraftNote[], setting: DraftSetting): string {
  const { guitar, meter, bpm, barSeconds } = setting;
  if (!(bpm > 0)) throw new RangeError(`a tempo is above 0 quarter notes a minute, not ${bpm}`);
  if (notes.length === 0) return '';
  const ticksPerSecond = (bpm / 60) * TICKS_PER_QUARTER;
  const bar = barTicks(meter);
  const first = Math.floor(((notes[0]?.seconds ?? 0) - barSeconds) * (ticksPerSecond / bar) + 0.05) * bar;
  const timed = notes.map((note) => {
    const at = Math.max(0, (note.seconds - barSeconds) * ticksPerSecond - first);
    return { note, at, end: at + note.lasts * ticksPerSecond };
  });
  const placed = quantised(timed, OF_HANDS);
  const events = placed.flatMap(({ note: { note }, at, end }, index): BroughtEvent[] => {
    const next = placed[index + 1]?.at ?? Infinity;
    if (next <= at) return [];
    // What nearly reaches the next note is held until it.
    const until = next - end < TICKS_PER_QUARTER / 4 ? Math.min(next, end + TICKS_PER_QUARTER / 4) : end;
    const link = LINKS[note.begins];
    return [
      {
        ...{ at, ticks: Math.min(until, next) - at, isGrace: false, marks: [], words: [] },
        notes: [broughtNote(note)],
        ...(link && index > 0 && { link }),
      },
    ];
  });
  const last = events.at(-1);
  const count = Math.max(1, Math.ceil(((last?.at ?? 0) + (last?.ticks ?? bar)) / bar));
  const bars: BroughtBar[] = Array.from({ length: count }, (_, index) => ({
    ...{ at: index * bar, ticks: bar, meter, isRepeatStart: false },
  }));
  const part = { name: '', capo: guitar.capo, bars, events, chords: [] };
  const { sections } = sectionsOf(part, { guitar, cut: 'sections', meter });
  const text = sections.flatMap(({ phrases }) => phrases.map((one) => one.text)).join(' ');
  return text && `{guess: ${text} }`;
}

function broughtNote({ midi, bend, hasVibrato }: DraftNote): BroughtNote {
  const moves: BendMove[] = [];
  if (bend) moves.push({ kind: 'bend', steps: bend.cents / 200 });
  if (bend?.isReleased) moves.push({ kind: 'release', steps: 0 });
  return { midi, ...(moves.length > 0 && { moves }), ...(hasVibrato && { vibrato: 'narrow' as const }) };
}
