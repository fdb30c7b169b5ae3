import type { EventItem, EventMark, Feel, Meter, Sureness, WrittenNote } from '../notation/index.ts';
import type { Key, Tuning } from '../pitch/index.ts';
import type { FileProblem } from './xml.ts';

/** A note of a foreign file: a note as we write it, but that its place on the neck may not be known. */
export interface BroughtNote extends Omit<WrittenNote, 'string' | 'fret'> {
  /** Sounding pitch, a whole MIDI number; null for a dead note. */
  readonly midi: number | null;
  /** String from the thinnest and its fret, where the file says them; `fret` null for a dead note. */
  readonly place?: { readonly string: number; readonly fret: number | null };
}

/** Notes struck together in a foreign file. Ticks as written, repeats folded. */
export interface BroughtEvent extends Pick<EventItem, 'link' | 'slideIn' | 'slideOut' | 'arm'> {
  readonly at: number;
  readonly ticks: number;
  readonly isGrace: boolean;
  /** False where only the order is known; its ticks are those of an eighth then. */
  readonly isTimed?: boolean;
  readonly notes: readonly BroughtNote[];
  readonly marks: readonly EventMark[];
  readonly sureness?: Sureness;
  readonly barre?: number;
  readonly words: readonly string[];
  readonly swell?: { readonly to: 'softer' | 'louder'; readonly number: number };
}

/** A bar of a foreign file. */
export interface BroughtBar {
  readonly at: number;
  readonly ticks: number;
  readonly meter: Meter;
  /** Whether it is the upbeat to the first bar. */
  readonly isPickup?: true;
  /** Quarter notes a minute from here on, where that is said. */
  readonly bpm?: number;
  readonly feel?: Feel;
  /** The section that begins here, and the phrases. */
  readonly label?: string;
  readonly phrase?: string;
  readonly isRepeatStart: boolean;
  readonly repeatEnd?: { readonly times: number; readonly isOpen: boolean };
  readonly ending?: { readonly passes: readonly number[]; readonly ends: boolean };
}

/** One part or track of a foreign file. */
export interface BroughtPart {
  readonly name: string;
  /** Where the file says it. */
  readonly tuning?: Tuning;
  readonly capo: number;
  readonly bars: readonly BroughtBar[];
  readonly events: readonly BroughtEvent[];
  /** Chord symbols, null for “no chord”, in order. */
  readonly chords: readonly { readonly at: number; readonly chord: string | null }[];
}

/** A foreign file as far as it could be read, and what was wrong with it. */
export interface Brought {
  readonly title: string;
  readonly credit: string;
  readonly key?: Key;
  /** Quarter notes a minute at the beginning, where that is said. */
  readonly bpm?: number;
  readonly parts: readonly BroughtPart[];
  readonly problems: readonly FileProblem[];
}

/** A file of which nothing could be read. */
export function notBrought(problem: FileProblem): Brought {
  return { title: '', credit: '', parts: [], problems: [problem] };
}

/** Most notes that are read of a file. Our choice: a song of an hour. */
export const MAX_NOTES = 100_000;

/** Most bars that are read of a file. Our choice: three hours. */
export const MAX_BARS = 5_000;

/** Most problems that are told of one file. Our choice. */
export const MAX_PROBLEMS = 50;

/** Problems of a file in the order they were met, not more than a person will read. */
export class FileProblems {
  readonly #problems: FileProblem[] = [];
  #more = 0;

  add(place: string, message: string): void {
    if (this.#problems.length < MAX_PROBLEMS) this.#problems.push({ place, message });
    else this.#more += 1;
  }

  get all(): readonly FileProblem[] {
    if (this.#more === 0) return this.#problems;
    return [...this.#problems, { place: '', message: `And ${this.#more} more like these.` }];
  }
}
