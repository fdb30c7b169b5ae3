import { HIGHEST_FRET } from '../pitch/index.ts';
import { UNREADABLE, type WordCursor } from './cursor.ts';
import { STEP_CENTS } from './contour.ts';
import { NoteDraft, type EventDraft, type NoteMarks } from './drafts.ts';
import { readSteps } from './eventParts.ts';
import type { Link } from './linkRecords.ts';
import { isPlucking, markOfCode, type PluckingMark } from './marks.ts';
import type { Sought, Span, WrittenNote } from './model.ts';
import type { Fix } from './problems.ts';
import type { WordContext } from './typed.ts';
import { NoteMarkReader, type PlaceOnNeck } from './readNoteMarks.ts';
import { letterOfString, LETTERED_STRINGS, stringOfLetter } from './strings.ts';
import { surenessOf } from './surenesses.ts';

/** What stands around some notes of a stack, where it opened, and what closes it. */
interface Around {
  readonly from: number;
  readonly closer: ')' | '}';
  readonly marks: NoteMarks;
}

/** The bare fret of a linked event, with its marks; it knows its strings by what it grows from. */
export interface BareFret {
  readonly fret: number | null;
  readonly marks: NoteMarks;
}

/** Notes of an event that a letter says how to pluck; counted as they are written. */
interface Plucked {
  readonly from: number;
  readonly to: number;
  readonly mark: PluckingMark;
}

/** Reads the notes of an event. */
export class StackReader {
  readonly #cursor: WordCursor;
  readonly #context: WordContext;
  readonly #stringCount: number;
  #marksOfNotes: NoteMarkReader | undefined;

  constructor(cursor: WordCursor, context: WordContext) {
    this.#cursor = cursor;
    this.#context = context;
    this.#stringCount = context.tuning.openMidis.length;
  }

  /** Made where a note bears a mark; most do not. */
  get #noteMarks(): NoteMarkReader {
    this.#marksOfNotes ??= new NoteMarkReader(this.#cursor, this.#context);
    return this.#marksOfNotes;
  }

  /** Reads groups; a linked event may be a bare fret, which is returned instead of notes. */
  read(draft: EventDraft): BareFret | undefined {
    let around: Around | undefined;
    const plucked: Plucked[] = [];
    for (let first = true; ; first = false) {
      around ??= this.#opened();
      const from = draft.notes.length;
      const { bare, isPlain } = this.#group(draft, first, around?.marks);
      if (bare) return bare;
      if (draft.plucked) plucked.push({ from, to: draft.notes.length, mark: draft.plucked });
      draft.plucked = undefined;
      if (around && this.#closes(around)) {
        around = undefined;
        // Behind what is of one note alone, marks are of all of them.
        while (this.#eventMark(draft));
      }
      const glued = isPlain && /[\dx]/.test(this.#cursor.next);
      if (this.#cursor.literal('+') !== undefined || glued) continue;
      if (around) this.#unclosed(around);
      pluck(draft, plucked);
      return undefined;
    }
  }

  /** Reads the marks behind a note, those of the whole event among them. */
  marks(draft: EventDraft, place: PlaceOnNeck, link?: Link): NoteMarks {
    // Most notes bear none.
    if (this.#cursor.done) return NO_MARKS;
    const { bends, before } = this.#context.sounding;
    const { fret, string } = place;
    // What is typed next says whether it is struck again while bent; a release may follow that.
    const standing = string !== undefined && this.#cursor.next === '^' ? bends.on(string) : undefined;
    const again = standing && standing.fret === fret ? standing.cents : undefined;
    const cents = again ?? (string === undefined ? 0 : bends.under({ string, fret }, { link, before }));
    const note = new NoteDraft(cents / STEP_CENTS);
    const from = this.#cursor.at;
    while (this.#noteMarks.mark(note, place) || this.#eventMark(draft));
    if (note.again !== undefined) this.#setAgain(note, place, from);
    return note.result();
  }

  /** Only a string that stands bent at this fret can be struck again so. */
  #setAgain(note: NoteDraft, { fret, string }: PlaceOnNeck, from: number): void {
    const standing = string === undefined ? undefined : this.#context.sounding.bends.on(string);
    const isBent = standing !== undefined && standing.cents > 0;
    if (isBent && standing.fret === fret) {
      note.again = standing.cents / STEP_CENTS;
      return;
    }
    delete note.again;
    const at = this.#cursor.word.indexOf('^', from);
    const why = isBent ? `the string stands bent at fret ${standing.fret}` : 'nothing stands bent here';
    const fix = { title: 'Write pb1, bent before it is struck', span: { from: at, to: at + 1 }, text: 'pb1' };
    this.#cursor.report('struck-unbent', fix.span, `This cannot be struck again while bent: ${why}.`, fix);
  }

  #eventMark(draft: EventDraft): boolean {
    const cursor = this.#cursor;
    const arm = cursor.take('arm');
    if (arm) draft.arm = [...(draft.arm ?? []), (readSteps(arm[2]) ?? 1) * (arm[1] === '-' ? -1 : 1)];
    const mark = arm ? undefined : markOfCode(cursor.take('mark')?.[0] ?? '');
    if (mark && isPlucking(mark)) draft.plucked = mark;
    else if (mark) draft.marks.add(mark);
    if (arm || mark) return true;
    const away = cursor.take('slideOut')?.[0];
    if (away === undefined) return false;
    draft.slideOut = away === '<' ? 'up' : 'down';
    return true;
  }

  /** One fret, name or bend that goes on, with its strings and marks; `isPlain` where a fret may follow at once. */
  #group(
    draft: EventDraft,
    first: boolean,
    around: NoteMarks | undefined,
  ): { readonly bare?: BareFret; readonly isPlain: boolean } {
    const cursor = this.#cursor;
    const from = cursor.at;
    if (!draft.link && (cursor.sees('bend') || cursor.sees('release'))) {
      this.#held(draft, from, first);
      return { isPlain: false };
    }
    const sought = this.#sought();
    const fret = sought ? null : this.#fret(from);
    const isUnsaid = fret !== null && cursor.take('unsaid') !== undefined;
    const strings = this.#stringsOf(draft, { fret, from, first, sought, isUnsaid });
    const before = cursor.at;
    const own = this.marks(draft, { fret, string: strings?.[0] ?? this.#sounded[0]?.string }, draft.link);
    const marks = around ? { ...own, ...around } : own;
    if (strings === undefined) return { bare: { fret, marks }, isPlain: false };
    const look: Sought | undefined = sought ?? (isUnsaid ? { by: 'string' } : undefined);
    for (const string of strings) this.#addNote(draft, { string, fret, ...marks, ...(look && { sought: look }) }, from);
    return { isPlain: cursor.at === before && !around };
  }

  get #sounded(): readonly WrittenNote[] {
    return this.#context.sounding.sounded;
  }

  #stringsOf(
    draft: EventDraft,
    group: {
      readonly fret: number | null;
      readonly from: number;
      readonly first: boolean;
      readonly sought: Sought | undefined;
      readonly isUnsaid: boolean;
    },
  ): readonly number[] | undefined {
    const { fret, from, first, sought, isUnsaid } = group;
    const isOpen = isUnsaid || sought?.by === 'name' || sought?.by === 'degree';
    if (!isOpen) return this.#strings(fret, from, { linked: draft.link !== undefined && !sought, first });
    // Where it lies is looked for later; until then it stands on a string of its own.
    const taken = draft.notes.map(({ string }) => string);
    const all = [...this.#sounded.map(({ string }) => string), ...this.#allStrings];
    const free = all.find((string) => !taken.includes(string));
    const message = `There are ${this.#stringCount} strings; one string sounds one note at a time.`;
    return [free ?? this.#cursor.fail('same-string-twice', { from, to: this.#cursor.at }, message)];
  }

  get #allStrings(): readonly number[] {
    return Array.from({ length: this.#stringCount }, (_, index) => index + 1);
  }

  /** A note whose place is not said: by its name, its degree, or by its string alone. */
  #sought(): Sought | undefined {
    const cursor = this.#cursor;
    const from = cursor.at;
    const name = cursor.take('name');
    if (name) return { by: 'name', name: (name[1] ?? '').replace('n', ''), octaves: octavesOf(name[2]) };
    const degree = cursor.take('degree');
    if (degree) {
      if (!this.#context.hasChord)
        this.#cursor.fail(
          'degree-without-chord',
          { from, to: cursor.at },
          `No chord is in force for ^${degree[1]}; write it before, as in :A7.`,
        );
      return { by: 'degree', degree: degree[1] ?? '', octaves: octavesOf(degree[2]) };
    }
    return cursor.take('unsaidFret') ? { by: 'fret' } : undefined;
  }

  /** Moves of a bend that stands since an earlier event, `r`, `b1.5G`; one that nothing stands for is the note's before. */
  #held(draft: EventDraft, from: number, first: boolean): void {
    const cursor = this.#cursor;
    while (cursor.take('bend') ?? cursor.take('release'));
    const end = cursor.at;
    const named = this.#namedStrings(from);
    const after = cursor.at;
    // A word that only begins like a bend is something else.
    if (!named && !cursor.done && !/[/%~+)=,!<>]/.test(cursor.next)) {
      cursor.at = from;
      cursor.unknown(from, `“${cursor.shown(from)}” is not a fret and string`);
    }
    const isRelease = cursor.word.charAt(from) === 'r';
    const strings = named ?? this.#bentString({ from, end }, { isRelease, isAlone: first && cursor.done });
    const { bends, before } = this.#context.sounding;
    const movesAt = (place: PlaceOnNeck, base: number) => {
      cursor.at = from;
      const note = new NoteDraft(base);
      while (cursor.at < end && this.#noteMarks.move(note, place));
      cursor.at = after;
      return note;
    };
    if (strings === undefined) {
      const [note] = before?.notes ?? [];
      if (!note) return;
      draft.late = movesAt(note, note.moves?.at(-1)?.steps ?? note.preBend ?? 0).moves;
      if (draft.late.length === 0) throw UNREADABLE;
      return;
    }
    for (const string of strings) {
      const standing = bends.on(string);
      if (!standing) {
        this.#nothingBent({ from, to: after }, string);
        continue;
      }
      const place = { fret: standing.fret, string };
      const note = movesAt(place, standing.cents / STEP_CENTS);
      while (this.#noteMarks.mark(note, place) || this.#eventMark(draft));
      if (note.moves.length > 0)
        this.#addNote(
          draft,
          { string, fret: standing.fret, ...note.result(), held: standing.cents / STEP_CENTS },
          from,
        );
    }
    if (draft.notes.length === 0) throw UNREADABLE;
  }

  #namedStrings(from: number): readonly number[] | undefined {
    const numbers = this.#cursor.take('numbers');
    if (numbers) return Array.from(numbers[1] ?? '', (digit) => this.#knownString(Number(digit), from));
    const letters = this.#cursor.take('letters');
    return letters && Array.from(letters[0], (letter) => this.#letteredString(letter, from));
  }

  /** The string whose bend goes on; undefined where it is rather the note before that is bent. */
  #bentString(
    { from, end }: { readonly from: number; readonly end: number },
    { isRelease, isAlone }: { readonly isRelease: boolean; readonly isAlone: boolean },
  ): readonly number[] | undefined {
    const { bends, before } = this.#context.sounding;
    const { bent } = bends;
    const last = bent.at(-1);
    const typed = this.#cursor.word.slice(from, end);
    const span = { from, to: end };
    if (last === undefined) {
      if (!isRelease && isAlone && before) return undefined;
      return this.#nothingBent(span);
    }
    const naming = bent.toReversed().map((string): Fix => {
      const text = `${typed}${this.#nameOf(string)}`;
      return { title: `Write ${text}`, span, text };
    });
    const isBefore = isRelease || !before || before.notes.some(({ string }) => bent.includes(string));
    if (bent.length > 1)
      this.#cursor.report('bend-whose', span, 'More than one string stands bent here; say which.', ...naming);
    else if (!isBefore && isAlone)
      this.#cursor.report(
        'bend-whose',
        span,
        `Read as the bend on the ${this.#nameOf(last)} string that goes on; it may be the note before that is bent.`,
        ...naming,
      );
    return [last];
  }

  #nothingBent(span: Span, string?: number): never {
    this.#cursor.giveUpIfFull();
    const where =
      string === undefined ? 'Nothing stands bent here' : `Nothing sounds on the ${this.#nameOf(string)} string`;
    this.#cursor.fail(
      'nothing-bent',
      span,
      `${where} that this could move; a bend is typed behind its note, as in 15Bb1r.`,
    );
  }

  /** What opens around some notes of a stack: a bracket, or a brace that says how sure they are. */
  #opened(): Around | undefined {
    const cursor = this.#cursor;
    const from = cursor.at;
    if (cursor.literal('(')) return { from, closer: ')', marks: { quiet: true } };
    const sureness = surenessOf(cursor.take('surely')?.[1]);
    return sureness && { from, closer: '}', marks: { sureness } };
  }

  #closes({ closer }: Around): boolean {
    if (closer === '}') this.#cursor.take('space');
    return this.#cursor.literal(closer) !== undefined;
  }

  #unclosed({ from, closer }: Around): void {
    const to = this.#cursor.at;
    const fix = { title: 'Close it', span: { from: to, to }, text: closer };
    this.#cursor.report('unknown-item', { from, to }, 'What is said of one note of a stack stands in a pair.', fix);
  }

  #addNote(draft: EventDraft, note: WrittenNote, from: number): void {
    if (draft.notes.some((other) => other.string === note.string)) {
      this.#cursor.report(
        'same-string-twice',
        { from, to: this.#cursor.at },
        `String ${note.string} already has a fret here; one string sounds one note at a time.`,
      );
      return;
    }
    draft.notes.push(note);
  }

  #fret(from: number): number | null {
    const typed = this.#cursor.take('fret')?.[0];
    if (typed === undefined) this.#cursor.unknown(from, `“${this.#cursor.shown(from)}” is not a fret and string`);
    if (typed === 'x') return null;
    return this.#inRange(Number(typed), from);
  }

  #inRange(fret: number, from: number): number {
    if (fret <= HIGHEST_FRET) return fret;
    return this.#cursor.fail(
      'fret-range',
      { from, to: this.#cursor.at },
      `Fret ${fret} is beyond fret ${HIGHEST_FRET}.`,
    );
  }

  /** The strings of a fret: those that are written, else those that sounded last. Undefined for a link, which knows its own. */
  #strings(
    fret: number | null,
    from: number,
    { linked, first }: { readonly linked: boolean; readonly first: boolean },
  ): readonly number[] | undefined {
    const numbers = this.#cursor.take('numbers');
    if (numbers) return Array.from(numbers[1] ?? '', (digit) => this.#knownString(Number(digit), from));
    const letters = this.#cursor.take('letters');
    if (letters) return Array.from(letters[0], (letter) => this.#letteredString(letter, from));
    if (linked && first) return undefined;
    const shown = fret === null ? 'The dead note' : `Fret ${fret}`;
    const small = this.#smallString(fret, from);
    if (small !== undefined) return [small];
    if (first && this.#sounded.length > 0) return this.#sameStrings(shown, fret, from);
    this.#cursor.fail(
      'string-missing',
      { from, to: this.#cursor.word.length },
      `${shown} has no string; write the string behind it, as in ${fret ?? 'x'}G.`,
    );
  }

  /** `9b` and `11d` are strings where nothing has sounded yet; later they are read as marks on the same string, and asked. */
  #smallString(fret: number | null, from: number): number | undefined {
    const letter = this.#cursor.word.slice(this.#cursor.at);
    if ((letter !== 'b' && letter !== 'd') || fret === null || this.#stringCount !== LETTERED_STRINGS) return undefined;
    const text = `${fret}${letter.toUpperCase()}`;
    if (this.#sounded.length === 0) {
      this.#cursor.at += 1;
      return stringOfLetter(letter);
    }
    const read = letter === 'b' ? 'a bend' : 'a down-stroke';
    const span = { from, to: this.#cursor.word.length };
    const message = `Read as ${read} on the same string; the ${letter.toUpperCase()} string is ${text}.`;
    this.#cursor.report('string-or-mark', span, message, { title: `Write ${text}`, span, text });
    return undefined;
  }

  /** The strings that sounded last, as long as they were fretted alike. */
  #sameStrings(shown: string, fret: number | null, from: number): readonly number[] {
    const frets = new Set(this.#sounded.map((note) => note.fret));
    const isOpen = this.#sounded.some(({ sought }) => sought && sought.by !== 'fret');
    if (frets.size < 2 && !isOpen) return this.#sounded.map(({ string }) => string);
    const span = { from, to: this.#cursor.at };
    const strings = isOpen ? this.#allStrings : this.#sounded.map(({ string }) => string);
    const fixes = strings.map((string): Fix => {
      const text = `${fret ?? 'x'}${this.#nameOf(string)}`;
      return { title: `Write ${text}`, span, text };
    });
    const why = isOpen ? 'where the note before lies was not said' : 'the event before lies on several frets';
    const message = `${shown} has no string, and ${why}; write the string.`;
    this.#cursor.fail('string-missing', { from, to: this.#cursor.word.length }, message, ...fixes);
  }

  #nameOf(string: number): string {
    return (this.#stringCount === LETTERED_STRINGS ? letterOfString(string) : undefined) ?? `@${string}`;
  }

  #letteredString(letter: string, from: number): number {
    const string = stringOfLetter(letter);
    if (this.#stringCount === LETTERED_STRINGS && string !== undefined) return string;
    return this.#cursor.fail(
      'string-missing',
      { from, to: this.#cursor.at },
      `With ${this.#stringCount} strings, write numbers: @1 is the thinnest.`,
    );
  }

  #knownString(string: number, from: number): number {
    if (string >= 1 && string <= this.#stringCount) return string;
    return this.#cursor.fail(
      'string-missing',
      { from, to: this.#cursor.at },
      `There is no string ${string}; this tuning has strings 1 to ${this.#stringCount}.`,
    );
  }
}

const NO_MARKS: NoteMarks = {};

/** Octaves to shift a named note by, from its plus and minus signs. */
function octavesOf(signs: string | undefined): number {
  return Array.from(signs ?? '').reduce((sum, sign) => sum + (sign === '+' ? 1 : -1), 0);
}

/** Where strings are plucked each by its own finger, a letter is of the notes before it; one at the end alone is of all. */
function pluck(draft: EventDraft, plucked: readonly Plucked[]): void {
  const [first] = plucked;
  if (!first) return;
  const count = draft.notes.length;
  const isAlike = plucked.every(({ mark }) => mark === first.mark) && plucked.at(-1)?.to === count && first.from === 0;
  const isOfAll = plucked.length === 1 && first.to === count;
  const covered = plucked.reduce((sum, { from, to }) => sum + to - from, 0) === count;
  if (isOfAll || (isAlike && covered)) {
    draft.marks.add(first.mark);
    return;
  }
  for (const { from, to, mark } of plucked)
    for (const [at, note] of draft.notes.slice(from, to).entries()) draft.notes[from + at] = { ...note, plucked: mark };
}
