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

/** The notes of a bar with the beams and tuplets that join them. */
export interface BarNotes {
  readonly placed: readonly Placed[];
  readonly beams: readonly Beam[];
  readonly tuplets: readonly Tuplet[];
}

/** Makes the notes of one bar. */
export function notesOf(bar: ScoreBar): BarNotes {
  const placed = bar.events.flatMap(place);
  const tuplets = tupletGroups(placed).map(
    (group) =>
      new Tuplet(
        group.map(({ note }) => note),
        { ...ratioOf(group), location: -1, bracketed: false, ratioed: false },
      ),
  );
  const beams = beamGroups(bar, placed).map((group) => {
    const beam = new Beam(group.map(({ note }) => note));
    beam.renderOptions.flatBeams = true;
    return beam;
  });
  return { placed, beams, tuplets };
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
  const note = new FretNote(struct, texts, sureness !== null || !head, event.timed);
  for (let dot = 0; dot < value.dots; dot += 1) note.addModifier(new Dot(), 0);
  return note;
}

function restOf(event: ScoreEvent, value: TimedValue, duration: string): Tickable & StemmableNote {
  if (!event.timed) return new GhostNote({ duration });
  const rest = new StaveNote({ keys: ['b/4'], duration: `${duration}r` });
  for (let dot = 0; dot < value.dots; dot += 1) rest.addModifier(new Dot(), 0);
  return rest;
}

/** Runs of one tuplet number, closed whenever they fill the time they stand for. */
function tupletGroups(placed: readonly Placed[]): readonly (readonly Placed[])[] {
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

function ratioOf(group: readonly Placed[]): { numNotes: number; notesOccupied: number } {
  const tuplet = group[0]?.value.tuplet ?? 3;
  return { numNotes: tuplet, notesOccupied: TUPLET_TIMES[tuplet] };
}

/** Runs of eighths and shorter inside one beat. */
function beamGroups(bar: ScoreBar, placed: readonly Placed[]): readonly (readonly Placed[])[] {
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
