import {
  MEDIA,
  OUTCOMES,
  RHYTHMS,
  SCHOOL_WORDS,
  startValueOf,
  type Entry,
  type Piece,
  type Pin,
} from '@jam-ledger/contract';
import { keyTextAt, tempoAt, readTempoChanges } from '@jam-ledger/core/form';
import { writeMeter, writeShorthand, type Phrase } from '@jam-ledger/core/notation';
import { readPlaced } from '@jam-ledger/core/placing';
import { assemble, sayCut } from '@jam-ledger/core/pieces';
import { readTuning, TUNINGS } from '@jam-ledger/core/pitch';
import {
  findEntries,
  findPhraseTexts,
  findPieces,
  findPins,
  findResults,
  findSongPhrases,
  findStudioLearningRate,
  type EntryRow,
  type PieceRow,
  type PinRow,
  type PhraseTextRow,
} from '../../store/index.ts';
import { orNotFound, parseWord } from '../context/rows.ts';
import { aroundOf, joinsOf, kindOf, learningRateAround, resultsOf, rulesOf, standOf } from './standing.ts';
import { basicsOf } from '../songs/transcriptions.ts';
import { dayOf, type RequestContext } from '../context/context.ts';

/** One piece with its music, entries, ladder, standing and next step. @throws Forbidden, NotFound */
export async function showPiece(context: RequestContext, id: string): Promise<Piece> {
  const { store, studio } = context;
  const row = orNotFound((await findPieces(store, studio.id, { id }))[0]);
  const phraseIds = row.parts.map(({ phraseId }) => phraseId);
  const [others, entryRows, texts, pins, names, studioRate] = await Promise.all([
    findPieces(store, studio.id, { studentId: row.studentId }),
    findEntries(store, studio.id, id),
    findPhraseTexts(store, studio.id, phraseIds),
    findPins(store, studio.id, phraseIds),
    findSongPhrases(store, studio.id, [row.songId]),
    findStudioLearningRate(store, studio.id),
  ]);
  const entries = entryRows.map((entry) => describeEntry(context, id, entry));
  const name = namesOf([...names, ...texts]);
  const join = joinsOf(others).get(row.phraseId);
  const joined = await findResults(store, studio.id, { pieceIds: join ? [join.id] : [], zone: studio.zone });
  const around = aroundOf(others, {
    phrases: names,
    nameOf: (one) => nameOf(one, name),
    historyOf: ({ id: joinId }) => resultsOf(joined.get(joinId) ?? []),
  })(row);
  const { ladder, ...stands } = standOf(row, {
    history: entries.filter(({ struck, counts }) => counts && !struck),
    around,
    today: dayOf(context),
    learningRate: learningRateAround(others, studioRate),
  });
  const learningRate = tempoAt(row.sectionSeconds, readTempoChanges(row));
  const { phrase, parts } = musicOf(row, texts);
  return {
    id: row.id,
    version: row.version,
    struck: row.struck,
    kind: kindOf(row),
    student: { id: row.studentId, name: row.studentName },
    song: {
      id: row.songId,
      ...basicsOf(row),
      key: keyTextAt(row.sectionSeconds, row),
      tempo: learningRate.bpm,
      meter: writeMeter(phrase.meter),
    },
    section: { id: row.sectionId, label: row.sectionLabel, role: row.sectionRole },
    phrase: { id: row.phraseId, name: nameOf(row, name), text: textOf(row, { phrase, texts }) },
    parts: parts.map((part) => ({ ...part, name: name(part.phraseId) })),
    hand: { leftHanded: row.leftHanded, spanFrets: row.spanFrets, scaleLengthMm: row.scaleLengthMm },
    startBpm: row.startBpm,
    targetBpm: row.targetBpm,
    floorBpm: row.floorBpm,
    assignedOn: row.assignedOn,
    raising: parseWord(SCHOOL_WORDS.raising, row.raising),
    hearing: parseWord(SCHOOL_WORDS.hearing, row.hearing),
    naming: parseWord(SCHOOL_WORDS.naming, row.naming),
    fidelity: parseWord(SCHOOL_WORDS.fidelity, row.fidelity),
    clean: parseWord(SCHOOL_WORDS.clean, row.clean),
    rules: rulesOf(row),
    rungs: ladder.rungs,
    entries,
    pins: pins.map(describePin),
    around,
    ...stands,
  };
}

/** Names of phrases by their ids. */
export function namesOf(
  phrases: readonly { readonly id: string; readonly name: string }[],
): (phraseId: string) => string {
  const names = new Map(phrases.map(({ id, name }) => [id, name]));
  return (phraseId) => names.get(phraseId) ?? '…';
}

/** The name of a piece, from those of its phrases. */
export function nameOf(row: PieceRow, name: (phraseId: string) => string): string {
  return sayCut({ kind: kindOf(row), parts: row.parts }, name);
}

/** What a piece plays: its stretches, each read in the meter and tuning it stands in. */
function musicOf(row: PieceRow, texts: readonly PhraseTextRow[]) {
  const tuning = readTuning(row.tuning) ?? TUNINGS.standard;
  const tempoChanges = readTempoChanges(row);
  const startValue = startValueOf(parseWord(RHYTHMS, row.rhythm));
  const phrases = new Map(
    texts.map(({ id, text, sectionSeconds }) => [
      id,
      readPlaced(text, {
        ...{ tuning, capo: row.capo, startValue },
        meter: tempoAt(sectionSeconds, tempoChanges).meter,
      }).phrase,
    ]),
  );
  return assemble(row.parts, (id) => phrases.get(id));
}

/** A whole phrase as it was typed; anything else as it is put together. */
function textOf(
  row: PieceRow,
  { phrase, texts }: { readonly phrase: Phrase; readonly texts: readonly PhraseTextRow[] },
): string {
  const typed = row.kind === 'phrase' ? texts[0]?.text : undefined;
  return (
    typed ??
    writeShorthand(phrase, {
      strings: parseWord(SCHOOL_WORDS.naming, row.naming),
      firstValue: row.rhythm !== 'counted',
    })
  );
}

function describeEntry(context: RequestContext, pieceId: string, row: EntryRow): Entry {
  const { id, version, bpm, percent, remark, postedAt, postedById, postedByName, struck, loopFrom, loopTo } = row;
  const isLoopOfThis = row.pieceId === pieceId && loopFrom !== null && loopTo !== null;
  return {
    id,
    version,
    bpm,
    percent,
    loop: isLoopOfThis ? { from: loopFrom, to: loopTo } : null,
    counts: row.countsFor === pieceId,
    remark,
    struck,
    outcome: OUTCOMES.find((one) => one === row.outcome) ?? 'not-yet',
    medium: MEDIA.find((one) => one === row.medium) ?? 'pencil',
    postedAt: postedAt.toISOString(),
    day: dayOf(context, postedAt),
    postedBy: { id: postedById, name: postedByName },
  };
}

function describePin({ id, version, phraseId, at, text, pinnedAt, personId, personName, role }: PinRow): Pin {
  const by = { id: personId, name: personName, teaches: role !== 'student' };
  return { id, version, phraseId, at, text, by, pinnedAt: pinnedAt.toISOString() };
}
