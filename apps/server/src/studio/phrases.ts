import type { MadeAlternate, Phrase, PhraseBody, PhraseChange, PhraseMark, Seen } from '@jam-ledger/contract';
import {
  chooseAlternate,
  findAlternates,
  findOwn,
  placeOfNextPhrase,
  saveVersioned,
  type PhraseModel,
} from '../store/index.ts';
import { found, kept } from './keep.ts';
import { gatherFacts } from './licks.ts';
import { carryReferences } from './references.ts';
import { keepRevision } from './revisions.ts';
import { describePhrase } from './transcriptions.ts';
import { Invalid } from './trouble.ts';
import { requireTeacher, type Visit } from './visit.ts';

/** Adds a phrase at the end of a section. @throws NotYours, Unknown */
export async function addPhrase(visit: Visit, sectionId: string, body: PhraseBody): Promise<Phrase> {
  requireTeacher(visit);
  const { store, studio } = visit;
  found(await findOwn(store.sections, { studioId: studio.id, id: sectionId }));
  const place = await placeOfNextPhrase(store, studio.id, sectionId);
  const row = await store.phrases.create({ ...body, studioId: studio.id, sectionId, place });
  await gatherFacts(store, { phraseId: row.id });
  return describePhrase(row);
}

/**
 * Changes a phrase, strikes it out or puts it back. The text before is kept; a changed text is a draft again and
 * stands for itself; phrases that refer to it change along. @throws NotYours, Unknown, Stale
 */
export async function changePhrase(visit: Visit, id: string, change: PhraseChange): Promise<Phrase> {
  requireTeacher(visit);
  const { store, studio } = visit;
  const { version, ...changes } = change;
  const before = found(await findOwn(store.phrases, { studioId: studio.id, id }));
  const isNew = before.text !== change.text;
  const row = { studioId: studio.id, id, version };
  const saved = await saveVersioned(store.phrases, row, isNew ? { ...changes, ...DRAFT } : changes);
  const after = await kept(saved, describePhrase);
  if (before.struck !== change.struck) return describePhrase(await settleChoice(visit, after));
  if (!isNew) return describePhrase(after);
  await keepRevision(visit, before);
  await carryReferences(visit, after);
  await gatherFacts(store, { phraseId: id });
  return describePhrase(after);
}

/** What a phrase is when its text was changed. */
const DRAFT = {
  status: 'draft',
  checkedBy: '',
  checkedAgainst: '',
  checkedAt: null,
  refersTo: null,
  movedFrets: 0,
} as const;

/** Marks a phrase as checked or proven, with who and when, or as a draft again. @throws NotYours, Unknown, Stale */
export async function markPhrase(visit: Visit, id: string, mark: PhraseMark): Promise<Phrase> {
  requireTeacher(visit);
  const { store, studio, person, now } = visit;
  const { version, status, against } = mark;
  const draft = status === 'draft';
  const changes = {
    status,
    checkedBy: draft ? '' : person.name,
    checkedAgainst: draft ? '' : against,
    checkedAt: draft ? null : now,
  };
  const saved = await saveVersioned(store.phrases, { studioId: studio.id, id, version }, changes);
  return describePhrase(await kept(saved, describePhrase));
}

/** Keeps an alternate beside a phrase: a copy of it, or what was made of it as arranged. @throws NotYours, Unknown */
export async function addAlternate(visit: Visit, id: string, made: Partial<MadeAlternate> = {}): Promise<Phrase> {
  requireTeacher(visit);
  const { store, studio } = visit;
  const main = await mainOf(visit, id);
  const others = await findAlternates(store, studio.id, main.id);
  const { sectionId, place, name, text, layer, certainty, reason } = main;
  const body = {
    sectionId,
    place,
    text,
    layer,
    certainty,
    reason,
    name: `${name.slice(0, 60)}, ${ordinal(others.length)}`,
    ...(made.text !== undefined && { ...made, certainty: 'arranged' }),
  };
  const row = await store.phrases.create({ ...body, studioId: studio.id, alternateOf: main.id, chosen: false });
  await gatherFacts(store, { phraseId: row.id });
  return describePhrase(row);
}

const ordinal = (count: number): string => (count === 1 ? 'another way' : `another way ${count}`);

/** Chooses the one of some alternates that this student plays. @throws NotYours, Unknown, Stale, Invalid */
export async function choosePhrase(visit: Visit, id: string, seen: Seen): Promise<Phrase> {
  requireTeacher(visit);
  const { store, studio } = visit;
  const main = await mainOf(visit, id);
  const all = await findAlternates(store, studio.id, main.id);
  if (!all.some((one) => one.id === id))
    throw new Invalid([{ field: 'body', message: 'A phrase that is struck out cannot be chosen.' }]);
  const saved = await saveVersioned(store.phrases, { studioId: studio.id, id, ...seen }, { chosen: true });
  const row = await kept(saved, describePhrase);
  const ids = all.map((one) => one.id);
  await chooseAlternate(store, studio.id, ids, id);
  return describePhrase(row);
}

/** Keeps exactly one of some alternates in use when one of them is struck out or put back. */
async function settleChoice(visit: Visit, changed: PhraseModel): Promise<PhraseModel> {
  const { store, studio } = visit;
  const left = await findAlternates(store, studio.id, changed.alternateOf ?? changed.id);
  const others = left.filter(({ id }) => id !== changed.id);
  const [first] = others;
  if (!first || !changed.chosen) return changed;
  const inUse = others.find((one) => one.chosen);
  const chosen = inUse ?? (changed.struck ? first : changed);
  const ids = [changed.id, ...others.map(({ id }) => id)];
  await chooseAlternate(store, studio.id, ids, chosen.id);
  return found(await findOwn(store.phrases, { studioId: studio.id, id: changed.id }));
}

async function mainOf({ store, studio }: Visit, id: string): Promise<PhraseModel> {
  const row = found(await findOwn(store.phrases, { studioId: studio.id, id }));
  if (!row.alternateOf) return row;
  return found(await findOwn(store.phrases, { studioId: studio.id, id: row.alternateOf }));
}
