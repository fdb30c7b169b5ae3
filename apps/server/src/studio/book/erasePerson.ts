import { mkdir, readFile, rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import Joi from 'joi';
import {
  countParts,
  endInvitations,
  endSessions,
  eraseParts,
  findErased,
  findErasing,
  findOnlyGuardians,
  findOwn,
  findRow,
  saveVersioned,
  type PersonModel,
  type Store,
} from '../../store/index.ts';
import type { Erasure, ErasureBody } from '@jam-ledger/contract';
import { DateTime } from 'luxon';
import { Invalid } from '../context/errors.ts';
import { dayOf, type RequestContext } from '../context/context.ts';
import { orConflict, orNotFound } from '../context/rows.ts';
import { BookTrouble, codeOf, fileTrouble } from './bookTrouble.ts';
import { writeTrail } from './trail.ts';

/** Whoever is to be erased can be kept for so long, days. Our choice. */
const WAIT_DAYS = 7;

/** What goes when a student is erased. @throws Forbidden, NotFound, Invalid for somebody who is no student */
export async function showErasure(context: RequestContext, id: string): Promise<Erasure> {
  const { store, studio } = context;
  const row = await studentRow(context, id);
  const of = { studioId: studio.id, personId: id };
  const guardians = await findOnlyGuardians(store, of);
  return {
    ...{ id, version: row.version, name: row.name, on: row.eraseOn ?? null, waitDays: WAIT_DAYS },
    counts: await countParts(store, of),
    guardians: guardians.map(({ name }) => name),
  };
}

/**
 * Has a student erased after a waiting time, and puts them away until then: they are signed out and leave every list.
 * @throws Forbidden, NotFound, Conflict, Invalid where the name that was typed is not theirs
 */
export async function askErasure(
  context: RequestContext,
  id: string,
  { version, name }: ErasureBody,
): Promise<Erasure> {
  const row = await studentRow(context, id);
  if (name.trim() !== row.name.trim())
    throw new Invalid([{ field: 'name', message: `Type ${row.name}, so that nobody else is erased by a slip.` }]);
  await markForErasing(context, id, { version, by: context.person.id });
  return showErasure(context, id);
}

/** Puts a student away and has them erased after the waiting time; `by` is null for whoever runs the machine. @throws Conflict */
export async function markForErasing(
  context: RequestContext,
  id: string,
  { version, by }: { readonly version: number; readonly by: string | null },
): Promise<void> {
  const { store, studio, now } = context;
  const row = await studentRow(context, id);
  const on = DateTime.fromISO(dayOf(context)).plus({ days: WAIT_DAYS }).toISODate();
  const changes = { eraseOn: on, archivedAt: row.archivedAt ?? now };
  await orConflict(await saveVersioned(store.people, { studioId: studio.id, id, version }, changes), () =>
    showErasure(context, id),
  );
  await endInvitations(store, studio.id, id, now);
  await endSessions(store, id, '');
  await writeTrail(store, { studioId: studio.id, at: now, personId: by, act: 'asked to erase', aboutId: id });
}

/** Keeps a student from being erased; they stay put away until they are taken back. @throws Forbidden, NotFound */
export async function keepFromErasing(context: RequestContext, id: string): Promise<Erasure> {
  await unmarkForErasing(context, id, { by: context.person.id });
  return showErasure(context, id);
}

/** Takes back that a student is to be erased; `by` is null for whoever runs the machine. */
export async function unmarkForErasing(
  context: RequestContext,
  id: string,
  { by }: { readonly by: string | null },
): Promise<void> {
  const { store, studio, now } = context;
  const row = await studentRow(context, id);
  if (row.eraseOn == null) return;
  await saveVersioned(store.people, { studioId: studio.id, id, version: row.version }, { eraseOn: null });
  await writeTrail(store, { studioId: studio.id, at: now, personId: by, act: 'kept from erasing', aboutId: id });
}

async function studentRow({ store, studio }: RequestContext, id: string): Promise<PersonModel> {
  const row = orNotFound(await findOwn(store.people, { studioId: studio.id, id }));
  if (row.role !== 'student')
    throw new Invalid([
      {
        field: 'id',
        message: 'Only a student is erased; whoever teaches is put away, since others’ songs are theirs.',
      },
    ]);
  return row;
}

/**
 * Erases somebody, within the transaction of whoever does it, with guardians who have no other child in the studio; nothing where they
 * are not in the book.
 */
export async function erasePerson(store: Store, id: string, now: Date): Promise<void> {
  const row = await findRow(store.people, { id });
  if (!row) return;
  const { studioId } = row;
  const guardians = await findOnlyGuardians(store, { studioId, personId: id });
  for (const one of [id, ...guardians.map((guardian) => guardian.id)]) {
    await eraseParts(store, { studioId, personId: one }, now);
    await writeTrail(store, { studioId, at: now, personId: null, act: 'erased', aboutId: one });
  }
}

/**
 * Erases whoever waited long enough, each in a transaction of their own; how many that were. Their ids are kept beside the backups, too,
 * so that a restore on another machine erases them again.
 */
export async function eraseDue(store: Store, now: Date, folder: string | undefined): Promise<number> {
  const due = (await findErasing(store, null, now)).filter(({ isDue }) => isDue);
  for (const { id } of due)
    await store.inTransaction(async () => {
      await store.lock(`erase ${id}`);
      const row = await findRow(store.people, { id });
      // Of two servers one does it; whoever was kept meanwhile stays.
      if (row?.eraseOn != null) await erasePerson(store, id, now);
    });
  if (folder !== undefined) await keepErasedFile(folder, await findErased(store));
  return due.length;
}

/** The ids of those who were erased, beside the backups. */
const ERASED_FILE = 'erased.json';
const erasedSchema = Joi.object<{ readonly erased: readonly string[] }>({
  erased: Joi.array().items(Joi.string().guid()).required(),
});

/** Writes down who was erased, beside the backups; whoever was written down before stays so. @throws BookTrouble */
export async function keepErasedFile(folder: string, ids: readonly string[]): Promise<void> {
  const before = await readErasedFile(join(folder, ERASED_FILE));
  const all = [...new Set([...(before ?? []), ...ids])].sort();
  if (all.length === (before ?? []).length) return;
  const part = join(folder, `.${ERASED_FILE}.part`);
  try {
    await mkdir(folder, { recursive: true, mode: 0o700 });
    await writeFile(part, `${JSON.stringify({ erased: all }, null, 2)}\n`, { mode: 0o600, flush: true });
    await rename(part, join(folder, ERASED_FILE));
  } catch (error) {
    throw fileTrouble(error, ERASED_FILE);
  }
}

/** Who was erased, as a file beside the backups of a folder says. */
export async function erasedBeside(folder: string): Promise<readonly string[]> {
  return (await readErasedFile(join(folder, ERASED_FILE))) ?? [];
}

/** Who was erased, as a file says; undefined where there is none. @throws BookTrouble where it says something else */
export async function readErasedFile(file: string): Promise<readonly string[] | undefined> {
  const text = await readFile(file, 'utf8').catch((error: unknown) => {
    if (codeOf(error) === 'ENOENT') return undefined;
    throw fileTrouble(error, file);
  });
  if (text === undefined) return undefined;
  const damaged = new BookTrouble(`${file} does not say who was erased; without it nothing is restored.`);
  let said: unknown;
  try {
    said = JSON.parse(text);
  } catch {
    throw damaged;
  }
  const checked = erasedSchema.validate(said);
  if (checked.error) throw damaged;
  return checked.value.erased;
}
