import {
  CERTAINTIES,
  FEELS,
  LAYERS,
  PHRASE_STATUSES,
  PITCH_WAYS,
  RHYTHMS,
  type Phrase,
  type Section,
  type SetUp,
  type SetUpChange,
  type SongBasics,
  type SongBeginning,
  type Transcription,
  type TranscriptionLine,
} from '@jam-ledger/contract';
import type { Move } from '@jam-ledger/core/notation';
import { addRow, findOwn, findPhrases, findSections, findTranscriptions, saveVersioned } from '../../store/index.ts';
import type { PhraseModel, SectionModel, Store, TranscriptionModel, TranscriptionRow } from '../../store/index.ts';
import { orNotFound, orConflict, parseWord, requireStudent } from '../context/rows.ts';
import { keepCorrections, type Said } from '../context/corrections.ts';
import { gatherFacts } from '../licks/licks.ts';
import { studentOfSong } from '../people/students.ts';
import { visibleStudents, type RequestContext } from '../context/context.ts';

/** The transcriptions of the studio by title; for a student those made for them, for a guardian those of their wards. */
export async function listTranscriptions(context: RequestContext): Promise<readonly TranscriptionLine[]> {
  const rows = await findTranscriptions(context.store, context.studio.id);
  const visible = visibleStudents(context);
  const seen = rows.filter(({ studentId }) => visible === undefined || visible.includes(studentId));
  return seen.map(({ id, title, whose, studentId, studentName, phrases }) => ({
    id,
    title,
    whose,
    phrases,
    student: { id: studentId, name: studentName },
  }));
}

/** One transcription with its sections and phrases. @throws Forbidden, NotFound */
export async function showTranscription(context: RequestContext, id: string): Promise<Transcription> {
  const { store, studio } = context;
  const row = orNotFound((await findTranscriptions(store, studio.id, id))[0]);
  const sections = await findSections(store, studio.id, id);
  const phrases = await findPhrases(
    store,
    studio.id,
    sections.map((section) => section.id),
  );
  return {
    id,
    version: row.version,
    student: await studentOfSong(context, row.studentId),
    ...setUpOf(row),
    sections: sections.map((section) =>
      describeSection(
        section,
        phrases.filter(({ sectionId }) => sectionId === section.id),
      ),
    ),
  };
}

/**
 * A transcription as it is handed out: of several ways to play a phrase the one that is chosen, and nothing of how it came about.
 * @throws Forbidden, NotFound
 */
export async function showSheet(context: RequestContext, id: string): Promise<Transcription> {
  const song = await showTranscription(context, id);
  const unsaid = { reason: '', checkedBy: '', checkedAgainst: '', checkedAt: null } as const;
  const sections = song.sections.map((section) => ({
    ...section,
    phrases: section.phrases.filter(({ chosen }) => chosen).map((phrase) => ({ ...phrase, ...unsaid })),
  }));
  return { ...song, sections };
}

/** What a song is set up with until the teacher has listened. Common practice: standard tuning, 4/4. */
const FIRST_SET_UP = {
  tuning: 'standard',
  capo: 0,
  key: '',
  tempo: 100,
  tempoKnown: false,
  meter: '4/4',
  offsetCents: 0,
} as const;

/** Adds a song as it is begun, for the frets of its student’s guitar; its id. */
export async function addTranscription(
  store: Store,
  song: Pick<TranscriptionModel, 'studioId' | 'studentId' | 'requestId' | 'title' | 'whose'>,
): Promise<string> {
  const { studioId, studentId } = song;
  const { frets } = orNotFound(await findOwn(store.people, { studioId, id: studentId }));
  return (await addRow(store.transcriptions, { ...FIRST_SET_UP, ...song, frets })).id;
}

/** Begins a song that nobody asked for. @throws NotFound */
export async function beginSong(context: RequestContext, song: SongBeginning): Promise<Transcription> {
  await requireStudent(context, song.studentId);
  const { store, studio } = context;
  return showTranscription(context, await addTranscription(store, { ...song, studioId: studio.id, requestId: null }));
}

/** What of a song is kept when it is corrected. */
const SONG_SAID: Said<TranscriptionModel> = [
  ['title', ({ title }) => title],
  ['whose', ({ whose }) => whose],
  ['tuning', ({ tuning }) => tuning],
  ['capo', ({ capo }) => String(capo)],
  ['key', ({ key }) => key],
  ['tempo', ({ tempo, tempoKnown }) => (tempoKnown ? String(tempo) : 'not said')],
  ['meter', ({ meter }) => meter],
];

/** Changes how a song is set up. @throws Forbidden, NotFound, Conflict */
export async function changeSetUp(context: RequestContext, id: string, change: SetUpChange): Promise<Transcription> {
  const { store, studio } = context;
  const { version, ...setUp } = change;
  const before = orNotFound(await findOwn(store.transcriptions, { studioId: studio.id, id }));
  const saved = await saveVersioned(store.transcriptions, { studioId: studio.id, id, version }, setUp);
  const after = await orConflict(saved, () => showTranscription(context, id));
  await keepCorrections(context, { kind: 'song', id }, { before, after, said: SONG_SAID });
  await gatherFacts(store, { songId: id });
  return showTranscription(context, id);
}

/** The set-up that a row holds, as far as a phrase needs it. */
export function basicsOf(
  row: Omit<SongBasics, 'feel' | 'pitchWay' | 'rhythm'> & {
    readonly feel: string;
    readonly pitchWay: string;
    readonly rhythm: string;
  },
): SongBasics {
  const { title, whose, tuning, capo, key, tempo, meter, frets, offsetCents } = row;
  const basics = { title, whose, tuning, capo, key, tempo, meter, frets, offsetCents };
  return {
    ...basics,
    feel: parseWord(FEELS, row.feel),
    pitchWay: parseWord(PITCH_WAYS, row.pitchWay),
    rhythm: parseWord(RHYTHMS, row.rhythm),
  };
}

function setUpOf(row: TranscriptionRow): SetUp {
  const { secondKey, tempoKnown, changes, rig, scaleLengthMm, songSeconds } = row;
  return {
    ...basicsOf(row),
    secondKey,
    tempoKnown,
    changes,
    rig,
    scaleLengthMm,
    songSeconds,
    studentLayer: parseWord(LAYERS, row.studentLayer),
  };
}

/** A section as it travels. */
export function describeSection(row: SectionModel, phrases: readonly PhraseModel[]): Section {
  const { id, version, label, role, startSeconds, startKnown, bars, barsKnown, times, open, passes, jump, struck } =
    row;
  const body = { label, role, startSeconds, startKnown, bars, barsKnown, times, open, passes, jump };
  const guitar = { tuning: row.tuning ?? null, capo: row.capo ?? null };
  return { id, version, ...body, ...guitar, struck, phrases: phrases.map(describePhrase) };
}

/** A phrase as it travels. */
export function describePhrase(row: PhraseModel): Phrase {
  const { id, version, sectionId, name, text, reason, struck, checkedBy, checkedAgainst } = row;
  return {
    id,
    version,
    sectionId,
    name,
    text,
    reason,
    struck,
    checkedBy,
    checkedAgainst,
    layer: parseWord(LAYERS, row.layer),
    certainty: parseWord(CERTAINTIES, row.certainty),
    status: parseWord(PHRASE_STATUSES, row.status),
    checkedAt: row.checkedAt?.toISOString() ?? null,
    alternateOf: row.alternateOf ?? null,
    chosen: row.chosen,
    refersTo: row.refersTo ?? null,
    move: moveOf(row),
  };
}

/** How a row is moved against what it refers to. */
export function moveOf({
  movedSemitones,
  movedStrings,
  openStays,
}: Pick<PhraseModel, 'movedSemitones' | 'movedStrings' | 'openStays'>): Move {
  return { semitones: movedSemitones, strings: movedStrings, openStays };
}
