import { Readable } from 'node:stream';
import {
  partsOf,
  SOUND_KINDS,
  SOUND_LIMITS,
  type FileGiven,
  type RecordingOfSong,
  type SentTake,
  type SoundFacts,
  type StudioSound,
  type TakeAnswer,
  type TakeBody,
} from '@jam-ledger/contract';
import { DateTime } from 'luxon';
import {
  addRow,
  bytesKept,
  dropParts,
  dropSound,
  findOwn,
  findRow,
  findRows,
  keepPart,
  partsHere,
  readPart,
  saveVersioned,
  type SoundModel,
} from '../../store/index.ts';
import { dayOf, teaches, type RequestContext } from '../context/context.ts';
import { Forbidden, Invalid, NotFound } from '../context/errors.ts';
import { orConflict, orNotFound, parseWord } from '../context/rows.ts';

/** Which recording a song is worked out from. @throws NotFound */
export async function showRecording(context: RequestContext, songId: string): Promise<RecordingOfSong> {
  const { known } = await recordingOf(context, songId);
  return { recording: known ? await showSound(context, known) : null };
}

/** A song with the recording that is known of it. @throws NotFound */
async function recordingOf({ store, studio }: RequestContext, songId: string) {
  const song = orNotFound(await findOwn(store.transcriptions, { studioId: studio.id, id: songId }));
  return { song, known: await findRow(store.sounds, { studioId: studio.id, songId }) };
}

/** Notes which recording a song is worked out from; another one than before takes its place, and its bytes go. @throws NotFound */
export async function knowRecording(
  context: RequestContext,
  songId: string,
  facts: SoundFacts,
): Promise<RecordingOfSong> {
  const { store, studio, person, now } = context;
  const { song, known } = await recordingOf(context, songId);
  if (!known) {
    const own = { studioId: studio.id, kind: 'recording', studentId: song.studentId, personId: person.id, songId };
    await addRow(store.sounds, { ...own, ...facts, madeAt: now });
  } else if (known.print !== facts.print) {
    await dropParts(store, { studioId: studio.id, id: known.id });
    const { id, version } = known;
    await saveVersioned(store.sounds, { studioId: studio.id, id, version }, { ...facts, madeAt: now });
  }
  return showRecording(context, songId);
}

/** Deletes the bytes of the recording of a song; which one it was stays known. @throws NotFound */
export async function forgetRecording(context: RequestContext, songId: string): Promise<RecordingOfSong> {
  const { known } = await recordingOf(context, songId);
  if (!known) return { recording: null };
  await dropParts(context.store, { studioId: context.studio.id, id: known.id });
  return { recording: await showSound(context, known) };
}

/** The takes that were sent of a piece, the newest first; those whose day has come are not among them. @throws NotFound */
export async function listTakes(context: RequestContext, pieceId: string): Promise<readonly SentTake[]> {
  const { store, studio } = context;
  orNotFound(await findOwn(store.pieces, { studioId: studio.id, id: pieceId }));
  const today = dayOf(context);
  const rows = await findRows(store.sounds, { studioId: studio.id, pieceId });
  const takes = await showTakes(
    context,
    rows.filter(({ goesOn }) => (goesOn ?? today) > today),
  );
  return takes.toSorted((a, b) => b.playedAt.localeCompare(a.playedAt));
}

/** Takes a student’s take in; one with the same id that was sent before is answered as it is. @throws Forbidden for an id of somebody else’s */
export async function sendTake(context: RequestContext, pieceId: string, body: TakeBody): Promise<SentTake> {
  const { store, studio, person, now } = context;
  const { id, playedAt, ...facts } = body;
  const before = await findOwn(store.sounds, { studioId: studio.id, id });
  if (before && (before.personId !== person.id || before.pieceId !== pieceId)) throw new Forbidden('This id is taken.');
  if (before) return showTake(context, before);
  const goesOn = DateTime.fromISO(dayOf(context)).plus({ days: SOUND_LIMITS.takeDays }).toISODate();
  const own = { studioId: studio.id, id, kind: 'take', studentId: person.id, personId: person.id, pieceId };
  const row = await addRow(store.sounds, { ...own, ...facts, madeAt: now, playedAt: new Date(playedAt), goesOn });
  return showTake(context, row);
}

/** Answers a take in words. @throws Conflict, NotFound */
export async function answerTake(
  context: RequestContext,
  id: string,
  { version, answer }: TakeAnswer,
): Promise<SentTake> {
  const { store, studio } = context;
  await takeOf(context, id);
  const saved = await saveVersioned(store.sounds, { studioId: studio.id, id, version }, { answer });
  return showTake(context, await orConflict(saved, (row) => showTake(context, row)));
}

/** Deletes a take at once. @throws NotFound */
export async function deleteTake(context: RequestContext, id: string): Promise<null> {
  await takeOf(context, id);
  await dropSound(context.store, { studioId: context.studio.id, id });
  return null;
}

/** Takes in one part of a sound. @throws Forbidden for somebody else’s, Invalid for a wrong size or where the studio is full */
export async function takeInPart(
  context: RequestContext,
  id: string,
  part: number,
  sent: Readable,
): Promise<StudioSound> {
  const { store, studio, person } = context;
  const row = await soundOf(context, id);
  if (!teaches(context) && row.personId !== person.id) throw new Forbidden('This belongs to somebody else.');
  const data = await readAll(sent, SOUND_LIMITS.part);
  const expected = Math.min(SOUND_LIMITS.part, row.bytes - part * SOUND_LIMITS.part);
  if (part >= partsOf(row.bytes) || data.length !== expected)
    throw new Invalid([{ field: 'part', message: 'This part is not as long as the sound says; send it again.' }]);
  if ((await bytesKept(store, studio.id)) + data.length > SOUND_LIMITS.studio)
    throw new Invalid([{ field: 'part', message: 'The studio has no room for more sound: delete recordings first.' }]);
  await keepPart(store, { studioId: studio.id, id }, part, data);
  return showSound(context, row);
}

/** A sound that is kept, to be heard: its bytes are read as they are asked for. @throws NotFound while it is not kept */
export async function giveSound(context: RequestContext, id: string): Promise<FileGiven> {
  const { store, studio } = context;
  const row = await soundOf(context, id);
  const { isKept } = await showSound(context, row);
  if (!isKept) throw new NotFound('This sound is not kept in the studio.');
  const of = { studioId: studio.id, id };
  return {
    name: row.name,
    type: /^audio\//.test(row.type) ? row.type : 'application/octet-stream',
    bytes: row.bytes,
    range: (from: number, to: number) => Readable.from(bytesBetween((part) => readPart(store, of, part), from, to)),
  };
}

/** The bytes from one place to another, the last included, part by part. */
async function* bytesBetween(
  read: (part: number) => Promise<Buffer | undefined>,
  from: number,
  to: number,
): AsyncGenerator<Buffer> {
  const size = SOUND_LIMITS.part;
  for (let part = Math.floor(from / size); part * size <= to; part += 1) {
    const data = await read(part);
    if (!data) throw new Error(`part ${part} of a sound is gone`);
    yield data.subarray(Math.max(0, from - part * size), to - part * size + 1);
  }
}

/** A sound that whoever asks may come to: recordings are for teachers. @throws NotFound */
async function soundOf(context: RequestContext, id: string): Promise<SoundModel> {
  const row = orNotFound(await findOwn(context.store.sounds, { studioId: context.studio.id, id }));
  const isTake = parseWord(SOUND_KINDS, row.kind) === 'take';
  if (!isTake && !teaches(context)) throw new Forbidden('Recordings are heard by whoever works them out.');
  if (isTake && (row.goesOn ?? '') <= dayOf(context)) throw new NotFound('There is nothing here with this id.');
  return row;
}

/** A take that whoever asks may change. @throws NotFound for anything else */
async function takeOf(context: RequestContext, id: string): Promise<void> {
  const { kind } = await soundOf(context, id);
  if (kind !== 'take') throw new NotFound('There is no take with this id.');
}

/** How much of a sound is here. */
type Here = { readonly parts: number; readonly bytes: number } | undefined;

async function showSound({ store, studio }: RequestContext, row: SoundModel): Promise<StudioSound> {
  return soundWith(row, (await partsHere(store, studio.id, [row.id])).get(row.id));
}

function soundWith({ id, version, name, type, bytes, seconds, print }: SoundModel, here: Here): StudioSound {
  const facts = { name, type, bytes, seconds, print };
  return { id, version, ...facts, parts: here?.parts ?? 0, isKept: here?.bytes === bytes };
}

async function showTake(context: RequestContext, row: SoundModel): Promise<SentTake> {
  const [take] = await showTakes(context, [row]);
  return orNotFound(take);
}

/** Takes with who sent them and how much of each is here, asked for together. */
async function showTakes({ store, studio }: RequestContext, rows: readonly SoundModel[]): Promise<readonly SentTake[]> {
  const here = await partsHere(
    store,
    studio.id,
    rows.map(({ id }) => id),
  );
  const names = new Map<string, string>();
  for (const id of new Set(rows.map(({ personId }) => personId)))
    names.set(id, (await findOwn(store.people, { studioId: studio.id, id }))?.name ?? '');
  return rows.map((row): SentTake => {
    const { pieceId, personId, playedAt, bpm, isClean, came, answer, goesOn, madeAt } = row;
    return {
      ...soundWith(row, here.get(row.id)),
      ...{ pieceId: pieceId ?? '', by: names.get(personId) ?? '', bpm: bpm ?? 0, isClean, came, answer },
      ...{ playedAt: (playedAt ?? madeAt).toISOString(), goesOn: goesOn ?? '' },
    };
  });
}

/** All that is sent. @throws Invalid where it is more than is taken at once */
async function readAll(sent: Readable, most: number): Promise<Buffer> {
  const pieces: Buffer[] = [];
  let length = 0;
  for await (const piece of sent) {
    const bytes = Buffer.from(piece as Uint8Array);
    length += bytes.length;
    if (length > most) throw new Invalid([{ field: 'part', message: 'This is more than one part.' }]);
    pieces.push(bytes);
  }
  return Buffer.concat(pieces);
}
