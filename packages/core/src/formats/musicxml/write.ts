import {
  barTicks,
  sameMeter,
  ticksOfTimed,
  TICKS_PER_QUARTER,
  type EventItem,
  type Meter,
  type Setup,
} from '../../notation/index.ts';
import { OPEN_KEY, spell, type Key } from '../../pitch/index.ts';
import { barsOfSong, type PartBars, type WrittenBar, type WrittenEvent } from '../bars.ts';
import { headingOf, type SongToWrite } from '../song.ts';
import { element, writeXml, type XmlElement } from '../xml.ts';
import { writeHarmony } from './chords.ts';
import { writeNotes, type Neighbours } from './notes.ts';
import { tupletSigns, type TupletSign } from './tuplets.ts';

/** The document type of the version that is written. Source: MusicXML 3.1, “Document structure”. */
const DOCTYPE =
  '<!DOCTYPE score-partwise PUBLIC "-//Recordare//DTD MusicXML 3.1 Partwise//EN" "http://www.musicxml.org/dtds/partwise.dtd">\n';

/** MIDI program of an electric guitar, clean, counted from 1. Source: General MIDI level 1, sound set. */
const CLEAN_GUITAR = 28;

/**
 * A song as MusicXML 3.1, partwise: a tablature staff for each layer, as it sounds, no transposition. Repeats, endings and rounds that
 * are alike are folded where one layer plays; everything else is written out. Linear.
 *
 * @returns the text of the document, which begins with its declaration
 */
export function writeMusicXml(song: SongToWrite): string {
  const { parts } = barsOfSong(song);
  const divisions = divisionsOf(parts);
  const written = parts.map((part, index) => ({ id: `P${index + 1}`, part }));
  const root = element(
    'score-partwise',
    { version: '3.1' },
    element('work', {}, element('work-title', {}, song.title)),
    element(
      'identification',
      {},
      song.credit !== '' && element('creator', { type: 'composer' }, song.credit),
      element('encoding', {}, element('software', {}, 'Jam Ledger')),
    ),
    element(
      'part-list',
      {},
      written.map(({ id, part }, index) =>
        element(
          'score-part',
          { id },
          element('part-name', {}, part.layer === '' ? 'Guitar' : `Guitar, ${part.layer}`),
          element('score-instrument', { id: `${id}-I1` }, element('instrument-name', {}, 'Guitar')),
          element(
            'midi-instrument',
            { id: `${id}-I1` },
            element('midi-channel', {}, (index % 9) + 1),
            element('midi-program', {}, CLEAN_GUITAR),
          ),
        ),
      ),
    ),
    written.map(({ id, part }) => element('part', { id }, new PartWriter(song, id, divisions).measures(part))),
  );
  return writeXml(root, DOCTYPE);
}

/** Ticks in the unit that durations are counted in: the largest that all lengths and the quarter are whole numbers of. */
function divisionsOf(parts: readonly PartBars[]): number {
  const values = parts.flatMap(({ bars }) => bars.flatMap(({ events }) => events.flatMap((event) => event.values)));
  const lengths = new Set(values.map(ticksOfTimed));
  return [...lengths].reduce(divisor, TICKS_PER_QUARTER);
}

function divisor(a: number, b: number): number {
  return b === 0 ? a : divisor(b, a % b);
}

/** Writes the bars of one part in their order. */
class PartWriter {
  readonly #song: SongToWrite;
  readonly #id: string;
  readonly #unit: number;
  #guitar: Setup;
  #meter: Meter | undefined;
  #bpm: number | undefined;
  #swell: number | undefined;
  #isFeelSaid = false;

  constructor(song: SongToWrite, id: string, unit: number) {
    this.#song = song;
    this.#id = id;
    this.#unit = unit;
    this.#guitar = song.guitar;
  }

  measures({ bars }: PartBars): readonly XmlElement[] {
    const empty = bars.length === 0;
    if (empty)
      return [
        element(
          'measure',
          { number: 1 },
          this.#attributes({ beats: 4, unit: 4 }, true),
          this.#wholeRest(4 * TICKS_PER_QUARTER),
        ),
      ];
    const sequence = bars.flatMap(({ events }) =>
      events.flatMap((event) => [...event.graces, ...(event.isTiedFrom ? [] : [event.item])]),
    );
    const neighbours = new Walker(sequence);
    return bars.map((bar, index) =>
      this.#measure(bar, { index, isLast: index === bars.length - 1, times: timesFrom(bars, index), neighbours }),
    );
  }

  #measure(
    bar: WrittenBar,
    {
      index,
      isLast,
      times,
      neighbours,
    }: { readonly index: number; readonly isLast: boolean; readonly times: number; readonly neighbours: Walker },
  ): XmlElement {
    const full = barTicks(bar.meter);
    const tuplets = tupletSigns(bar.events);
    return element(
      'measure',
      { number: bar.isPickup ? 0 : index + 1, implicit: bar.ticks === full ? undefined : 'yes' },
      leftBarline(bar),
      this.#attributesAt(bar, index === 0),
      this.#directions(bar),
      bar.phrases.map((name, at) => element('bookmark', { id: `${this.#id}-${index + 1}-${at + 1}`, name })),
      bar.events.flatMap((event, at) => this.#event(event, { tuplets: tuplets[at] ?? [], neighbours })),
      this.#closing(bar, isLast),
      rightBarline(bar, times),
    );
  }

  #attributesAt(bar: WrittenBar, isFirst: boolean): XmlElement | undefined {
    const guitar = bar.stretch?.section.guitar ?? this.#guitar;
    const isGuitarNew = isFirst || !sameGuitar(guitar, this.#guitar);
    const isMeterNew = !this.#meter || !sameMeter(this.#meter, bar.meter);
    this.#guitar = guitar;
    this.#meter = bar.meter;
    if (!isGuitarNew && !isMeterNew) return undefined;
    return this.#attributes(isMeterNew ? bar.meter : undefined, isFirst, isGuitarNew);
  }

  /** Source of the order: MusicXML 3.1, type attributes. */
  #attributes(meter: Meter | undefined, isFirst: boolean, withGuitar = isFirst): XmlElement {
    return element(
      'attributes',
      {},
      isFirst && element('divisions', {}, TICKS_PER_QUARTER / this.#unit),
      isFirst && writeKey(this.#song.key),
      meter && element('time', {}, element('beats', {}, meter.beats), element('beat-type', {}, meter.unit)),
      isFirst && element('clef', {}, element('sign', {}, 'TAB'), element('line', {}, 5)),
      withGuitar && writeStaff(this.#guitar),
    );
  }

  #directions(bar: WrittenBar): readonly XmlElement[] {
    const { stretch, feel } = bar;
    const isTempoNew = bar.bpm !== undefined && bar.bpm !== this.#bpm;
    this.#bpm = bar.bpm ?? this.#bpm;
    const said = feel ?? (stretch && this.#feelAtStart());
    const label = stretch && headingOf(stretch.section);
    const about = bar.repeatEnd?.isOpen ? bar.repeatEnd.times : undefined;
    return [
      ...(label ? [direction(element('rehearsal', {}, label))] : []),
      ...(isTempoNew ? [metronome(bar.bpm)] : []),
      ...(said ? [direction(element('words', {}, said))] : []),
      ...(stretch?.changes ?? []).map((text) => direction(element('words', {}, text))),
      ...(about === undefined ? [] : [direction(element('words', {}, `about ${about} times`))]),
    ];
  }

  /** The feel of the song is said once, where the part begins, unless it is straight. */
  #feelAtStart(): string | undefined {
    const isSaid = this.#isFeelSaid;
    this.#isFeelSaid = true;
    return isSaid || this.#song.feel === 'straight' ? undefined : this.#song.feel;
  }

  #event(
    event: WrittenEvent,
    { tuplets, neighbours }: { readonly tuplets: readonly TupletSign[][]; readonly neighbours: Walker },
  ): readonly XmlElement[] {
    const before = [
      ...(event.chord === undefined ? [] : [writeHarmony(event.chord)]),
      ...event.words.map((text) => direction(element('words', {}, text))),
      ...this.#wedges(event),
    ];
    const common = { guitar: this.#guitar, key: this.#song.key ?? OPEN_KEY, unit: this.#unit };
    const graces = event.graces.flatMap((item) =>
      writeNotes(
        { ...event, item, marks: item.marks, isTiedFrom: false, isTiedOn: false },
        { ...common, ...neighbours.next(), isGrace: true, tuplets: [] },
      ),
    );
    const around = event.isTiedFrom ? neighbours.same() : neighbours.next();
    return [...before, ...graces, ...writeNotes(event, { ...common, ...around, isGrace: false, tuplets })];
  }

  /** The hairpins that end and begin at an event. */
  #wedges({ swell }: WrittenEvent): readonly XmlElement[] {
    if (swell?.number === this.#swell) return [];
    const ends = this.#swell === undefined ? [] : [direction(element('wedge', { type: 'stop' }))];
    this.#swell = swell?.number;
    const type = swell?.to === 'louder' ? 'crescendo' : 'diminuendo';
    return [...ends, ...(swell ? [direction(element('wedge', { type }))] : [])];
  }

  #closing({ closing }: WrittenBar, isLast: boolean): readonly XmlElement[] {
    const wedge = this.#swell === undefined || !isLast ? [] : [direction(element('wedge', { type: 'stop' }))];
    return [
      ...wedge,
      ...(closing?.chord === undefined ? [] : [writeHarmony(closing.chord)]),
      ...(closing?.words ?? []).map((text) => direction(element('words', {}, text))),
    ];
  }

  #wholeRest(ticks: number): XmlElement {
    return element('note', {}, element('rest'), element('duration', {}, ticks / this.#unit), element('voice', {}, 1));
  }
}

/** Goes through what sounds in order, and knows what stands before and behind. */
class Walker {
  readonly #sequence: readonly (EventItem | null)[];
  #at = -1;

  constructor(sequence: readonly (EventItem | null)[]) {
    this.#sequence = sequence;
  }

  next(): Neighbours {
    this.#at += 1;
    return this.same();
  }

  same(): Neighbours {
    return { before: this.#sequence[this.#at - 1] ?? undefined, after: this.#sequence[this.#at + 1] ?? undefined };
  }
}

function sameGuitar(a: Setup, b: Setup): boolean {
  return a.capo === b.capo && a.tuning.openMidis.join() === b.tuning.openMidis.join();
}

/** How often the repeat is played that an ending stands in. */
function timesFrom(bars: readonly WrittenBar[], index: number): number {
  return bars.slice(index).find(({ repeatEnd }) => repeatEnd)?.repeatEnd?.times ?? 1;
}

function leftBarline({ isRepeatStart, ending, repeatEnd }: WrittenBar): XmlElement | undefined {
  const isFolded = isRepeatStart && repeatEnd?.times !== 1;
  if (!isFolded && !ending?.begins) return undefined;
  return element(
    'barline',
    { location: 'left' },
    isFolded && element('bar-style', {}, 'heavy-light'),
    ending?.begins && element('ending', { number: ending.passes.join(', '), type: 'start' }),
    isFolded && element('repeat', { direction: 'forward' }),
  );
}

function rightBarline({ repeatEnd, ending }: WrittenBar, times: number): XmlElement | undefined {
  // An ending that is not the last leads back, too.
  const leadsBack = ending?.ends
    ? ending.passes.some((pass) => pass < times)
    : repeatEnd !== undefined && repeatEnd.times > 1;
  if (!leadsBack && !ending?.ends) return undefined;
  const again = ending ? undefined : times;
  return element(
    'barline',
    { location: 'right' },
    element('bar-style', {}, leadsBack ? 'light-heavy' : 'regular'),
    ending?.ends && element('ending', { number: ending.passes.join(', '), type: leadsBack ? 'stop' : 'discontinue' }),
    leadsBack && element('repeat', { direction: 'backward', times: again }),
  );
}

/** A direction above the staff. Source of the order: MusicXML 3.1, type direction. */
function direction(type: XmlElement, ...more: readonly XmlElement[]): XmlElement {
  return element('direction', { placement: 'above' }, element('direction-type', {}, type), more);
}

function metronome(bpm: number): XmlElement {
  return direction(
    element('metronome', {}, element('beat-unit', {}, 'quarter'), element('per-minute', {}, bpm)),
    element('sound', { tempo: bpm }),
  );
}

function writeKey(key: Key | undefined): XmlElement {
  const { fifths, mode } = key ?? OPEN_KEY;
  return element('key', {}, element('fifths', {}, fifths), key && element('mode', {}, mode));
}

/** Lines of a tablature staff are counted from the bottom, which is the thickest string. Source: MusicXML 3.1, type staff-tuning. */
function writeStaff({ tuning, capo }: Setup): XmlElement {
  const strings = tuning.openMidis.length;
  return element(
    'staff-details',
    {},
    element('staff-lines', {}, strings),
    tuning.openMidis.toReversed().map((midi, index) => {
      const { letter, alter, octave } = spell(midi);
      return element(
        'staff-tuning',
        { line: index + 1 },
        element('tuning-step', {}, letter),
        alter !== 0 && element('tuning-alter', {}, alter),
        element('tuning-octave', {}, octave),
      );
    }),
    capo > 0 && element('capo', {}, capo),
  );
}
