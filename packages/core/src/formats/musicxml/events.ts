import {
  isPlucking,
  SURENESSES,
  type BendMove,
  type EventMark,
  type Finger,
  type PluckingMark,
  type Sureness,
  type WrittenNote,
} from '../../notation/index.ts';
import { HIGHEST_FRET, midiOf, NATURAL_PITCH, type Tuning } from '../../pitch/index.ts';
import { MAX_NOTES, type BroughtEvent, type BroughtNote } from '../brought.ts';
import { childOf, childrenOf, numberOf, textOf, type XmlElement } from '../xml.ts';
import { PLUCKING_LETTERS } from './notes.ts';

/** A MIDI number by letter, alteration in semitones and octave, middle C being C4; undefined where it is none. */
export function midiOfPitch(step: string, alter: number, octave: number | undefined): number | undefined {
  const natural = Object.entries(NATURAL_PITCH).find(([letter]) => letter === step)?.[1];
  if (natural === undefined || octave === undefined) return undefined;
  return 12 * (octave + 1) + natural + Math.round(alter);
}

/** Where a note of the file stands. Ticks. */
export interface NotePlace {
  readonly at: number;
  readonly ticks: number;
  /** Whether it is struck with the note before. */
  readonly isUpper: boolean;
  readonly isGrace: boolean;
  readonly tuning: Tuning | undefined;
  readonly capo: number;
}

/** A note with what it says of the event it will stand in. */
interface LooseNote {
  readonly note: BroughtNote;
  readonly at: number;
  ticks: number;
  readonly isGrace: boolean;
  readonly marks: readonly EventMark[];
  readonly sureness?: Sureness;
  readonly isQuiet: boolean;
  readonly plucked?: PluckingMark;
  readonly link?: BroughtEvent['link'];
  readonly slideIn?: BroughtEvent['slideIn'];
  readonly slideOut?: BroughtEvent['slideOut'];
  readonly arm: readonly number[];
  readonly barre?: number;
}

interface Swell {
  readonly at: number;
  readonly to: 'softer' | 'louder';
  readonly number: number;
}

/** A semitone to our whole steps. */
const STEPS_PER_SEMITONE = 0.5;

/** Puts the notes of a part together to events: what begins at one time is one stack; tied notes are one. */
export class EventMaker {
  /** Semitones that what sounds lies above what is written. */
  transposed = 0;
  readonly #tell: (message: string) => void;
  readonly #notes: LooseNote[] = [];
  /** The last note of each pitch and string, which a tie goes on. */
  readonly #last = new Map<string, LooseNote>();
  readonly #words: { at: number; text: string }[] = [];
  readonly #swells: (Swell & { until: number })[] = [];
  #count = 0;

  constructor(tell: (message: string) => void) {
    this.#tell = tell;
  }

  /** The end of the last note that begins not before a place. */
  endSince(at: number): number {
    const last = this.#notes.at(-1);
    return last && last.at >= at ? last.at + last.ticks : at;
  }

  words(text: string, at: number): void {
    this.#words.push({ at, text });
  }

  wedge(type: string, at: number): void {
    const last = this.#swells.at(-1);
    if (type === 'stop' && last) last.until = Math.min(last.until, at);
    if (type === 'crescendo' || type === 'diminuendo')
      this.#swells.push({
        at,
        until: Infinity,
        to: type === 'crescendo' ? 'louder' : 'softer',
        number: this.#swells.length + 1,
      });
  }

  add(note: XmlElement, place: NotePlace): void {
    this.#count += 1;
    if (this.#count > MAX_NOTES) return;
    const notations = childrenOf(note, 'notations');
    const all = notations.flatMap((one) => childrenOf(one));
    const technical = all.filter(({ name }) => name === 'technical').flatMap((one) => childrenOf(one));
    const isDead = textOf(note, 'notehead') === 'x' || childOf(note, 'unpitched') !== undefined;
    const midi = this.#pitch(note);
    const where = this.#place(technical, { midi, isDead, place });
    const key = where ? `${where.string}/${where.fret ?? 'x'}` : `midi ${midi ?? 'x'}`;
    const stops = [...childrenOf(note, 'tie'), ...all.filter(({ name }) => name === 'tied')].some(
      ({ attributes }) => attributes['type'] === 'stop',
    );
    const held = otherTexts(technical).find((text) => text.startsWith('held '));
    const before = this.#last.get(key);
    if (stops && !held && before && before.at + before.ticks === place.at) {
      before.ticks += place.ticks;
      return;
    }
    if (midi === undefined && !isDead) return this.#tell('A note has no pitch that can be read; it is left out.');
    const loose = looseNote({ note, all, technical }, { midi: isDead ? null : (midi ?? null), where, place });
    this.#notes.push(loose);
    this.#last.set(key, loose);
  }

  #pitch(note: XmlElement): number | undefined {
    const pitch = childOf(note, 'pitch');
    if (!pitch) return undefined;
    const midi = midiOfPitch(textOf(pitch, 'step'), numberOf(pitch, 'alter') ?? 0, numberOf(pitch, 'octave'));
    return midi === undefined ? undefined : midi + this.transposed;
  }

  /** The string and fret of a note where the file says them; told where they do not sound as the pitch. */
  #place(
    technical: readonly XmlElement[],
    { midi, isDead, place }: { readonly midi: number | undefined; readonly isDead: boolean; readonly place: NotePlace },
  ): { readonly string: number; readonly fret: number | null } | undefined {
    const string = Number(textOf(technical.find(({ name }) => name === 'string')));
    const fretText = textOf(technical.find(({ name }) => name === 'fret'));
    const isOpen = fretText === '' && technical.some(({ name }) => name === 'open-string');
    const fret = isOpen ? 0 : Number(fretText);
    const isKnown = Number.isInteger(string) && string >= 1 && string <= 9;
    if (!isKnown || (fretText === '' && !isOpen && !isDead)) return undefined;
    if (isDead) return { string, fret: null };
    if (!Number.isInteger(fret) || fret < 0 || fret > HIGHEST_FRET) return undefined;
    const { tuning, capo } = place;
    if (tuning && string <= tuning.openMidis.length && midi !== undefined) {
      const sounds = midiOf(tuning, string, fret, capo);
      if (sounds !== midi) {
        // Many write a guitar an octave above what sounds and do not say so.
        if (Math.abs(sounds - midi) !== 12)
          this.#tell(
            `String ${string}, fret ${fret} does not sound as the note that is written (MIDI ${sounds} and ${midi}); the fret is kept.`,
          );
      }
    }
    return { string, fret };
  }

  /** All events in time, and how many notes there were. */
  finish(end: number): { readonly events: readonly BroughtEvent[]; readonly count: number } {
    const sorted = this.#notes.toSorted((a, b) => a.at - b.at || Number(b.isGrace) - Number(a.isGrace));
    const stacks: LooseNote[][] = [];
    for (const note of sorted) {
      const last = stacks.at(-1)?.[0];
      if (last?.at === note.at && !last.isGrace && !note.isGrace) stacks.at(-1)?.push(note);
      else stacks.push([note]);
    }
    const words = [...this.#words].sort((a, b) => a.at - b.at);
    let nextWord = 0;
    const events = stacks.map((stack, index): BroughtEvent => {
      const said: string[] = [];
      const at = stack[0]?.at ?? 0;
      for (let word = words[nextWord]; word && word.at <= at; word = words[nextWord]) {
        said.push(word.text);
        nextWord += 1;
      }
      const next = stacks.slice(index + 1).find(([one]) => one?.isGrace === false)?.[0]?.at ?? end;
      return eventOf(stack, {
        next,
        words: said,
        swell: this.#swells.findLast((one) => one.at <= at && at < one.until),
      });
    });
    return { events, count: this.#count };
  }
}

/** One event of the notes that begin together; it lasts until the next begins, and what sounds on is marked as ringing. */
function eventOf(
  together: readonly LooseNote[],
  {
    next,
    words,
    swell,
  }: { readonly next: number; readonly words: readonly string[]; readonly swell: Swell | undefined },
): BroughtEvent {
  // A note that is sure stands first: what is said of others is said behind it.
  const stack = together.toSorted((a, b) => Number(a.sureness !== undefined) - Number(b.sureness !== undefined));
  const [first] = stack;
  if (!first) throw new RangeError('an event has notes');
  const longest = Math.max(...stack.map(({ ticks }) => ticks));
  const ticks = first.isGrace ? 0 : Math.min(longest, Math.max(0, next - first.at));
  const rings = longest > ticks && !first.isGrace;
  const isQuiet = stack.every((one) => one.isQuiet);
  const { sureness } = first;
  const plucked = stack.every((one) => one.plucked === first.plucked) ? first.plucked : undefined;
  const shared = [...new Set(stack.flatMap((one) => one.marks))];
  const marks: EventMark[] = [...(isQuiet ? (['quiet'] as const) : []), ...shared, ...(plucked ? [plucked] : [])];
  if (rings && !marks.includes('let-ring')) marks.push('let-ring');
  const of = <Key extends 'link' | 'slideIn' | 'slideOut' | 'barre'>(key: Key) =>
    stack.find((one) => one[key] !== undefined)?.[key];
  const [link, slideIn, slideOut, barre] = [of('link'), of('slideIn'), of('slideOut'), of('barre')];
  return {
    ...{ at: first.at, ticks, isGrace: first.isGrace, marks, words },
    notes: stack.map(({ note, isQuiet: quiet, sureness: sure, plucked: by }) => ({
      ...note,
      ...(by && !plucked && { plucked: by }),
      ...(quiet && !isQuiet && { quiet: true as const }),
      ...(sure && sure !== sureness && { sureness: sure }),
    })),
    arm: stack.flatMap(({ arm }) => arm),
    ...(link && { link }),
    ...(slideIn && { slideIn }),
    ...(slideOut && { slideOut }),
    ...(barre !== undefined && { barre }),
    ...(sureness && { sureness }),
    ...(swell && { swell: { to: swell.to, number: swell.number } }),
  };
}

interface Signs {
  readonly note: XmlElement;
  readonly all: readonly XmlElement[];
  readonly technical: readonly XmlElement[];
}

function looseNote(
  { note, all, technical }: Signs,
  {
    midi,
    where,
    place,
  }: { readonly midi: number | null; readonly where: BroughtNote['place']; readonly place: NotePlace },
): LooseNote {
  const has = (name: string) => technical.some((one) => one.name === name);
  const articulations = all.filter(({ name }) => name === 'articulations').flatMap((one) => childrenOf(one));
  const articulated = (...names: readonly string[]) => articulations.some(({ name }) => names.includes(name));
  const ornaments = all.filter(({ name }) => name === 'ornaments').flatMap((one) => childrenOf(one));
  const others = otherTexts(technical);
  const play = childOf(note, 'play');
  const link = linkOf(all, technical, others);
  const rings =
    childrenOf(play, 'other-play').some(({ attributes }) => attributes['type'] === 'let-ring') ||
    all.some(({ name, attributes }) => name === 'tied' && attributes['type'] === 'let-ring');
  const pluck = textOf(technical.find(({ name }) => name === 'pluck'));
  const plucked = pluckedBy(pluck);
  const marks: EventMark[] = [];
  const mark = (one: EventMark, when: boolean) => {
    if (when) marks.push(one);
  };
  mark('palm-mute', textOf(play, 'mute') === 'palm');
  mark('let-ring', rings);
  mark('down', has('down-bow'));
  mark('up', has('up-bow'));
  mark('cut', articulated('staccato', 'staccatissimo'));
  mark('accent', articulated('accent', 'strong-accent'));
  mark('rake', others.includes('rake'));
  mark(
    'rolled',
    all.some(({ name }) => name === 'arpeggiate'),
  );
  mark('plucked', others.includes('plucked'));
  mark(
    'tremolo',
    ornaments.some(({ name }) => name === 'tremolo'),
  );
  const sureness = SURENESSES.find((one) => one === textOf(note, 'level'));
  const barre = numberIn(others, /^barre (\d{1,2})$/);
  const slideIn = articulated('scoop') ? 'below' : articulated('plop') ? 'above' : undefined;
  const slideOut = articulated('doit') ? 'up' : articulated('falloff') ? 'down' : undefined;
  return {
    note: { midi, ...(where && { place: where }), ...noteSigns(technical, ornaments, others) },
    ...{ at: place.at, ticks: place.ticks, isGrace: place.isGrace, marks },
    isQuiet: childOf(note, 'notehead')?.attributes['parentheses'] === 'yes',
    arm: technical
      .filter((one) => one.name === 'bend' && childOf(one, 'with-bar'))
      .map((one) => (numberOf(one, 'bend-alter') ?? 0) * STEPS_PER_SEMITONE),
    ...(link && { link }),
    ...(slideIn && { slideIn }),
    ...(slideOut && { slideOut }),
    ...(barre !== undefined && { barre }),
    ...(sureness && { sureness }),
    ...(plucked && { plucked }),
  };
}

function otherTexts(technical: readonly XmlElement[]): readonly string[] {
  return technical.filter(({ name }) => name === 'other-technical').map((one) => textOf(one));
}

function numberIn(texts: readonly string[], pattern: RegExp): number | undefined {
  for (const text of texts) {
    const number = Number(pattern.exec(text)?.[1]);
    if (Number.isFinite(number)) return number;
  }
  return undefined;
}

function pluckedBy(letter: string): PluckingMark | undefined {
  return Object.keys(PLUCKING_LETTERS)
    .filter(isPlucking)
    .find((mark) => letter !== '' && PLUCKING_LETTERS[mark] === letter);
}

/** How a note grows out of the one before it. */
function linkOf(
  all: readonly XmlElement[],
  technical: readonly XmlElement[],
  others: readonly string[],
): BroughtEvent['link'] | undefined {
  const stops = (among: readonly XmlElement[], name: string) =>
    among.some((one) => one.name === name && one.attributes['type'] === 'stop');
  if (stops(technical, 'hammer-on')) return 'hammer';
  if (stops(technical, 'pull-off')) return 'pull';
  if (technical.some(({ name }) => name === 'tap')) return 'tap';
  if (stops(all, 'slide') || stops(all, 'glissando')) return stops(all, 'slur') ? 'slide' : 'shift';
  const nowhere = others.map((text) => /^from nowhere: (\w+)$/.exec(text)?.[1]).find(Boolean);
  return (['hammer', 'pull', 'slide', 'shift'] as const).find((link) => link === nowhere);
}

const FINGERS: readonly Finger[] = ['1', '2', '3', '4', 'T'];

/** Signs of one note alone. */
function noteSigns(
  technical: readonly XmlElement[],
  ornaments: readonly XmlElement[],
  others: readonly string[],
): Omit<BroughtNote, 'midi' | 'place'> {
  const fingerings = technical.filter(({ name }) => name === 'fingering');
  const fingerOf = (text: string): Finger | undefined => FINGERS.find((finger) => finger === text.toUpperCase());
  const finger = fingerOf(textOf(fingerings[0]));
  const fingerOr = fingerOf(textOf(fingerings.find(({ attributes }) => attributes['alternate'] === 'yes')));
  const behind = fingerOf(String(numberIn(others, /^finger (\d) behind$/) ?? ''));
  const harmonic = technical.find(({ name }) => name === 'harmonic');
  const trill = numberIn(
    ornaments.filter(({ name }) => name === 'other-ornament').map((one) => textOf(one)),
    /^trill with fret (\d{1,2})$/,
  );
  const isWide = ornaments.some((one) => one.name === 'other-ornament' && textOf(one) === 'wide vibrato');
  const vibrates = ornaments.some(({ name, attributes }) => name === 'wavy-line' && attributes['type'] === 'start');
  const held = numberIn(others, /^held ([\d.]+)$/);
  return {
    ...bendsOf(technical, held, others.includes('again')),
    ...(vibrates && { vibrato: isWide ? ('wide' as const) : ('narrow' as const) }),
    ...(harmonic && { harmonic: childOf(harmonic, 'artificial') ? ('pinch' as const) : ('natural' as const) }),
    ...(trill !== undefined && { trill }),
    ...(finger && { finger }),
    ...(fingerOr && fingerings.length > 1 && { fingerOr }),
    ...(behind && { fingerBehind: behind }),
  };
}

/** The moves of a bend: each element takes the string so many semitones up, or down where it is a release. */
function bendsOf(
  technical: readonly XmlElement[],
  held: number | undefined,
  isAgain: boolean,
): Pick<WrittenNote, 'preBend' | 'moves' | 'held' | 'again'> {
  let height = held ?? 0;
  let start: number | undefined;
  const moves: BendMove[] = [];
  for (const one of technical) {
    if (one.name !== 'bend' || childOf(one, 'with-bar')) continue;
    const steps = (numberOf(one, 'bend-alter') ?? 0) * STEPS_PER_SEMITONE;
    if (childOf(one, 'pre-bend') && moves.length === 0) {
      start = Math.abs(steps);
      height = start;
      continue;
    }
    const isRelease = childOf(one, 'release') !== undefined;
    height = Math.max(0, Math.round((isRelease ? height - Math.abs(steps) : height + steps) * 100) / 100);
    const slow = one.attributes['first-beat'] === '0' && one.attributes['last-beat'] === '100';
    moves.push({ kind: isRelease ? 'release' : 'bend', steps: height, ...(slow && { slow: true as const }) });
  }
  return {
    ...(start !== undefined && (isAgain ? { again: start } : { preBend: start })),
    ...(moves.length > 0 && { moves }),
    ...(held !== undefined && { held }),
  };
}
