import {
  barTicks,
  ticksOfTimed,
  TUPLET_TIMES,
  type ScoreBar,
  type ScoreEvent,
  type TimedValue,
} from '@jam-ledger/core/notation';
import { Beam, Dot, GhostNote, StaveNote, Stem, Tuplet, type StemmableNote, type Tickable } from 'vexflow/core';
import { FretNote } from './fretNote.ts';
import { chordWidth, roomBefore, roomBehind, valueWidth } from './layout.ts';

/** One written value on the page: an event, or the part of it tied on. */
export interface Placed {
  readonly event: ScoreEvent;
  readonly note: Tickable & StemmableNote;
  readonly value: TimedValue;
  /** Place in the bar, ticks. */
  readonly at: number;
  /** False for the tied-on parts of an event. */
  readonly head: boolean;
}

/** The notes of a bar with the beams that join them, and the groups that tuplet numbers stand under. */
export interface BarNotes {
  readonly placed: readonly Placed[];
  readonly beams: readonly Beam[];
  readonly tuplets: readonly (readonly Placed[])[];
}

/** The look of stems, flags and dots; the music library would draw them black on any paper. */
const INK = { fillStyle: 'var(--ink)', strokeStyle: 'var(--ink)' } as const;

/** Makes the notes of one bar. */
export function notesOf(bar: ScoreBar): BarNotes {
  const placed = bar.events.flatMap(place);
  const tuplets = tupletGroups(placed);
  // Never drawn, since its number would be cut off below; it makes the notes as short as they are.
  for (const group of tuplets) joinTuplet(group);
  const beams = beamGroups(bar, placed).map((group) => {
    const beam = new Beam(group.map(({ note }) => note));
    beam.renderOptions.flatBeams = true;
    return beam;
  });
  return { placed, beams, tuplets };
}

/**
 * Spreads the notes of a formatted bar over a width by our own measure. The music library spaces by length
 * alone, and a chain of bends would run into the note after it.
 */
export function spaceNotes(placed: readonly Placed[], width: number): void {
  const wants = placed.map(({ event, value, head }) => {
    const before = head ? roomBefore(event) : 0;
    const behind = valueWidth(value) + (head ? roomBehind(event) : 0);
    return { before, behind: head ? Math.max(behind, chordWidth(event) - before) : behind };
  });
  const scale = width / wants.reduce((sum, { before, behind }) => sum + before + behind, 0);
  let x = 0;
  placed.forEach(({ note }, index) => {
    const { before = 0, behind = 0 } = wants[index] ?? {};
    note.checkTickContext().setX(x + before * scale);
    x += (before + behind) * scale;
  });
}

function place(event: ScoreEvent): readonly Placed[] {
  let at = event.at;
  return event.values.map((value, index) => {
    const head = index === 0 && !event.tied;
    const placed = { event, note: makeNote(event, value, head), value, at, head };
    at += ticksOfTimed(value);
    return placed;
  });
}

function makeNote(event: ScoreEvent, value: TimedValue, head: boolean): Tickable & StemmableNote {
  const duration = `${value.base}${'d'.repeat(value.dots)}`;
  if (!event.item) return restOf(event, value, duration);
  const { item, marks, sureness } = event;
  const quiet = marks.includes('quiet');
  const texts = item.notes.map(({ string, fret, harmonic }) => {
    const plain = fret === null ? '×' : String(fret);
    const shown = harmonic ? `‹${plain}›` : plain;
    return { string, text: quiet || !head ? `(${shown})` : shown };
  });
  const struct = {
    positions: item.notes.map(({ string, fret }) => ({ str: string, fret: fret ?? 'x' })),
    duration,
    stemDirection: Stem.DOWN,
  };
  const note = new FretNote(struct, texts, sureness !== null || !head, event.timed && value.base >= 4);
  note.setGroupStyle(INK);
  for (let dot = 0; dot < value.dots; dot += 1) note.addModifier(new Dot(), 0);
  return note;
}

function restOf(event: ScoreEvent, value: TimedValue, duration: string): Tickable & StemmableNote {
  if (!event.timed) return new GhostNote({ duration });
  const rest = new StaveNote({ keys: ['b/4'], duration: `${duration}r` });
  for (let dot = 0; dot < value.dots; dot += 1) rest.addModifier(new Dot(), 0);
  return rest;
}

/** Makes the notes of one tuplet as short as they are. */
export function joinTuplet(group: readonly { readonly note: Placed['note']; readonly value: TimedValue }[]): Tuplet {
  const notes = group.map(({ note }) => note);
  const tuplet = group[0]?.value.tuplet ?? 3;
  const options = { numNotes: tuplet, notesOccupied: TUPLET_TIMES[tuplet], bracketed: false, ratioed: false };
  return new Tuplet(notes, options);
}

/** Runs of one tuplet number, closed whenever they fill the time they stand for. */
export function tupletGroups(placed: readonly Placed[]): readonly (readonly Placed[])[] {
  const groups: Placed[][] = [];
  let filled = 0;
  let before: TimedValue | undefined;
  for (const one of placed) {
    const { value } = one;
    if (value.tuplet === undefined) {
      before = undefined;
      continue;
    }
    const group = groups.at(-1);
    const full = before ? filled >= groupTicks(groups.at(-1)?.[0]?.value ?? value) : true;
    if (!group || full || before?.tuplet !== value.tuplet) {
      groups.push([one]);
      filled = 0;
    } else group.push(one);
    filled += ticksOfTimed(value);
    before = value;
  }
  return groups;
}

function groupTicks(value: TimedValue): number {
  const times = value.tuplet === undefined ? 1 : TUPLET_TIMES[value.tuplet];
  return times * ticksOfTimed({ base: value.base, dots: 0 });
}

/** Runs of eighths and shorter inside one beat. */
export function beamGroups(bar: ScoreBar, placed: readonly Placed[]): readonly (readonly Placed[])[] {
  const beat = beatTicks(bar);
  const groups: Placed[][] = [];
  let before: Placed | undefined;
  for (const one of placed) {
    const beamed = one.event.item !== null && one.event.timed && one.value.base >= 8;
    const sameBeat = before && Math.floor(before.at / beat) === Math.floor(one.at / beat);
    if (beamed && sameBeat) groups.at(-1)?.push(one);
    else if (beamed) groups.push([one]);
    before = beamed ? one : undefined;
  }
  return groups.filter((group) => group.length > 1);
}

/** What a beam may span: a beat, or three eighths in compound meters. */
function beatTicks({ meter }: ScoreBar): number {
  const unit = barTicks({ beats: 1, unit: meter.unit });
  const compound = meter.unit >= 8 && meter.beats % 3 === 0;
  return Math.max(compound ? unit * 3 : unit, barTicks({ beats: 1, unit: 4 }));
}
