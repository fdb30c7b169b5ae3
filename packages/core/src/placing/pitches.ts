import { chromaOfDegree } from '../harmony/index.ts';
import { isNest, type EventItem, type Item, type Phrase, type WrittenNote } from '../notation/index.ts';
import { chromaOfName } from '../pitch/index.ts';
import { pitchAt, topFret, type Guitar } from '../fretboard/index.ts';

/** What is to be found for an event: the pitch of each note that was named, and the box that was said. */
export interface Wanted {
  /** MIDI numbers by the place of the note in its stack. */
  readonly midis: ReadonlyMap<number, number>;
  /** Fret where the first finger stays; undefined where the hand goes where it likes. */
  readonly box: number | undefined;
}

/** Frets under a hand that stays: one a finger. Source: common practice. */
const BOX_FRETS = 4;

/**
 * The pitch of every note that was named or said by its degree: in the octave of the guitar nearest to the note that sounds before
 * it, upward where two are as near; the first note of all lowest in the box, or from the open strings. Linear; in the order of the text.
 */
export function wantedOf(phrase: Phrase, guitar: Guitar, saidBox: number | undefined): ReadonlyMap<EventItem, Wanted> {
  const found = new Map<EventItem, Wanted>();
  let chord: string | null = null;
  let box = saidBox;
  let before: number | undefined;
  const event = (item: EventItem): void => {
    const midis = new Map<number, number>();
    let last = before;
    item.notes.forEach((note, at) => {
      const midi = pitchOf(note, item, { chord, before: last, guitar, box });
      if (note.sought && midi !== undefined) midis.set(at, midi);
      last = midi ?? last;
    });
    before = last === undefined ? undefined : last + 2 * heightAfter(item.notes.at(-1));
    if (item.notes.some(({ sought }) => sought)) found.set(item, { midis, box });
  };
  const walk = (items: readonly Item[]): void => {
    for (const item of items) {
      if (item.kind === 'event') event(item);
      else if (item.kind === 'harmony') chord = item.chord;
      else if (item.kind === 'setting' && item.setting.name === 'box') box = item.setting.fret;
      else if (isNest(item)) walk(item.items);
    }
  };
  walk(phrase.items);
  return found;
}

/** How high a note stands bent when it is over, whole steps. */
function heightAfter(note: WrittenNote | undefined): number {
  return note?.moves?.at(-1)?.steps ?? note?.again ?? note?.preBend ?? 0;
}

interface Around {
  readonly chord: string | null;
  readonly before: number | undefined;
  readonly guitar: Guitar;
  readonly box: number | undefined;
}

function pitchOf(note: WrittenNote, item: EventItem, around: Around): number | undefined {
  const { sought, string, fret } = note;
  const { guitar, before, chord } = around;
  if (!sought) return fret === null ? undefined : pitchAt(guitar, string, fret);
  if (sought.by === 'string' || sought.by === 'fret') return undefined;
  const chroma = sought.by === 'name' ? chromaOfName(sought.name) : chromaOfDegree(sought.degree, chord);
  if (chroma === undefined) return undefined;
  const nearest = before === undefined ? lowestOf(chroma, around) : nearestTo(chroma, before);
  const midi = turned(nearest, item, before);
  return sought.octaves === 0 ? onGuitar(midi, guitar) : midi + 12 * sought.octaves;
}

/** The octave of a pitch class nearest to a pitch, upward where two are as near. */
function nearestTo(chroma: number, midi: number): number {
  const up = (((chroma - midi) % 12) + 12) % 12;
  return up <= 6 ? midi + up : midi + up - 12;
}

/** The lowest of a pitch class in the box, or from the open strings. */
function lowestOf(chroma: number, { guitar, box }: Around): number {
  const strings = guitar.tuning.openMidis.map((_, index) => index + 1);
  const top = box === undefined ? topFret(guitar) : Math.min(topFret(guitar), box + BOX_FRETS - 1);
  const frets = Array.from({ length: Math.max(1, top - (box ?? 0) + 1) }, (_, index) => (box ?? 0) + index);
  const all = strings.flatMap((string) => frets.map((fret) => pitchAt(guitar, string, fret)));
  const fitting = all.filter((midi) => (((midi - chroma) % 12) + 12) % 12 === 0);
  return Math.min(...(fitting.length > 0 ? fitting : [nearestTo(chroma, Math.min(...all) + 6)]));
}

/** The octave that the guitar has, where the nearest lies below or above it. */
function onGuitar(midi: number, guitar: Guitar): number {
  const opens = guitar.tuning.openMidis.map((_, index) => pitchAt(guitar, index + 1, 0));
  if (midi < Math.min(...opens)) return midi + 12;
  return midi > Math.max(...opens) + topFret(guitar) ? midi - 12 : midi;
}

/** A hammer-on goes up and a pull-off down, whatever octave is nearest. */
function turned(midi: number, { link }: EventItem, before: number | undefined): number {
  if (before === undefined) return midi;
  if (link === 'hammer' && midi <= before) return midi + 12;
  return link === 'pull' && midi >= before ? midi - 12 : midi;
}
