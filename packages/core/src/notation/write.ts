import { isNest, type BendMove, type EventItem, type EventMark, type Item, type NestItem } from './model.ts';
import type { PassRange, Phrase, Setting, Sought, WrittenNote } from './model.ts';
import { LINK_RECORDS } from './linkRecords.ts';
import { codeOfMark } from './marks.ts';
import { letterOfString } from './strings.ts';
import { sameValue, STARTING_VALUE, writeMeter, writeValue, type NoteValue } from './values.ts';

/** How strings are named: letters (six strings only) or numbers from the thinnest. */
export interface WriteOptions {
  readonly strings: 'letters' | 'numbers';
  /** Whether the first value is written whatever it is, for those who read it with another one to begin with. */
  readonly firstValue?: boolean;
}

/**
 * The canonical text of a phrase; reading it gives the same phrase. A note value is written where it changes;
 * strings beyond the sixth are written as numbers whatever is asked.
 */
export function writeShorthand(phrase: Phrase, options: WriteOptions): string {
  const isLettered = options.strings === 'letters' && onSixStrings(phrase.items);
  const writer = new Writer(isLettered, options.firstValue ? 'grace' : STARTING_VALUE);
  return writer.items(phrase.items);
}

/** The text of one event alone, its value left out but for a grace note. */
export function writeEvent(event: EventItem, options: WriteOptions): string {
  const writer = new Writer(options.strings === 'letters' && onSixStrings([event]), event.value);
  return writer.items([event]);
}

function onSixStrings(items: readonly Item[]): boolean {
  return items.every((item) => {
    if (isNest(item)) return onSixStrings(item.items);
    return item.kind !== 'event' || item.notes.every(({ string }) => letterOfString(string) !== undefined);
  });
}

class Writer {
  readonly #letters: boolean;
  #value: NoteValue;
  /** How many repeats stand around. */
  #repeats = 0;

  constructor(letters: boolean, value: NoteValue = STARTING_VALUE) {
    this.#letters = letters;
    this.#value = value;
  }

  items(items: readonly Item[]): string {
    return items.map((item) => this.#item(item)).join(' ');
  }

  #item(item: Item): string {
    switch (item.kind) {
      case 'event':
        return this.#event(item);
      case 'rest':
        return this.#valued('-', item.value);
      case 'hold':
        return this.#valued('_', item.value);
      case 'bar':
        return '|';
      case 'harmony':
        return item.chord === null ? ':-' : `:${item.chord}`;
      case 'words':
        return `"${item.text}"`;
      case 'setting':
        return writeSetting(item.setting);
      case 'stamp':
        return `@${writeStamp(item.seconds)}`;
      case 'either':
        return `{either: ${item.items.map((way) => this.items(way.items)).join(' // ')} }`;
      case 'way':
        return this.items(item.items);
      case 'repeat': {
        this.#repeats += 1;
        const inside = this.items(item.items);
        this.#repeats -= 1;
        return `[ ${inside} ]${item.times}${item.open ? '+' : ''}`;
      }
      case 'rounds':
        return `{${this.#repeats > 0 ? 'round ' : ''}${writeRanges(item.rounds)}: ${this.items(item.items)} }`;
      default:
        return `{${head(item)}: ${this.items(item.items)} }`;
    }
  }

  #valued(text: string, value: NoteValue): string {
    if (value === 'grace' || sameValue(value, this.#value)) return text;
    this.#value = value;
    return `/${writeValue(value)} ${text}`;
  }

  #event(event: EventItem): string {
    const { link, slideIn, slideOut, marks, notes, times, value, arm } = event;
    const quiet = marks.includes('quiet');
    const front = slideIn ? (slideIn === 'below' ? '<' : '>') : quiet ? '(' : '';
    const text = [
      front,
      link ? LINK_RECORDS[link].code : '',
      this.#stack(notes),
      slideOut ? (slideOut === 'up' ? '<' : '>') : '',
      ...(arm ?? []).map((steps) => `w${steps < 0 ? '-' : '+'}${writeSteps(Math.abs(steps))}`),
      ...marks.map(writeMark),
      quiet ? ')' : '',
      value === 'grace' ? '/g' : '',
      times > 1 ? `%${times}` : '',
    ].join('');
    return this.#valued(text, value);
  }

  #stack(notes: readonly WrittenNote[]): string {
    const groups: WrittenGroup[] = [];
    for (const note of notes) {
      const group = groupOf(note);
      const last = groups.at(-1);
      if (last && isWrittenAlike(last, group) && group.isNamed) last.strings.push(note.string);
      else groups.push(group);
    }
    return groups
      .map((group, index) => {
        const { front, strings, marks } = group;
        const isLast = index === groups.length - 1;
        const isJoined =
          !isLast && (marks !== '' || !this.#letters || group.around !== undefined || isApart(groups[index + 1]));
        const named = group.isNamed ? this.#strings(strings) : '';
        const [open, close] = group.around ?? ['', ''];
        return `${open}${front}${named}${marks}${close}${isJoined ? '+' : ''}`;
      })
      .join('');
  }

  #strings(strings: readonly number[]): string {
    if (!this.#letters) return `@${strings.join('')}`;
    return strings.map((string) => letterOfString(string)).join('');
  }
}

/** Notes of a stack that are written together. */
interface WrittenGroup {
  /** What stands before their strings: the fret, or the moves of a bend that goes on. */
  readonly front: string;
  readonly strings: number[];
  /** Whether the strings are written. */
  readonly isNamed: boolean;
  readonly marks: string;
  /** What stands around them. */
  readonly around: readonly [open: string, close: string] | undefined;
}

function groupOf({ string, fret, ...rest }: WrittenNote): WrittenGroup {
  const { quiet, sureness, sought, held, moves = [], ...marks } = rest;
  const around = quiet ? (['(', ')'] as const) : sureness && ([`{${sureness}: `, '}'] as const);
  const move = moves.map(writeMove).join('');
  const written = writeNoteMarks(held !== undefined ? marks : { ...marks, moves });
  const front = sought
    ? writeSought(sought, fret, written)
    : held !== undefined
      ? move
      : fret === null
        ? 'x'
        : String(fret);
  const isNamed = sought === undefined || sought.by === 'fret';
  return { front, strings: [string], isNamed, marks: written, around };
}

function isWrittenAlike(a: WrittenGroup, b: WrittenGroup): boolean {
  return a.front === b.front && a.marks === b.marks && a.around?.[0] === b.around?.[0];
}

/** Whether a group can only stand behind a plus. */
function isApart(group: WrittenGroup | undefined): boolean {
  return group !== undefined && (group.around !== undefined || !/^[\dx]/.test(group.front));
}

/** What is written for a place that was not said; a name is kept apart from marks behind it that would be its accidental. */
function writeSought(sought: Sought, fret: number | null, marks: string): string {
  switch (sought.by) {
    case 'name':
      return `'${sought.name}${sought.octaves === 0 && /^[A-G]$/.test(sought.name) && marks.startsWith('b') ? 'n' : ''}${writeOctaves(sought.octaves)}`;
    case 'degree':
      return `^${sought.degree}${writeOctaves(sought.octaves)}`;
    case 'string':
      return `${fret ?? 'x'}?`;
    case 'fret':
      return '?';
  }
}

function writeOctaves(octaves: number): string {
  return (octaves < 0 ? '-' : '+').repeat(Math.abs(octaves));
}

function writeMark(mark: EventMark): string {
  return codeOfMark(mark) ?? '';
}

/** Steps as typed: `.5`, `1`, `1.5`. */
function writeSteps(steps: number): string {
  return String(Math.round(steps * 100) / 100).replace(/^0\./, '.');
}

function writeMove({ kind, steps, slow, unsized, upTo }: BendMove): string {
  const letter = (kind === 'bend' ? 'b' : 'r').repeat(slow ? 2 : 1);
  if (unsized) return `${letter}?`;
  if (kind === 'release' && steps === 0) return letter;
  return `${letter}${writeSteps(steps)}${upTo === undefined ? '' : `-${writeSteps(upTo)}`}`;
}

function writeNoteMarks(note: Omit<WrittenNote, 'string' | 'fret'>): string {
  return [
    note.again === undefined ? '' : '^',
    note.preBend === undefined ? '' : `pb${writeSteps(note.preBend)}`,
    ...(note.moves ?? []).map(writeMove),
    note.vibrato ? (note.vibrato === 'wide' ? '~~' : '~') : '',
    note.trill === undefined ? '' : `tr${note.trill}`,
    writeFinger(note),
    note.harmonic ? (note.harmonic === 'pinch' ? '*p' : '*') : '',
    note.plucked ? writeMark(note.plucked) : '',
    note.claim === undefined ? '' : `=${note.claim}`,
  ].join('');
}

function writeFinger({ finger, fingerBehind, fingerOr }: Omit<WrittenNote, 'string' | 'fret'>): string {
  if (!finger) return '';
  return `f${finger}${fingerBehind ? `&${fingerBehind}` : (fingerOr ?? '')}`;
}

function writeSetting(setting: Setting): string {
  switch (setting.name) {
    case 'meter':
      return `meter=${writeMeter(setting.meter)}`;
    case 'tempo':
      return `tempo=${setting.tempo}`;
    case 'feel':
      return `feel=${setting.feel}`;
    case 'box':
      return `box=${setting.fret}`;
    case 'pickup':
      return 'pickup';
  }
}

function writeRanges(ranges: readonly PassRange[]): string {
  return ranges
    .map((range) => (range === 'last' ? 'last' : range[0] === range[1] ? range[0] : `${range[0]}-${range[1]}`))
    .join(',');
}

/** A place of the recording: minutes and seconds, `1:09.5`. */
export function writeStamp(seconds: number): string {
  const rest = String(Math.round((seconds % 60) * 1000) / 1000);
  return `${Math.floor(seconds / 60)}:${/^\d(?:\.|$)/.test(rest) ? '0' : ''}${rest}`;
}

/** What a brace says before its colon. */
function head(item: Exclude<NestItem, { kind: 'repeat' | 'rounds' | 'either' | 'way' }>): string {
  switch (item.kind) {
    case 'passes':
      return writeRanges(item.passes);
    case 'swell':
      return item.to === 'softer' ? 'fade' : 'grow';
    case 'marked':
      return item.marks.map((mark) => codeOfMark(mark) ?? mark).join(' ');
    case 'barre':
      return `bar${item.fret}`;
    case 'alternate':
      return item.first === 'down' ? 'alt' : 'altu';
    case 'sure':
      return item.sureness;
  }
}
