import {
  growsFromBefore,
  isBent,
  bendHeight,
  drillWords,
  eventsOf,
  eventsOfBars,
  techniquesOf,
  ticksOfTimed,
  unroll,
  valueOfTicks,
  writeEvent,
  writeMeter,
  writeValue,
  type EventItem,
  type Phrase,
  type Span,
  type Technique,
  type TimedValue,
} from '../notation/index.ts';
import { namesOf, pitchAt, sayNote, topFret, type Guitar } from '../fretboard/index.ts';
import { OPEN_KEY, spell, writeSpelling, type Key } from '../pitch/index.ts';

/** What drills are made for: the guitar, and the key that pitches are spelt in. */
export interface DrillSetup extends Guitar {
  readonly key?: Key | undefined;
}

/** A few bars that prepare one technique, in shorthand, and what to listen for. */
export interface Drill {
  readonly name: string;
  readonly text: string;
  readonly says: string;
}

/** A technique that a student has not played yet, where it first stands, and what prepares it. */
export interface NewTechnique {
  readonly technique: Technique;
  readonly span: Span;
  readonly drill: Drill;
}

/** The techniques of a phrase that are new to a student, each with a drill made from its own notes. */
export function newTechniques(
  phrase: Phrase,
  known: ReadonlySet<Technique>,
  guitar: DrillSetup,
): readonly NewTechnique[] {
  const events = eventsOf(phrase).map(({ item }) => item);
  return [...techniquesOf(phrase)].flatMap(([technique, span]) => {
    const index = events.findIndex((one) => one.span === span);
    const item = events[index];
    if (known.has(technique) || !item) return [];
    return [{ technique, span, drill: drillFor(technique, { item, before: events[index - 1], guitar }) }];
  });
}

/**
 * Pages to practise bends and timing of a phrase: each bend with its target fret first; its rhythm on one note, bar by bar
 * where it is not even; each tuplet against the beat. The same bend or rhythm once.
 */
export function practiceDrills(phrase: Phrase, guitar: DrillSetup): readonly Drill[] {
  const events = eventsOf(phrase).map(({ item }) => item);
  const bends = events.flatMap((item): readonly Drill[] => {
    const note = item.notes.find(isBent);
    const drill =
      note &&
      bendDrill(`Bend at ${sayNote(note, namesOf(guitar))}`, { item: withoutLink(item), before: undefined, guitar });
    return drill ? [drill] : [];
  });
  const made = [...bends, ...rhythmDrills(phrase, guitar)];
  return [...new Map(made.map((drill) => [drill.text, drill])).values()];
}

function withoutLink({ link: _, ...item }: EventItem): EventItem {
  return item;
}

/** The rhythm of each bar on one dead note, where it is more than one value over and over. Source: common practice. */
function rhythmDrills(phrase: Phrase, guitar: Guitar): readonly Drill[] {
  const timeline = unroll(phrase);
  const inBars = eventsOfBars(timeline);
  const string = Math.min(3, guitar.tuning.openMidis.length);
  return timeline.bars.flatMap((bar, index): readonly Drill[] => {
    const inside = inBars[index] ?? [];
    if (!bar.timed || bar.length === 0 || new Set(inside.map(({ length }) => length)).size < 2) return [];
    const items = inside.map(({ item, length }) => ({ length, struck: item !== null }));
    const text = items.map(({ length, struck }) => rhythmText(length, struck, string));
    if (text.some((one) => one === undefined)) return [];
    const meter = writeMeter(bar.meter);
    const name = `Rhythm of bar ${index + 1}`;
    const says = `Muted strings and the foot on the beat; count aloud, four times even before any pitch. In ${meter}.`;
    return [{ name, says, text: `[ ${text.join(' ')} ]4` }];
  });
}

/** A dead note or rest of so many ticks; undefined where no single value lasts so long. */
function rhythmText(ticks: number, struck: boolean, string: number): string | undefined {
  const value = valueOfTicks(ticks) ?? tupletOfTicks(ticks);
  return value && `/${writeValue(value)} ${struck ? `x${'eBGDAE'.charAt(string - 1)}` : '-'}`;
}

const TRIPLETS = [4, 8, 16] as const;
function tupletOfTicks(ticks: number): TimedValue | undefined {
  const base = TRIPLETS.find((one) => ticksOfTimed({ base: one, dots: 0, tuplet: 3 }) === ticks);
  return base && { base, dots: 0, tuplet: 3 };
}

interface Spot {
  readonly item: EventItem;
  readonly before: EventItem | undefined;
  readonly guitar: DrillSetup;
}

function drillFor(technique: Technique, spot: Spot): Drill {
  const says = drillWords(technique) ?? 'Alone and slowly, until four in a row are clean.';
  const name = `Drill: ${technique}`;
  if (/bend|release/.test(technique)) return bendDrill(name, spot) ?? { name, says, text: alone(spot) };
  if (technique === 'triplets' || technique === 'odd tuplets') return { name, ...countDrill(spot) };
  if (technique.endsWith('vibrato')) return { name, says, text: vibratoDrill(spot) };
  return { name, says, text: alone(spot) };
}

/** The target fret first, then the bend to that pitch. Source: common practice. */
function bendDrill(name: string, { item, guitar }: Spot): Drill | undefined {
  const note = item.notes.find(isBent);
  if (!note || note.fret === null) return undefined;
  const steps = bendHeight(note);
  const target = note.fret + Math.round(steps * 2);
  if (steps === 0 || target > topFret(guitar)) return undefined;
  const plain = write({ ...item, notes: [{ string: note.string, fret: target }], marks: [] }, guitar);
  const bent = write({ ...item, notes: [note], marks: [] }, guitar);
  const midi = pitchAt(guitar, note.string, note.fret) + 2 * steps;
  const pitch = writeSpelling(spell(Math.round(midi), guitar.key ?? OPEN_KEY), false);
  const partner = item.notes.find(
    (one) => one.fret !== null && bendHeight(one) === 0 && pitchAt(guitar, one.string, one.fret) === midi,
  );
  if (partner) {
    const beside = write({ ...item, notes: [partner], marks: [] }, guitar);
    const together = write({ ...item, marks: [] }, guitar);
    return {
      name,
      text: `/2 ${beside} ${bent} | ${beside} ${together} |`,
      says: `Hear ${sayNote(partner, namesOf(guitar))} first, then bend ${note.fret} up until it meets that ${pitch} and nothing beats.`,
    };
  }
  return {
    name,
    text: `/2 ${plain} ${bent} | ${plain} ${bent} |`,
    says: `Hear fret ${target} first, then bend ${note.fret} up to that pitch${Number.isInteger(2 * steps) ? `, ${pitch}` : ''}.`,
  };
}

function vibratoDrill({ item, guitar }: Spot): string {
  const straight = write({ ...item, notes: item.notes.map(({ string, fret }) => ({ string, fret })) }, guitar);
  return `/2 ${straight} ${write(item, guitar)} | /1 ${write(item, guitar)}`;
}

function countDrill({ item, guitar }: Spot): Pick<Drill, 'text' | 'says'> {
  const [note] = item.notes;
  const { value } = item;
  const plain = write(
    { ...item, notes: note ? [{ string: note.string, fret: note.fret }] : [], marks: [], times: 1 },
    guitar,
  );
  const tuplet = typeof value === 'object' ? (value.tuplet ?? 3) : 3;
  const of = tuplet === 3 ? '/8t' : `/16t${tuplet}`;
  return {
    text: `/4 ${plain}%4 | ${of} ${plain}%${tuplet * 4}`,
    says: `One note, first on the beat, then ${tuplet} in each; count aloud.`,
  };
}

/** The event, with what it grows from, four times with a rest after each. */
function alone({ item, before, guitar }: Spot): string {
  const from = growsFromBefore(item) && before ? `${write({ ...before, link: undefined }, guitar)} ` : '';
  const once = `${from}${write(item, guitar)}`;
  return from === '' ? `/4 ${once} - ${once} - | ${once} - ${once} -` : `/4 ${once} - - | ${once} - -`;
}

/** One event, its value left to the drill. */
function write(
  event: Omit<EventItem, 'link'> & { readonly link?: EventItem['link'] | undefined },
  guitar: Guitar,
): string {
  const { link, ...rest } = event;
  const value = event.value === 'grace' ? ('untimed' as const) : event.value;
  return writeEvent({ ...rest, value, times: event.times, ...(link && { link }) }, { strings: namesOf(guitar) });
}
