import type { Phrase, PhraseReference } from '@jam-ledger/contract';
import { keyTextAt } from '@jam-ledger/core/form';
import { movedText, readShorthand, sayMove, type Move } from '@jam-ledger/core/notation';
import { readKey, readTuning, TUNINGS, type Tuning } from '@jam-ledger/core/pitch';
import { readPlaced, settledText } from '@jam-ledger/core/placing';
import {
  findOwn,
  findReferences,
  saveVersioned,
  type PhraseModel,
  type SectionModel,
  type TranscriptionModel,
} from '../../store/index.ts';
import { orNotFound, orConflict } from '../context/rows.ts';
import { fitThere, fitToOf } from './fitting.ts';
import { gatherFacts } from '../licks/licks.ts';
import { keepRevision } from './revisions.ts';
import { describePhrase, moveOf } from './transcriptions.ts';
import { Invalid } from '../context/errors.ts';
import { type RequestContext } from '../context/context.ts';

/** What a row is that refers to no other. */
export const STANDS_ALONE = { refersTo: null, movedSemitones: 0, movedStrings: 0, openStays: false } as const;

/**
 * Lets a phrase refer to another instead of repeating it, moved over the neck, or stand for itself again. Its text
 * follows the other’s. @throws Forbidden, NotFound, Conflict; Invalid where it would refer in a circle or off the neck.
 */
export async function referPhrase(context: RequestContext, id: string, reference: PhraseReference): Promise<Phrase> {
  const { store, studio } = context;
  const { version, to, move } = reference;
  const before = orNotFound(await findOwn(store.phrases, { studioId: studio.id, id }));
  const row = { studioId: studio.id, id, version };
  const text = to === null ? before.text : await referredText(context, before, { to, move });
  const { semitones, strings, openStays } = move;
  const refers = { refersTo: to, movedSemitones: semitones, movedStrings: strings, openStays };
  const changes = { text, ...(to === null ? STANDS_ALONE : refers) };
  const after = await orConflict(await saveVersioned(store.phrases, row, changes), describePhrase);
  if (text !== before.text) await keepRevision(context, before);
  await gatherFacts(store, { phraseId: id });
  return describePhrase(after);
}

async function referredText(
  context: RequestContext,
  from: PhraseModel,
  { to, move }: { readonly to: string; readonly move: Move },
): Promise<string> {
  const { store, studio } = context;
  const refuse = (message: string) => new Invalid([{ field: 'to', message }]);
  const target = orNotFound(await findOwn(store.phrases, { studioId: studio.id, id: to }));
  const circle = 'These phrases would refer to each other in a circle; refer to one that is written out.';
  if (target.id === from.id || target.refersTo) throw refuse(circle);
  if ((await findReferences(store, studio.id, from.id)).length > 0) throw refuse(circle);
  const place = await placeOf(context, target);
  if (place.song.id !== (await placeOf(context, from)).song.id)
    throw refuse('A phrase refers to one of the same song.');
  const text = moved(target.text, move, place);
  if (text === undefined) throw refuse(`Moved ${sayMove(move)}, some of it would leave the neck.`);
  return text;
}

/** The song that a phrase stands in, and the key in force there, as typed. */
interface PlaceInSong {
  readonly song: TranscriptionModel;
  readonly section: SectionModel;
  readonly key: string;
  /** The guitar there. */
  readonly tuning: string;
  readonly capo: number;
}

async function placeOf({ store, studio }: RequestContext, { sectionId }: PhraseModel): Promise<PlaceInSong> {
  const section = orNotFound(await findOwn(store.sections, { studioId: studio.id, id: sectionId }));
  const song = orNotFound(await findOwn(store.transcriptions, { studioId: studio.id, id: section.transcriptionId }));
  const key = keyTextAt(section.startSeconds, song);
  return { song, section, key, tuning: section.tuning ?? song.tuning, capo: section.capo ?? song.capo };
}

/** Lets the phrases that refer to one follow its new text; one that would leave the neck stands for itself from now on. */
export async function carryReferences(context: RequestContext, target: PhraseModel): Promise<void> {
  const { store, studio } = context;
  const references = await findReferences(store, studio.id, target.id);
  if (references.length === 0) return;
  const place = await placeOf(context, target);
  for (const row of references) {
    const text = moved(target.text, moveOf(row), place);
    const changes = text === undefined ? STANDS_ALONE : { text: await fittedFor(context, row, { text, place }) };
    await saveVersioned(store.phrases, { studioId: studio.id, id: row.id, version: row.version }, changes);
    await gatherFacts(store, { phraseId: row.id });
  }
}

/** A text as it goes to a phrase of another student’s song: fitted to their guitar and hand. */
async function fittedFor(
  context: RequestContext,
  row: PhraseModel,
  { text, place }: { readonly text: string; readonly place: PlaceInSong },
): Promise<string> {
  const { song } = await placeOf(context, row);
  if (song.id === place.song.id) return text;
  return fitThere(text, place, await fitToOf(context, song.studentId)).text;
}

function moved(text: string, move: Move, place: PlaceInSong): string | undefined {
  const guitar = guitarAt(place);
  return movedText(text, readShorthand(text, guitar).phrase, move, { tuning: guitar.tuning, key: readKey(place.key) });
}

function guitarAt({ tuning, capo }: PlaceInSong): { readonly tuning: Tuning; readonly capo: number } {
  return { tuning: readTuning(tuning) ?? TUNINGS.standard, capo };
}

/**
 * Writes the places into phrases that their texts left open: from the moment a piece of them is given, nothing in it moves any more.
 * A phrase that refers to another follows it.
 */
export async function settlePlaces(context: RequestContext, phraseIds: readonly string[]): Promise<void> {
  const { store, studio } = context;
  for (const phraseId of new Set(phraseIds)) {
    const row = await findOwn(store.phrases, { studioId: studio.id, id: phraseId });
    const root = row?.refersTo ? await findOwn(store.phrases, { studioId: studio.id, id: row.refersTo }) : row;
    if (!root) continue;
    const guitar = guitarAt(await placeOf(context, root));
    const read = (text: string) => readPlaced(text, guitar).phrase;
    const text = settledText(root.text, read(root.text), read);
    if (text === root.text) continue;
    const { id, version } = root;
    const saved = await saveVersioned(store.phrases, { studioId: studio.id, id, version }, { text });
    const after = await orConflict(saved, describePhrase);
    await keepRevision(context, root);
    await carryReferences(context, after);
    await gatherFacts(store, { phraseId: id });
  }
}
