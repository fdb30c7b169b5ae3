import { ticksOfTimed, TUPLET_TIMES, type EventItem, type ScoreBar } from '@jam-ledger/core/notation';
import { spell, type Key } from '@jam-ledger/core/pitch';
import {
  Accidental,
  BarlineType,
  Beam,
  Dot,
  Formatter,
  GhostNote,
  Renderer,
  Stave,
  StaveNote,
  Tuplet,
  VexFlow,
  Voice,
  type RenderContext,
} from 'vexflow/core';
import { beamGroups, tupletGroups, type Placed } from './rhythm.ts';
import { MUSIC_FONT, type Pen } from './pen.ts';
import {
  bentOf,
  BOTTOM_STEP,
  soundsAt,
  STEP_PIXELS,
  stepsOf,
  TOP_STEP,
  WRITTEN_ABOVE,
  type StaffSetUp,
} from './staff.ts';

VexFlow.setFonts(MUSIC_FONT);

export type { RenderContext, Stave } from 'vexflow/core';

/** Where the music library draws: an image of a size in an empty element. Pixels. */
export function contextOf(element: HTMLDivElement, width: number, height: number): RenderContext {
  const renderer = new Renderer(element, Renderer.Backends.SVG);
  renderer.resize(width, height);
  const context = renderer.getContext();
  context.setFillStyle('var(--ink)');
  context.setStrokeStyle('var(--ink)');
  context.setBackgroundFillStyle('var(--page)');
  return context;
}

/** Where a bar of standard notation stands, and from where on its notes may. Pixels. */
export interface StaffPlace {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly notesFrom: number;
}

/** Draws the stave of one bar without its bar lines; the first of a system bears clef and key signature. */
export function drawStave(context: RenderContext, place: StaffPlace, setUp: StaffSetUp, first: boolean): Stave {
  const stave = makeStaff(place, setUp, first);
  stave.setEndBarType(BarlineType.NONE);
  stave.setNoteStartX(place.notesFrom);
  context.save();
  context.setStrokeStyle('var(--stave)');
  context.setFillStyle('var(--stave)');
  stave.setContext(context).draw();
  context.restore();
  return stave;
}

function makeStaff(at: { x: number; y: number; width: number }, setUp: StaffSetUp, first: boolean): Stave {
  const stave = new Stave(at.x, at.y, at.width, { spaceAboveStaffLn: 0, spaceBelowStaffLn: 0, leftBar: first });
  if (first) stave.addClef('treble', 'default', '8vb').addKeySignature(signatureOf(setUp.key));
  return stave;
}

/** A value of the tab with its note in standard notation. */
interface StaffPlaced extends Placed {
  readonly note: StaveNote | GhostNote;
}

/** One bar and the stave its notes stand on. */
export interface StaffBar {
  readonly bar: ScoreBar;
  readonly placed: readonly Placed[];
  readonly stave: Stave;
  readonly setUp: StaffSetUp;
}

/**
 * Draws the notes of a bar right above their frets: where a string is bent, what sounds, and as small notes what it is bent or let
 * back to. What slides do is told by the tab.
 */
export function drawStaffNotes(context: RenderContext, pen: Pen, { bar, placed, stave, setUp }: StaffBar): void {
  const notes = placed.map((one): StaffPlaced => ({ ...one, note: staffNote(one, setUp) }));
  const tuplets = tupletGroups(notes).map(joinTuplet);
  const beams = beamGroups(bar, notes).map((group) => {
    const beam = new Beam(
      group.map(({ note }) => note),
      true,
    );
    beam.renderOptions.flatBeams = true;
    return beam.setStyle(INK);
  });
  const voice = new Voice({ numBeats: bar.meter.beats, beatValue: bar.meter.unit }).setMode(Voice.Mode.SOFT);
  voice.addTickables(notes.map(({ note }) => note));
  Accidental.applyAccidentals([voice], signatureOf(setUp.key));
  new Formatter().joinVoices([voice]).format([voice], 100);
  for (const { note, x } of notes) {
    note.setStave(stave);
    const ticks = note.checkTickContext();
    ticks.setX(ticks.getX() + x - HEAD_HALF - note.getAbsoluteX());
  }
  voice.draw(context, stave);
  for (const beam of beams) beam.setContext(context).draw();
  for (const tuplet of tuplets) tuplet.setContext(context).draw();
  drawTies(pen, notes);
  for (const [index, one] of notes.entries())
    if (notes[index - 1]?.event !== one.event) drawBent(pen, one, stave, setUp);
}

/** noteheadBlack. */
const HEAD = '\uE0A4';
/** Size of a small head against a whole one, its width, and from one to the next. Pixels. */
const SMALL = 0.66;
const SMALL_PIXELS = 7;
const SMALL_GAP = 15;

/** Small notes behind a note that is bent, each joined to the one before it. */
function drawBent(pen: Pen, { event, note }: StaffPlaced, stave: Stave, setUp: StaffSetUp): void {
  if (!event.item || event.tied) return;
  const top = stave.getYForLine(0);
  const yOf = (step: number) => top + (TOP_STEP - step) * STEP_PIXELS;
  const from = stepsOf(event.item, setUp);
  bentOf(event.item, setUp).forEach((pitches, index) => {
    let at = { x: note.getAbsoluteX() + HEAD_HALF, y: yOf(from[index] ?? BOTTOM_STEP) };
    pitches.forEach(({ step, sign }, order) => {
      const x = note.getAbsoluteX() + 2 * HEAD_HALF + 6 + order * SMALL_GAP;
      const y = yOf(step);
      if (sign !== '') pen.glyph(sign, { x: x - 7, y }, SMALL);
      pen.glyph(HEAD, { x, y }, SMALL);
      for (let line = TOP_STEP + 2; line <= step; line += 2)
        pen.rule({ x: x - 2, y: yOf(line) }, { x: x + SMALL_PIXELS + 2, y: yOf(line) });
      for (let line = BOTTOM_STEP - 2; line >= step; line -= 2)
        pen.rule({ x: x - 2, y: yOf(line) }, { x: x + SMALL_PIXELS + 2, y: yOf(line) });
      pen.arc({ x: at.x, y: at.y - 5 }, { x: x + SMALL_PIXELS / 2, y: y - 4 }, 5);
      at = { x: x + SMALL_PIXELS / 2, y };
    });
  });
}

/** Half the width of a note head. Pixels. */
const HEAD_HALF = 6;

function joinTuplet(group: readonly StaffPlaced[]): Tuplet {
  const tuplet = group[0]?.value.tuplet ?? 3;
  const options = { numNotes: tuplet, notesOccupied: TUPLET_TIMES[tuplet], bracketed: false, ratioed: false };
  return new Tuplet(
    group.map(({ note }) => note),
    options,
  );
}

const INK = { fillStyle: 'var(--ink)', strokeStyle: 'var(--ink)' } as const;

function staffNote({ event, value }: Placed, setUp: StaffSetUp): StaffPlaced['note'] {
  const duration = `${value.base}${'d'.repeat(value.dots)}`;
  const { item } = event;
  if (!item) {
    if (!event.timed) return new GhostNote({ duration });
    return dotted(new StaveNote({ keys: ['b/4'], duration: `${duration}r` }), value.dots);
  }
  const note = dotted(new StaveNote({ keys: keysOf(item, setUp), duration, autoStem: true }), value.dots);
  note.setGroupStyle(INK);
  note.setLedgerLineStyle(INK);
  return note;
}

function dotted(note: StaveNote, dots: number): StaveNote {
  for (let dot = 0; dot < dots; dot += 1) Dot.buildAndAttach([note], { all: true });
  return note;
}

/** The keys of a stack, lowest first, as the music library names them; a dead note has a cross for a head. */
function keysOf({ notes }: EventItem, { tuning, capo, key }: StaffSetUp): string[] {
  const written = notes.map((note) => ({
    midi: soundsAt(note, tuning, capo) + WRITTEN_ABOVE,
    dead: note.fret === null,
  }));
  return written
    .sort((a, b) => a.midi - b.midi)
    .map(({ midi, dead }) => {
      const { letter, alter, octave } = spell(midi, key);
      const sign = dead ? '' : alter >= 0 ? '#'.repeat(alter) : 'b'.repeat(-alter);
      return `${letter.toLowerCase()}${sign}/${octave}${dead ? '/x2' : ''}`;
    });
}

/** Major keys by their signature, from seven flats to seven sharps. */
const SIGNATURES = ['Cb', 'Gb', 'Db', 'Ab', 'Eb', 'Bb', 'F', 'C', 'G', 'D', 'A', 'E', 'B', 'F#', 'C#'];

function signatureOf({ fifths }: Key): string {
  return SIGNATURES[fifths + 7] ?? 'C';
}

/** Ties between the written values of one event. */
function drawTies(pen: Pen, placed: readonly StaffPlaced[]): void {
  placed.forEach(({ event, note, at }, index) => {
    const next = placed[index + 1];
    if (!event.item || next?.event !== event || next.at <= at || ticksOfTimed(next.value) <= 0) return;
    const y = Math.max(...note.getYs()) + 6;
    pen.arc({ x: note.getAbsoluteX() + 6, y }, { x: next.note.getAbsoluteX() - 2, y }, -8);
  });
}
