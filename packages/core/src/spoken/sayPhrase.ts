import {
  eventsOfBars,
  FIRST_ROUND,
  inRound,
  letterOfString,
  unroll,
  type EventMark,
  type Phrase,
  type Sureness,
  type TimedEvent,
  type WrittenNote,
} from '../notation/index.ts';

/** How notes are told in words. */
export interface SayOptions {
  /** Strings by their letters, or by their numbers from the thinnest; beyond six strings always by number. */
  readonly strings: 'letters' | 'numbers';
  /** Short: places, links and bends. Full: strokes, fingers, and how sure it is, too. */
  readonly length: 'short' | 'full';
}

/**
 * A phrase in words, one sentence a bar as it is played: for whoever cannot see the tab, or has the hands on the guitar. In full,
 * `readSpoken` reads it as what it says.
 */
export function sayPhrase(phrase: Phrase, options: SayOptions): readonly string[] {
  const sayer = new Sayer(options);
  let before = '';
  return eventsOfBars(unroll(inRound(phrase, FIRST_ROUND))).flatMap((events) => {
    const said = sayer.bar(events);
    if (said === '') return [];
    const isSame = said === before && !sayer.hangsOnBefore(events[0]);
    before = said;
    return [isSame ? 'The same again.' : `${said.charAt(0).toUpperCase()}${said.slice(1)}.`];
  });
}

const MARKS: Readonly<Record<EventMark, string>> = {
  quiet: 'quietly',
  'palm-mute': 'palm muted',
  'let-ring': 'let ring',
  down: 'down stroke',
  up: 'up stroke',
  cut: 'cut short',
  accent: 'accented',
  rake: 'raked',
  rolled: 'rolled',
  plucked: 'plucked with a finger',
  'plucked-thumb': 'plucked with the thumb',
  'plucked-index': 'plucked with the index finger',
  'plucked-middle': 'plucked with the middle finger',
  'plucked-ring': 'plucked with the ring finger',
  'plucked-little': 'plucked with the little finger',
  tremolo: 'tremolo picked',
};
const SURE: Readonly<Record<Sureness, string>> = {
  likely: 'heard but not certain',
  guess: 'as a guess',
  seen: 'as seen played',
  arranged: 'as arranged',
  optional: 'may be left out',
};
/** What a short sentence leaves out. */
const DETAILS: ReadonlySet<string> = new Set(['down', 'up', ...Object.keys(SURE), 'rolled', 'grace']);

const SIZES: Readonly<Record<string, string>> = {
  '0.25': 'a quarter tone',
  '0.5': 'a half step',
  '0.75': 'three quarters of a step',
  '1': 'a whole step',
  '1.5': 'a step and a half',
  '2': 'two whole steps',
  '2.5': 'two and a half steps',
  '3': 'three whole steps',
};
const sizeOf = (steps: number): string => SIZES[String(steps)] ?? `${Math.round(steps * 4)} quarters of a step`;

const ORDINALS = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh', 'eighth', 'ninth'];
const FINGER_NAMES = {
  1: 'first finger',
  2: 'second finger',
  3: 'third finger',
  4: 'fourth finger',
  T: 'thumb of the fretting hand',
};
const LEADS = {
  hammer: 'hammer on to',
  pull: 'pull off to',
  slide: 'slide to',
  shift: 'slide to',
  tap: 'tap',
} as const;

/** Joins with commas and “and”. */
function listed(parts: readonly string[]): string {
  return parts.length < 2 ? parts.join('') : `${parts.slice(0, -1).join(', ')} and ${parts.at(-1) ?? ''}`;
}

class Sayer {
  readonly #options: SayOptions;

  constructor(options: SayOptions) {
    this.#options = options;
  }

  bar(events: readonly TimedEvent[]): string {
    return events
      .map((event) => (event.item ? this.#event(event) : 'rest'))
      .reduce<string[]>((said, one) => (one === 'rest' && said.at(-1) === 'rest' ? said : [...said, one]), [])
      .join(', then ');
  }

  /** Whether a bar begins with what grows out of the bar before. */
  hangsOnBefore(event: TimedEvent | undefined): boolean {
    return (
      event?.item?.link !== undefined ||
      (event?.item?.notes.some(({ held, again }) => held !== undefined || again !== undefined) ?? false)
    );
  }

  #event({ item, marks, barre }: TimedEvent): string {
    if (!item) return 'rest';
    const { notes, link, slideIn, slideOut, arm } = item;
    const lead = link ? `${LEADS[link]} ` : slideIn ? `slide ${slideIn === 'below' ? 'up' : 'down'} into ` : '';
    const isFull = this.#options.length === 'full';
    const tail = [
      ...this.#ofNotes(notes),
      ...(link === 'shift' ? ['picked at its end'] : []),
      ...(slideOut ? [`slide away ${slideOut}`] : []),
      ...(arm
        ? [
            `the arm takes it ${listed(arm.map((steps) => `${steps < 0 ? 'down' : 'up'} ${sizeOf(Math.abs(steps))}`))} and back`,
          ]
        : []),
      ...marks.flatMap((mark) => (isFull || !DETAILS.has(mark) ? [wordsOfMark(mark)] : [])),
      ...(barre !== null && isFull ? [`under a barre at ${barre}`] : []),
    ];
    return [`${lead}${this.#places(notes)}`, ...tail].join(', ');
  }

  #places(notes: readonly WrittenNote[]): string {
    const dead = notes.filter(({ fret }) => fret === null);
    const sounding = notes.filter(({ fret }) => fret !== null);
    if (sounding.length === 0) return `dead ${dead.length > 1 ? 'notes' : 'note'} on ${this.#strings(dead)}`;
    const muted = dead.length > 0 ? `, with ${this.#strings(dead)} muted` : '';
    const frets = sounding.map(({ fret }) => String(fret ?? 'x'));
    const said = new Set(frets).size === 1 ? (frets[0] ?? '') : listed(frets);
    return `${said} on ${this.#strings(sounding)}${sounding.length > 1 ? ' together' : ''}${muted}`;
  }

  #strings(notes: readonly WrittenNote[]): string {
    const said = notes.map(({ string }) => this.string(string));
    if (said.length < 2) return said.join('');
    if (!said.every((one) => one.endsWith(' string')))
      return `the ${listed(said.map((one) => one.replace(/^the /, '')))}`;
    return `the ${listed(said.map((one) => one.slice('the '.length, -' string'.length)))} strings`;
  }

  string(string: number): string {
    const letter = this.#options.strings === 'letters' ? letterOfString(string) : undefined;
    if (letter === undefined) return `the ${ORDINALS[string - 1] ?? String(string)} string`;
    return string === 1 ? 'the high E' : string === 6 ? 'the low E' : `the ${letter}`;
  }

  /** What is done to notes: of one alone, of all alike, or each with its string named. */
  #ofNotes(notes: readonly WrittenNote[]): readonly string[] {
    const each = notes.map((note) => this.#ofNote(note));
    const [first = []] = each;
    if (each.every((one) => one.join() === first.join())) return first;
    return notes.flatMap((note, index) => (each[index] ?? []).map((one) => `${this.string(note.string)} ${one}`));
  }

  #ofNote(note: WrittenNote): readonly string[] {
    const {
      preBend,
      moves = [],
      vibrato,
      harmonic,
      trill,
      finger,
      held,
      again,
      fingerBehind,
      fingerOr,
      quiet,
      plucked,
    } = note;
    const isFull = this.#options.length === 'full';
    return [
      ...(held !== undefined ? [`held bent ${sizeOf(held)}`] : []),
      ...(again !== undefined ? [`struck while bent ${sizeOf(again)}`] : []),
      ...(preBend !== undefined ? [`pre bent ${sizeOf(preBend)}`] : []),
      ...moves.map(({ kind, steps, slow }) => {
        const how = slow ? 'slowly ' : '';
        if (kind === 'bend') return `${how}bent up ${sizeOf(steps)}`;
        return steps === 0 ? `${how}let down` : `${how}let down to ${sizeOf(steps)}`;
      }),
      ...(vibrato ? [vibrato === 'wide' ? 'with wide vibrato' : 'with vibrato'] : []),
      ...(harmonic ? [harmonic === 'natural' ? 'as a natural harmonic' : 'as a pinch harmonic'] : []),
      ...(trill !== undefined ? [`trilled with ${trill}`] : []),
      ...(finger && isFull ? [FINGER_NAMES[finger]] : []),
      ...(fingerBehind && isFull ? [`and the ${FINGER_NAMES[fingerBehind]} behind it`] : []),
      ...(fingerOr && isFull ? [`or the ${FINGER_NAMES[fingerOr]}`] : []),
      ...(quiet ? ['quietly'] : []),
      ...(plucked && isFull ? [MARKS[plucked]] : []),
    ];
  }
}

function wordsOfMark(mark: TimedEvent['marks'][number]): string {
  if (mark === 'grace') return 'as a grace note';
  return mark in MARKS ? MARKS[mark as EventMark] : SURE[mark as Sureness];
}
