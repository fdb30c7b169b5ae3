import type { MadeAlternate, Phrase, PhraseBody, PhraseChange, PhraseMark, Seen } from '@jam-ledger/contract';
import {
  addRow,
  chooseAlternate,
  findAlternates,
  findOwn,
  positionOfNextPhrase,
  saveVersioned,
  type PhraseModel,
} from '../../store/index.ts';
import { orNotFound, orConflict } from '../context/rows.ts';
import { keepCorrections, type Said } from '../context/corrections.ts';
import { gatherFacts } from '../licks/licks.ts';
import { carryReferences, STANDS_ALONE } from './references.ts';
import { keepRevision } from './revisions.ts';
import { describePhrase } from './transcriptions.ts';
import { Invalid } from '../context/errors.ts';
import { type RequestContext } from '../context/context.ts';

/** Adds a phrase at the end of a section. @throws Forbidden, NotFound */
export async function addPhrase(context: RequestContext, sectionId: string, body: PhraseBody): Promise<Phrase> {
  const { store, studio } = context;
  orNotFound(await findOwn(store.sections, { studioId: studio.id, id: sectionId }));
  const position = await positionOfNextPhrase(store, studio.id, sectionId);
  const row = await addRow(store.phrases, { ...body, studioId: studio.id, sectionId, position });
  await gatherFacts(store, { phraseId: row.id });
  return describePhrase(row);
}

/**
 * Changes a phrase, strikes it out or puts it back. The text before is kept; a changed text is a draft again and
 * stands for itself; phrases that refer to it change along. @throws Forbidden, NotFound, Conflict
 */
export async function changePhrase(context: RequestContext, id: string, change: PhraseChange): Promise<Phrase> {
  const { store, studio } = context;
  const { version, ...changes } = change;
  const before = orNotFound(await findOwn(store.phrases, { studioId: studio.id, id }));
  const isNew = before.text !== change.text;
  const row = { studioId: studio.id, id, version };
  const saved = await saveVersioned(store.phrases, row, isNew ? { ...changes, ...DRAFT } : changes);
  const after = await orConflict(saved, describePhrase);
  await keepCorrections(context, { kind: 'phrase', id }, { before, after, said: PHRASE_SAID });
  if (before.struck !== change.struck) return describePhrase(await settleChoice(context, after));
  if (!isNew) return describePhrase(after);
  await keepRevision(context, before);
  await carryReferences(context, after);
  await gatherFacts(store, { phraseId: id });
  return describePhrase(after);
}

/** What of a phrase is kept when it is corrected, besides its text. */
const PHRASE_SAID: Said<PhraseModel> = [
  ['name', ({ name }) => name],
  ['state', ({ status }) => status],
];

/** What a phrase is when its text was changed. */
const DRAFT = {
  status: 'draft',
  checkedBy: '',
  checkedAgainst: '',
  checkedAt: null,
  ...STANDS_ALONE,
} as const;

/** Marks a phrase as checked or proven, with who and when, or as a draft again. @throws Forbidden, NotFound, Conflict */
export async function markPhrase(context: RequestContext, id: string, mark: PhraseMark): Promise<Phrase> {
  const { store, studio, person, now } = context;
  const { version, status, against } = mark;
  const draft = status === 'draft';
  const changes = {
    status,
    checkedBy: draft ? '' : person.name,
    checkedAgainst: draft ? '' : against,
    checkedAt: draft ? null : now,
  };
  const before = orNotFound(await findOwn(store.phrases, { studioId: studio.id, id }));
  const saved = await saveVersioned(store.phrases, { studioId: studio.id, id, version }, changes);
  const after = await orConflict(saved, describePhrase);
  await keepCorrections(context, { kind: 'phrase', id }, { before, after, said: PHRASE_SAID });
  return describePhrase(after);
}

/** Keeps an alternate beside a phrase: a copy of it, or what was made of it as arranged. @throws Forbidden, NotFound */
export async function addAlternate(
  context: RequestContext,
  id: string,
  made: Partial<MadeAlternate> = {},
): Promise<Phrase> {
  const { store, studio } = context;
  const main = await mainOf(context, id);
  const others = await findAlternates(store, studio.id, main.id);
  const { sectionId, position, name, text, layer, certainty, reason } = main;
  const body = {
    sectionId,
    position,
    text,
    layer,
    certainty,
    reason,
    name: `${name.slice(0, 60)}, ${ordinal(others.length)}`,
    ...(made.text !== undefined && { ...made, certainty: 'arranged' }),
  };
  const row = await addRow(store.phrases, { ...body, studioId: studio.id, alternateOf: main.id, chosen: false });
  await gatherFacts(store, { phraseId: row.id });
  return describePhrase(row);
}

const ordinal = (count: number): string => (count === 1 ? 'another way' : `another way ${count}`);

/** Chooses the one of some alternates that this student plays. @throws Forbidden, NotFound, Conflict, Invalid */
export async function choosePhrase(context: RequestContext, id: string, seen: Seen): Promise<Phrase> {
  const { store, studio } = context;
  const main = await mainOf(context, id);
  const all = await findAlternates(store, studio.id, main.id);
  if (!all.some((one) => one.id === id))
    throw new Invalid([{ field: 'body', message: 'A phrase that is struck out cannot be chosen.' }]);
  const saved = await saveVersioned(store.phrases, { studioId: studio.id, id, ...seen }, { chosen: true });
  const row = await orConflict(saved, describePhrase);
  const ids = all.map((one) => one.id);
  await chooseAlternate(store, studio.id, ids, id);
  return describePhrase(row);
}

/** Keeps exactly one of some alternates in use when one of them is struck out or put back. */
async function settleChoice(context: RequestContext, changed: PhraseModel): Promise<PhraseModel> {
  const { store, studio } = context;
  const left = await findAlternates(store, studio.id, changed.alternateOf ?? changed.id);
  const others = left.filter(({ id }) => id !== changed.id);
  const [first] = others;
  if (!first || !changed.chosen) return changed;
  const inUse = others.find((one) => one.chosen);
  const chosen = inUse ?? (changed.struck ? first : changed);
  const ids = [changed.id, ...others.map(({ id }) => id)];
  await chooseAlternate(store, studio.id, ids, chosen.id);
  return orNotFound(await findOwn(store.phrases, { studioId: studio.id, id: changed.id }));
}

async function mainOf({ store, studio }: RequestContext, id: string): Promise<PhraseModel> {
  const row = orNotFound(await findOwn(store.phrases, { studioId: studio.id, id }));
  if (!row.alternateOf) return row;
  return orNotFound(await findOwn(store.phrases, { studioId: studio.id, id: row.alternateOf }));
}
