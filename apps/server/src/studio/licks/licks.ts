import { LICK_LIMITS, RHYTHMS, startValueOf, type Lick, type LickQuery, type LicksFound } from '@jam-ledger/contract';
import { keyTextAt, tempoAt, readTempoChanges } from '@jam-ledger/core/form';
import { factsOf } from '@jam-ledger/core/licks';
import { ALIKE, compare, sayLikeness, type CompareOptions } from '@jam-ledger/core/likeness';
import { TECHNIQUES, type Phrase } from '@jam-ledger/core/notation';
import { readPlaced } from '@jam-ledger/core/placing';
import { OPEN_KEY, readKey, readTuning, TUNINGS } from '@jam-ledger/core/pitch';
import {
  findFactless,
  findLicks,
  findOwn,
  keepFacts,
  type FactlessRow,
  type LickRow,
  type Store,
} from '../../store/index.ts';
import { orNotFound, parseWord } from '../context/rows.ts';
import { mapInSlices } from '../context/slices.ts';
import { type RequestContext } from '../context/context.ts';

/** Phrases are gathered in portions of so many, so that what is done is kept. Our choice. */
const PORTION = 200;

/** So many that share most with a phrase are compared with it note by note. Our choice. */
const MAX_COMPARED = 20;

/** Gathers what a phrase, or every phrase of a section or song, can be found by, anew. */
export async function gatherFacts(
  store: Store,
  of: { readonly songId: string } | { readonly sectionId: string } | { readonly phraseId: string },
): Promise<void> {
  await keepFacts(store, await mapInSlices(await findFactless(store, of), describeFacts));
}

/** Gathers the facts of every phrase that has none yet, after an upgrade. Returns how many there were. */
export async function gatherMissingFacts(store: Store): Promise<number> {
  let count = 0;
  for (let rows = await findFactless(store, { max: PORTION }); rows.length > 0;) {
    await keepFacts(store, await mapInSlices(rows, describeFacts));
    count += rows.length;
    rows = await findFactless(store, { max: PORTION });
  }
  return count;
}

function describeFacts(row: FactlessRow): Parameters<typeof keepFacts>[1][number] {
  const tempoChange = tempoAt(row.startSeconds, readTempoChanges(row));
  const { techniques, chords, grams, ...facts } = factsOf(phraseOf(row, tempoChange.meter), setupThere(row));
  const lists = { techniques: [...techniques], chords: [...chords], grams: [...grams] };
  return { ...facts, ...lists, id: row.id, studioId: row.studioId, bpm: tempoChange.bpm };
}

interface SetUpColumns {
  readonly tuning: string;
  readonly capo: number;
  readonly key: string;
  readonly meter: string;
  readonly rhythm: string;
}

function setupOf({ tuning, capo, key }: SetUpColumns): CompareOptions {
  return { tuning: readTuning(tuning) ?? TUNINGS.standard, capo, key: readKey(key) ?? OPEN_KEY };
}

/** The set-up of a song in the key that is in force where a phrase of it stands. */
function setupThere(row: FactlessRow): CompareOptions {
  return setupOf({ ...row, key: keyTextAt(row.startSeconds, row) });
}

function phraseOf(row: SetUpColumns & { readonly text: string }, meter: Phrase['meter']): Phrase {
  return readPlaced(row.text, {
    ...{ tuning: setupOf(row).tuning, capo: row.capo, meter },
    startValue: startValueOf(parseWord(RHYTHMS, row.rhythm)),
  }).phrase;
}

/** The phrases of the studio that fit a search, or that are like one. @throws Forbidden, NotFound */
export async function searchLicks(context: RequestContext, query: LickQuery): Promise<LicksFound> {
  const { store, studio } = context;
  const like = query.like === undefined ? undefined : await likenessOf(context, query.like);
  const rows = await findLicks(store, studio.id, {
    technique: query.technique ?? null,
    chord: query.chord ?? null,
    degrees: padded(query.degrees),
    shape: padded(query.shape),
    steps: padded(query.steps),
    lowestFret: query.lowestFret ?? null,
    highestFret: query.highestFret ?? null,
    slowest: query.slowest ?? null,
    fastest: query.fastest ?? null,
    words: query.words ?? null,
    grams: like?.grams ?? null,
    except: query.like ?? null,
    max: like ? MAX_COMPARED : LICK_LIMITS.max,
  });
  if (!like) return { total: rows[0]?.total ?? 0, licks: rows.map((row) => describeLick(row, '')) };
  const compared = await mapInSlices(rows, (row) => like.compared(row));
  const licks = compared
    .filter(({ likeness }) => likeness >= ALIKE)
    .sort((a, b) => b.likeness - a.likeness)
    .map(({ lick }) => lick);
  return { total: licks.length, licks };
}

/** Compares every row with one phrase, each in its own tuning. */
async function likenessOf({ store, studio }: RequestContext, id: string) {
  orNotFound(await findOwn(store.phrases, { studioId: studio.id, id }));
  const row = orNotFound((await findFactless(store, { phraseId: id }))[0]);
  const { meter } = tempoAt(row.startSeconds, readTempoChanges(row));
  const phrase = phraseOf(row, meter);
  const own = setupThere(row);
  return {
    grams: factsOf(phrase, own).grams,
    compared: (other: LickRow) => {
      const likeness = compare(phrase, phraseOf(other, meter), { ...setupOf(other), first: own });
      const says = sayLikeness({ ...likeness, id, name: 'it' });
      return { likeness: likeness.kinship === 'none' ? 0 : likeness.likeness, lick: describeLick(other, says) };
    },
  };
}

/** A pattern with blanks around, as facts are kept, so that `1` is not found in `b1`. */
function padded(pattern: string | undefined): string | null {
  const words = pattern?.trim().split(/\s+/).filter(Boolean) ?? [];
  return words.length === 0 ? null : ` ${words.join(' ')} `;
}

function describeLick(row: LickRow, likeness: string): Lick {
  const { phraseId, name, section, student, bpm, chords, lowestFret, highestFret } = row;
  const { songId: id, title, tuning, capo, key, meter } = row;
  const techniques = TECHNIQUES.filter((technique) => row.techniques.includes(technique));
  const song = { id, title, tuning, capo, key, meter };
  // Read apart from its song, it says itself that only the order of its notes is known.
  const text = row.rhythm === 'counted' || row.text.startsWith('/') ? row.text : `/? ${row.text}`;
  return { phraseId, name, text, song, section, student, bpm, techniques, chords, lowestFret, highestFret, likeness };
}
