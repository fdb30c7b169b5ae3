import { bestPath, usualGuitar } from '../src/fretboard/index.ts';
import {
  eventsOf,
  heardOf,
  namedMidi,
  readShorthand,
  rewriteEvents,
  type EventItem,
  type HeardNote,
  type Phrase,
  type WrittenNote,
} from '../src/notation/index.ts';
import { scaleOfKey, TUNINGS } from '../src/pitch/index.ts';
import type { RightPhrase } from './corpus.ts';

/** A right phrase with one thing in it said or typed wrongly. */
export interface SlippedPhrase {
  readonly right: RightPhrase;
  readonly text: string;
  readonly phrase: Phrase;
  readonly kind: string;
  /** Which event, among those of the text, and which note of it. */
  readonly event: number;
  readonly note: number;
}

/** The guitar that all phrases of the corpus are for. */
export const guitar = usualGuitar(TUNINGS.standard);

type Slipping = (
  note: WrittenNote & { readonly fret: number },
  random: () => number,
) => Partial<WrittenNote> | undefined;

const either = <T>(random: () => number, a: T, b: T): T => (random() < 0.5 ? a : b);
const RHYMES: readonly number[] = [6, 4, 3, 2, 1];

/** What goes wrong, as people say it and type it. Source: common practice. */
const SLIPS: Readonly<Record<string, Slipping>> = {
  'fret one off': ({ fret }, random) => ({ fret: fret + either(random, 1, -1) }),
  'tens digit lost or gained': ({ fret }) => ({ fret: fret < 10 ? fret + 10 : fret - 10 }),
  'teen for ty': ({ fret }) => (fret === 13 ? { fret: 30 } : fret === 12 ? { fret: 20 } : undefined),
  'neighbouring string': ({ string }, random) => ({ string: string + either(random, 1, -1) }),
  'rhyming letter': ({ string }, random) => {
    const others = RHYMES.filter((one) => Math.abs(one - string) > 1 && one + string !== 7);
    return RHYMES.includes(string) ? { string: others[Math.floor(random() * others.length)] ?? string } : undefined;
  },
  'big E for little e': ({ string }) => (string === 1 || string === 6 ? { string: 7 - string } : undefined),
  'fret and string swapped': ({ string, fret }) =>
    fret >= 1 && fret <= 6 ? { string: fret, fret: string } : undefined,
  octave: ({ fret }, random) => ({ fret: fret + either(random, 12, -12) }),
  'bend size': ({ moves, preBend }) => {
    const other = (steps: number) => (steps === 1 ? 0.5 : steps === 0.5 ? 1 : steps);
    if (preBend !== undefined) return { preBend: other(preBend) };
    return moves && { moves: moves.map((move) => ({ ...move, steps: other(move.steps) })) };
  },
};

/** Slips that are tried on each phrase for each kind. */
const TRIES = 6;

/**
 * Slips of each kind in a phrase, at chance places: those that still read, and that somebody could notice. A slip of one note of a
 * stack is one like any other, and counted apart.
 */
export function slipInto(right: RightPhrase, random: () => number): readonly SlippedPhrase[] {
  const items = eventsOf(right.phrase).map(({ item }) => item);
  const made = new Map<string, SlippedPhrase>();
  for (const [kind, slip] of Object.entries(SLIPS))
    for (let time = 0; time < TRIES; time += 1) {
      const event = Math.floor(random() * items.length);
      const item = items[event];
      const at = Math.floor(random() * (item?.notes.length ?? 1));
      const found = item && slipAt({ right, kind, slip, item, event, at, random });
      if (found && !made.has(found.text)) made.set(found.text, found);
    }
  return [...made.values()];
}

function slipAt({
  right,
  kind,
  slip,
  item,
  event,
  at,
  random,
}: {
  readonly right: RightPhrase;
  readonly kind: string;
  readonly slip: Slipping;
  readonly item: EventItem;
  readonly event: number;
  readonly at: number;
  readonly random: () => number;
}): SlippedPhrase | undefined {
  const note = item.notes[at];
  if (note?.fret === null || note === undefined) return undefined;
  const change = slip({ ...note, fret: note.fret }, random);
  if (!change) return undefined;
  const wrong = { ...note, ...change };
  const isThere = wrong.string >= 1 && wrong.string <= 6 && (wrong.fret ?? 0) >= 0 && (wrong.fret ?? 0) <= 36;
  // The string of a linked note is not typed.
  const isTyped = item.link === undefined || wrong.string === note.string;
  if (!isThere || !isTyped) return undefined;
  const notes = item.notes.map((one, index) => (index === at ? wrong : one));
  const read = (typed: string) => readShorthand(typed, { tuning: TUNINGS.standard, meter: right.meter });
  const text = rewriteEvents(right.text, new Map([[item, { ...item, notes }]]), (typed) => read(typed).phrase);
  const { phrase, problems } = read(text);
  const isRead = problems.every(({ severity, code }) => severity === 'hint' || code === 'bar-length');
  const isSame = eventsOf(phrase).length === eventsOf(right.phrase).length;
  if (text === right.text || !isRead || !isSame || !couldBeNoticed(right, phrase, event)) return undefined;
  const name = item.notes.length > 1 && kind.startsWith('fret one') ? 'one note of a stack' : kind;
  return { right, text, phrase, kind: name, event, note: at };
}

/**
 * Whether a slip changes whether a note belongs to the key by its sounding pitch, at least doubles what is usual in the phrase for the
 * hand at that place, or keeps a unison from meeting.
 */
function couldBeNoticed(right: RightPhrase, wrong: Phrase, event: number): boolean {
  const before = notesOf(right.phrase, event);
  const after = notesOf(wrong, event);
  const scale = scaleOfKey(right.key);
  const outside = (notes: readonly HeardNote[]) =>
    notes.filter(({ rests }) => !scale.has(namedMidi(rests) % 12)).length;
  if (outside(after) > outside(before)) return true;
  if (meets(before) && !meets(after)) return true;
  const [costs, now] = [growthOf(right.phrase), growthOf(wrong)];
  // What is usual among the events that ask anything of the hand at all.
  const paid = costs.filter((cost) => cost > 0).toSorted((a, b) => a - b);
  const usual = paid[Math.floor(paid.length / 2)] ?? 0;
  const cost = Math.max(now[event] ?? 0, now[event + 1] ?? 0);
  return cost >= 2 * usual && cost > 2 * Math.max(costs[event] ?? 0, costs[event + 1] ?? 0);
}

function notesOf(phrase: Phrase, event: number): readonly HeardNote[] {
  const item = eventsOf(phrase)[event]?.item;
  return heardOf(phrase, guitar).filter((note) => note.item === item);
}

function meets(notes: readonly HeardNote[]): boolean {
  return notes.some((a) => a.how === 'bent' && notes.some((b) => b !== a && b.how !== 'bent' && a.rests === b.rests));
}

const growths = new WeakMap<Phrase, readonly number[]>();
function growthOf(phrase: Phrase): readonly number[] {
  const known = growths.get(phrase);
  if (known) return known;
  const { growth } = bestPath(phrase, guitar, { asWritten: true });
  const costs = growth.map(({ moreMs }) => moreMs);
  growths.set(phrase, costs);
  return costs;
}
