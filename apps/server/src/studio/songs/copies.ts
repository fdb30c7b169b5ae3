import type { CopiedPhrase, CopyBody, CopyPreview, LickBody, LickWritten, Transcription } from '@jam-ledger/contract';
import { SONG_LIMITS } from '@jam-ledger/contract';
import type { Fitted } from '@jam-ledger/core/fitting';
import {
  addRow,
  findOwn,
  findPhrases,
  findRow,
  findSections,
  type PhraseModel,
  type SectionModel,
  type TranscriptionModel,
} from '../../store/index.ts';
import { dayOf, type RequestContext } from '../context/context.ts';
import { Invalid } from '../context/errors.ts';
import { orNotFound, requireStudent } from '../context/rows.ts';
import { mapInSlices } from '../context/slices.ts';
import { gatherFacts } from '../licks/licks.ts';
import { fitThere, fitToOf, tuningFor, type FitTo } from './fitting.ts';
import { addPhrase } from './phrases.ts';
import { startBehind } from './sections.ts';
import { addTranscription, showTranscription } from './transcriptions.ts';

/** A section on its way to another student, with the phrases that go. */
interface Going {
  readonly section: SectionModel;
  readonly phrases: readonly { readonly row: PhraseModel; readonly fitted: Fitted }[];
}

/** All that goes: out of which song, and to whom. */
interface Copying {
  readonly song: TranscriptionModel;
  readonly going: readonly Going[];
  readonly to: FitTo;
}

/** What a copy would come to, fitted to the guitar, the hand and the schools of a student; nothing is kept. @throws NotFound, Invalid */
export async function previewCopy(context: RequestContext, body: CopyBody): Promise<CopyPreview> {
  const { song, going, to } = await copyingOf(context, body);
  return {
    title: song.title,
    tuning: tuningFor(song.tuning, to.student.strings),
    phrases: going.flatMap(({ section, phrases }) =>
      phrases.map(({ row, fitted }): CopiedPhrase => {
        const { text: after, changes, left } = fitted;
        return { name: row.name, section: `${section.label} ${section.role}`, before: row.text, after, changes, left };
      }),
    ),
  };
}

/**
 * Copies a song, a section or a phrase for another student: what is heard of it stays, drafts, fitted to their guitar, hand and schools;
 * results, pieces and evidence stay with the original. A copy that follows has the text of the original until it is changed.
 * @throws NotFound, Invalid
 */
export async function copy(context: RequestContext, body: CopyBody): Promise<Transcription> {
  const { store } = context;
  const copying = await copyingOf(context, body);
  const songId = body.songId ?? (await beginCopy(context, copying, body.kind));
  const isWhole = body.kind === 'song' && body.songId === null;
  const starts = isWhole ? undefined : await startBehind(context, songId);
  const sections = new Map<string, string>();
  for (const one of copying.going) {
    const id = await addSection(context, songId, { ...one, startSeconds: starts?.(one.section) });
    sections.set(one.section.id, id);
    await addPhrases(context, one, { sectionId: id, follows: body.follows });
    await gatherFacts(store, { sectionId: id });
  }
  // Where the form jumps to is a section of the copy, too.
  for (const { section } of copying.going) await carryJump(context, section, sections);
  return showTranscription(context, songId);
}

async function copyingOf(context: RequestContext, body: CopyBody): Promise<Copying> {
  const { store, studio } = context;
  await requireStudent(context, body.studentId);
  const { song, sections } = await meantBy(context, body);
  if (song.studentId === body.studentId && body.songId === song.id)
    throw new Invalid([{ field: 'songId', message: 'It stands in this song already.' }]);
  if (body.songId !== null) {
    const into = orNotFound(await findOwn(store.transcriptions, { studioId: studio.id, id: body.songId }));
    if (into.studentId !== body.studentId)
      throw new Invalid([{ field: 'songId', message: 'This song is written for somebody else.' }]);
  }
  const to = await fitToOf(context, body.studentId);
  const ids = sections.map(({ id }) => id);
  const all = await findPhrases(store, studio.id, ids);
  const meant = all.filter(({ id, chosen }) => (body.kind === 'phrase' ? id === body.id : chosen));
  const fitted = await mapInSlices(meant, (row) => {
    const section = orNotFound(sections.find(({ id }) => id === row.sectionId));
    return { row, fitted: fitThere(row.text, { song, section }, to) };
  });
  const going = sections.map((section) => ({
    section,
    phrases: fitted.filter(({ row }) => row.sectionId === section.id),
  }));
  return { song, going, to };
}

/** The song something stands in, and its sections that are meant. @throws NotFound */
async function meantBy(
  { store, studio }: RequestContext,
  { kind, id }: CopyBody,
): Promise<{ readonly song: TranscriptionModel; readonly sections: readonly SectionModel[] }> {
  const own = { studioId: studio.id };
  const songOf = async (songId: string) => orNotFound(await findOwn(store.transcriptions, { ...own, id: songId }));
  if (kind === 'song') return { song: await songOf(id), sections: await findSections(store, studio.id, id) };
  const sectionId = kind === 'section' ? id : orNotFound(await findOwn(store.phrases, { ...own, id })).sectionId;
  const section = orNotFound(await findOwn(store.sections, { ...own, id: sectionId }));
  return { song: await songOf(section.transcriptionId), sections: [section] };
}

/** Begins the song of a copy: set up as the original, for the guitar of its student. */
async function beginCopy(
  { store, studio }: RequestContext,
  { song, to }: Copying,
  kind: CopyBody['kind'],
): Promise<string> {
  const {
    title,
    whose,
    capo,
    key,
    secondKey,
    tempo,
    tempoKnown,
    rhythm,
    meter,
    feel,
    offsetCents,
    pitchWay,
    studentLayer,
  } = song;
  const { id: studentId, frets, scaleLengthMm, strings } = to.student;
  const whole = kind === 'song' ? { changes: song.changes, rig: song.rig, songSeconds: song.songSeconds ?? null } : {};
  const row = await addRow(store.transcriptions, {
    ...{ studioId: studio.id, studentId, requestId: null, title, whose, capo, key, secondKey, tempo, tempoKnown },
    ...{ rhythm, meter, feel, offsetCents, pitchWay, studentLayer, frets, scaleLengthMm, ...whole },
    tuning: tuningFor(song.tuning, strings),
  });
  return row.id;
}

async function addSection(
  { store, studio }: RequestContext,
  transcriptionId: string,
  { section, startSeconds }: Going & { readonly startSeconds: number | undefined },
): Promise<string> {
  const { label, role, bars, barsKnown, times, open, passes, tuning, capo } = section;
  const start =
    startSeconds === undefined
      ? { startSeconds: section.startSeconds, startKnown: section.startKnown }
      : { startSeconds, startKnown: false };
  const row = await addRow(store.sections, {
    ...{ label, role, bars, barsKnown, times, open, passes, jump: null, tuning, capo, ...start },
    ...{ studioId: studio.id, transcriptionId },
  });
  return row.id;
}

async function addPhrases(
  { store, studio }: RequestContext,
  { phrases }: Going,
  { sectionId, follows }: { readonly sectionId: string; readonly follows: boolean },
): Promise<void> {
  for (const [position, { row, fitted }] of phrases.entries()) {
    const { name, layer, certainty, reason } = row;
    // What follows, follows the one that is written out.
    const refersTo = follows ? (row.refersTo ?? row.id) : null;
    const moved = follows && row.refersTo ? row : { movedSemitones: 0, movedStrings: 0, openStays: false };
    const { movedSemitones, movedStrings, openStays } = moved;
    await addRow(store.phrases, {
      ...{ studioId: studio.id, sectionId, position, name, text: fitted.text, layer, certainty, reason },
      ...{ refersTo, movedSemitones, movedStrings, openStays },
    });
  }
}

async function carryJump(
  { store, studio }: RequestContext,
  { id, jump }: SectionModel,
  copies: ReadonlyMap<string, string>,
): Promise<void> {
  const to = jump ? copies.get(jump.to) : undefined;
  const copied = copies.get(id);
  if (!jump || to === undefined || copied === undefined) return;
  await store.sections.update({ jump: { ...jump, to } }, { where: { studioId: studio.id, id: copied } });
}

/** The section of a teacher’s own licks. */
const OWN_SECTION = {
  label: '1',
  role: 'lick',
  bars: 4,
  barsKnown: false,
  startSeconds: 0,
  startKnown: false,
} as const;

/**
 * Writes down a lick for nobody yet: into a book of the teacher’s own, which has no clock and no tempo, and is copied for a student from
 * there.
 */
export async function writeLick(context: RequestContext, { name, text, key }: LickBody): Promise<LickWritten> {
  const { store, studio, person } = context;
  const studioId = studio.id;
  await store.lock(`licks of ${person.id}`);
  const title = `Licks of ${person.name}`.slice(0, SONG_LIMITS.title);
  const found = await findRow(store.transcriptions, { studioId, studentId: person.id });
  const songId =
    found?.id ?? (await addTranscription(store, { studioId, studentId: person.id, requestId: null, title, whose: '' }));
  if (!found) await store.transcriptions.update({ rhythm: 'by feel' }, { where: { studioId, id: songId } });
  const month = dayOf(context).slice(0, 7);
  // A section holds a month, so that none grows without end; a key of its own stands in the text.
  const sections = await findSections(store, studioId, songId);
  const section =
    sections.find(({ label }) => label === month) ??
    (await addRow(store.sections, {
      ...{ ...OWN_SECTION, label: month, startSeconds: sections.length, times: 1, open: false, passes: [], jump: null },
      ...{ studioId, transcriptionId: songId },
    }));
  const phrase = await addPhrase(context, section.id, {
    ...{ name, text, layer: 'lead', certainty: 'heard', reason: key === '' ? '' : `in ${key}` },
  });
  return { songId, phraseId: phrase.id };
}
