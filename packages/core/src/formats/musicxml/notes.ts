import {
  isGuessed,
  isPlucking,
  ticksOfTimed,
  TUPLET_TIMES,
  type EventItem,
  type EventMark,
  type Setup,
  type TimedValue,
  type WrittenNote,
} from '../../notation/index.ts';
import { midiOf, spell, type Key } from '../../pitch/index.ts';
import type { WrittenEvent } from '../bars.ts';
import { element, type XmlElement } from '../xml.ts';
import type { TupletSign } from './tuplets.ts';

/** What sounds before and after an event, as far as something does. */
export interface Neighbours {
  readonly before: EventItem | undefined;
  readonly after: EventItem | undefined;
}

/** Where notes are written. `unit`: ticks of one division. */
export interface NoteContext extends Neighbours {
  readonly guitar: Setup;
  readonly key: Key;
  readonly unit: number;
  readonly isGrace: boolean;
  /** For each of the tied values. */
  readonly tuplets: readonly (readonly TupletSign[])[];
}

/** Names of note values. Source: MusicXML 3.1, type note-type-value. */
export const VALUE_NAMES = {
  1: 'whole',
  2: 'half',
  4: 'quarter',
  8: 'eighth',
  16: '16th',
  32: '32nd',
  64: '64th',
} as const;

/** A semitone to a whole step of ours. */
const SEMITONES_PER_STEP = 2;

/** The notes of an event, each value of it tied to the next; a rest where nothing of it has a place. */
export function writeNotes(event: WrittenEvent, context: NoteContext): readonly XmlElement[] {
  const { item, values } = event;
  const { tuning } = context.guitar;
  const notes = (item?.notes ?? []).filter(
    ({ string, sought }) => string <= tuning.openMidis.length && !isGuessed(sought),
  );
  const written = context.isGrace ? GRACE_VALUES : values;
  return written.flatMap((value, index) => {
    const where = {
      ...{ value, tuplets: context.tuplets[index] ?? [], isFirst: index === 0 && !event.isTiedFrom },
      isLast: index === written.length - 1 && !event.isTiedOn,
      isSplit: written.length > 1 || event.isTiedFrom || event.isTiedOn,
    };
    if (!item || notes.length === 0) return context.isGrace ? [] : [writeRest(where, context.unit)];
    return notes.map((note, at) => new NoteWriter({ note, item, event, context, where, isUpper: at > 0 }).write());
  });
}

const GRACE_VALUES: readonly TimedValue[] = [{ base: 16, dots: 0 }];

/** Where one note stands in the chain of its tied values. */
interface Where {
  readonly value: TimedValue;
  readonly tuplets: readonly TupletSign[];
  readonly isFirst: boolean;
  readonly isLast: boolean;
  readonly isSplit: boolean;
}

function writeRest({ value, tuplets }: Where, unit: number): XmlElement {
  return element(
    'note',
    {},
    element('rest'),
    element('duration', {}, ticksOfTimed(value) / unit),
    element('voice', {}, 1),
    writeValue(value),
    tuplets.length > 0 &&
      element(
        'notations',
        {},
        tuplets.map((type) => element('tuplet', { type })),
      ),
  );
}

function writeValue({ base, dots, tuplet }: TimedValue): readonly XmlElement[] {
  return [
    element('type', {}, VALUE_NAMES[base]),
    ...Array.from({ length: dots }, () => element('dot')),
    ...(tuplet === undefined
      ? []
      : [
          element(
            'time-modification',
            {},
            element('actual-notes', {}, tuplet),
            element('normal-notes', {}, TUPLET_TIMES[tuplet]),
          ),
        ]),
  ];
}

/** Letters of the plucking hand. Source: common practice (p i m a c). */
export const PLUCKING_LETTERS: Readonly<Partial<Record<EventMark, string>>> = {
  'plucked-thumb': 'p',
  'plucked-index': 'i',
  'plucked-middle': 'm',
  'plucked-ring': 'a',
  'plucked-little': 'c',
};

interface NoteToWrite {
  readonly note: WrittenNote;
  readonly item: EventItem;
  readonly event: WrittenEvent;
  readonly context: NoteContext;
  readonly where: Where;
  /** Whether it is struck with the note before. */
  readonly isUpper: boolean;
}

/** Writes one note. Source of the order: MusicXML 3.1, type note. */
class NoteWriter {
  readonly #one: NoteToWrite;

  constructor(one: NoteToWrite) {
    this.#one = one;
  }

  write(): XmlElement {
    const { note, event, context, where, isUpper } = this.#one;
    const { isGrace, unit } = context;
    const ties = [this.#isTiedFrom && 'stop', this.#isTiedOn && 'start'].filter((type) => type !== false);
    const isQuiet = note.quiet === true || event.marks.includes('quiet');
    const sureness = note.sureness ?? event.sureness;
    return element(
      'note',
      {},
      isGrace && element('grace', { slash: 'yes' }),
      isUpper && element('chord'),
      this.#pitch(),
      !isGrace && element('duration', {}, ticksOfTimed(where.value) / unit),
      !isGrace && ties.map((type) => element('tie', { type })),
      sureness !== null && element('level', {}, sureness),
      element('voice', {}, 1),
      writeValue(where.value),
      (note.fret === null || isQuiet) &&
        element('notehead', { parentheses: isQuiet ? 'yes' : undefined }, note.fret === null ? 'x' : 'normal'),
      this.#notations(ties),
      this.#play(),
    );
  }

  get #isTiedFrom(): boolean {
    const { note, where, context } = this.#one;
    return !where.isFirst || (note.held !== undefined && this.#isSameIn(context.before));
  }

  get #isTiedOn(): boolean {
    const { where, context, note } = this.#one;
    if (!where.isLast) return true;
    const next = context.after?.notes.find(({ string }) => string === note.string);
    return next?.held !== undefined && next.fret === note.fret;
  }

  #isSameIn(other: EventItem | undefined): boolean {
    const { string, fret } = this.#one.note;
    return other?.notes.some((one) => one.string === string && one.fret === fret) === true;
  }

  #pitch(): XmlElement {
    const { note, context } = this.#one;
    const { tuning, capo } = context.guitar;
    const { letter, alter, octave } = spell(midiOf(tuning, note.string, note.fret ?? 0, capo), context.key);
    return element(
      'pitch',
      {},
      element('step', {}, letter),
      alter !== 0 && element('alter', {}, alter),
      element('octave', {}, octave),
    );
  }

  #notations(ties: readonly string[]): XmlElement {
    const { where, event, isUpper } = this.#one;
    const ornaments = where.isFirst ? this.#ornaments() : [];
    const articulations = where.isFirst && !isUpper ? this.#articulations() : [];
    return element(
      'notations',
      {},
      ties.map((type) => element('tied', { type })),
      this.#slurs(),
      !isUpper && where.tuplets.map((type) => element('tuplet', { type })),
      ornaments.length > 0 && element('ornaments', {}, ornaments),
      element('technical', {}, this.#technical()),
      articulations.length > 0 && element('articulations', {}, articulations),
      where.isFirst && event.marks.includes('rolled') && element('arpeggiate'),
    );
  }

  /** The note that this one is linked to on its string, in the event before or after. */
  #linkFrom(): EventItem['link'] {
    const { item, note, context } = this.#one;
    return context.before?.notes.some(({ string }) => string === note.string) ? item.link : undefined;
  }

  #linkOn(): EventItem['link'] {
    const { note, context } = this.#one;
    return context.after?.notes.some(({ string }) => string === note.string) ? context.after.link : undefined;
  }

  #slurs(): readonly XmlElement[] {
    const { where, note } = this.#one;
    const number = ((note.string - 1) % 6) + 1;
    const signs = (type: 'start' | 'stop', link: EventItem['link']) =>
      link === 'slide' || link === 'shift'
        ? [
            element('slide', { type, number, 'line-type': 'solid' }),
            ...(link === 'slide' ? [element('slur', { type, number })] : []),
          ]
        : [];
    return [
      ...(where.isFirst ? signs('stop', this.#linkFrom()) : []),
      ...(where.isLast ? signs('start', this.#linkOn()) : []),
    ];
  }

  #technical(): readonly XmlElement[] {
    const { note, event, where, isUpper, item } = this.#one;
    const place = [element('string', {}, note.string), element('fret', {}, note.fret ?? 0)];
    const ends = where.isLast ? this.#hammers('start', this.#linkOn()) : [];
    if (!where.isFirst) return [...place, ...ends];
    const { marks } = event;
    const plucked = [note.plucked, ...marks.filter(isPlucking)].find((mark) => mark !== undefined);
    const other: readonly (string | false | undefined)[] = [
      item.link !== undefined && item.link !== 'tap' && this.#linkFrom() === undefined && `from nowhere: ${item.link}`,
      note.held !== undefined && `held ${note.held}`,
      note.again !== undefined && 'again',
      note.fingerBehind !== undefined && `finger ${note.fingerBehind} behind`,
      event.barre !== null && !isUpper && `barre ${event.barre}`,
      plucked === 'plucked' && 'plucked',
      marks.includes('rake') && !isUpper && 'rake',
    ];
    return [
      ...place,
      ...this.#hammers('stop', this.#linkFrom()),
      ...ends,
      ...(item.link === 'tap' ? [element('tap', {}, 'T')] : []),
      ...this.#bends(),
      ...(isUpper ? [] : this.#arm()),
      ...(note.harmonic
        ? [
            element(
              'harmonic',
              {},
              element(note.harmonic === 'natural' ? 'natural' : 'artificial'),
              element(note.harmonic === 'natural' ? 'touching-pitch' : 'base-pitch'),
            ),
          ]
        : []),
      ...(note.finger ? [element('fingering', {}, note.finger)] : []),
      ...(note.fingerOr ? [element('fingering', { alternate: 'yes' }, note.fingerOr)] : []),
      ...(plucked && PLUCKING_LETTERS[plucked] ? [element('pluck', {}, PLUCKING_LETTERS[plucked])] : []),
      ...(!isUpper && marks.includes('down') ? [element('down-bow')] : []),
      ...(!isUpper && marks.includes('up') ? [element('up-bow')] : []),
      ...other.flatMap((text) => (text ? [element('other-technical', {}, text)] : [])),
    ];
  }

  #hammers(type: 'start' | 'stop', link: EventItem['link']): readonly XmlElement[] {
    const number = ((this.#one.note.string - 1) % 6) + 1;
    if (link === 'hammer') return [element('hammer-on', { type, number }, type === 'start' ? 'H' : undefined)];
    if (link === 'pull') return [element('pull-off', { type, number }, type === 'start' ? 'P' : undefined)];
    return [];
  }

  /** A bend for each move, by so many semitones from where the string stood; a slow one takes all of its time. */
  #bends(): readonly XmlElement[] {
    const { preBend, again, held, moves = [] } = this.#one.note;
    const start = preBend ?? again;
    let height = start ?? held ?? 0;
    const before = start === undefined ? [] : [bend(-start, {}, 'pre-bend')];
    return [
      ...before,
      ...moves.map(({ kind, steps, slow }) => {
        const by = steps - height;
        height = steps;
        return bend(by, slow ? { 'first-beat': 0, 'last-beat': 100 } : {}, kind === 'release' ? 'release' : undefined);
      }),
    ];
  }

  #arm(): readonly XmlElement[] {
    return (this.#one.item.arm ?? []).map((steps) =>
      element('bend', {}, element('bend-alter', {}, steps * SEMITONES_PER_STEP), element('with-bar')),
    );
  }

  #ornaments(): readonly XmlElement[] {
    const { note, event, isUpper } = this.#one;
    const signs: XmlElement[] = [];
    if (note.trill !== undefined)
      signs.push(element('trill-mark'), element('other-ornament', {}, `trill with fret ${note.trill}`));
    if (note.vibrato) {
      signs.push(element('wavy-line', { type: 'start', number: 1 }), element('wavy-line', { type: 'stop', number: 1 }));
      if (note.vibrato === 'wide') signs.push(element('other-ornament', {}, 'wide vibrato'));
    }
    if (event.marks.includes('tremolo') && !isUpper) signs.push(element('tremolo', { type: 'single' }, 3));
    return signs;
  }

  #articulations(): readonly XmlElement[] {
    const { event, item } = this.#one;
    return [
      ...(event.marks.includes('accent') ? [element('accent')] : []),
      ...(event.marks.includes('cut') ? [element('staccato')] : []),
      ...(item.slideIn ? [element(item.slideIn === 'below' ? 'scoop' : 'plop')] : []),
      ...(item.slideOut ? [element(item.slideOut === 'up' ? 'doit' : 'falloff')] : []),
    ];
  }

  /** Source: MusicXML 3.0, element play. */
  #play(): XmlElement | undefined {
    const { marks } = this.#one.event;
    const isMuted = marks.includes('palm-mute');
    const rings = marks.includes('let-ring');
    if (!isMuted && !rings) return undefined;
    return element(
      'play',
      {},
      isMuted && element('mute', {}, 'palm'),
      rings && element('other-play', { type: 'let-ring' }, 'yes'),
    );
  }
}

function bend(steps: number, attributes: Readonly<Record<string, number>>, how?: 'pre-bend' | 'release'): XmlElement {
  return element(
    'bend',
    attributes,
    element('bend-alter', {}, Math.round(steps * SEMITONES_PER_STEP * 100) / 100),
    how && element(how),
  );
}
