import {
  ENTRIES_SHOWN,
  MEDIA,
  OUTCOMES,
  RHYTHMS,
  SCHOOL_WORDS,
  startValueOf,
  type EarlierEntries,
  type EarlierQuery,
  type Entry,
  type Piece,
  type Pin,
} from '@jam-ledger/contract';
import { keyTextAt, tempoAt, readTempoChanges } from '@jam-ledger/core/form';
import { writeMeter, writeShorthand, type Phrase } from '@jam-ledger/core/notation';
import { readPlaced } from '@jam-ledger/core/placing';
import { assemble } from '@jam-ledger/core/pieces';
import { readTuning, TUNINGS } from '@jam-ledger/core/pitch';
import {
  findEntries,
  findOwn,
  findPhraseTexts,
  findPieces,
  findPins,
  type EntryRow,
  type PieceRow,
  type PinRow,
  type PhraseTextRow,
} from '../../store/index.ts';
import { orNotFound, parseWord } from '../context/rows.ts';
import { nameOf, namesOf } from './naming.ts';
import { kindOf, rulesOf } from './standing.ts';
import { standNow } from './standNow.ts';
import { basicsOf } from '../songs/transcriptions.ts';
import { type RequestContext } from '../context/context.ts';

/** One piece with its music, newest entries, ladder, standing and next step. @throws Forbidden, NotFound */
export async function showPiece(context: RequestContext, id: string): Promise<Piece> {
  const { store, studio } = context;
  const rows = await findPieces(store, studio.id, { beside: id });
  const row = orNotFound(rows.find((one) => one.id === id));
  const phraseIds = row.parts.map(({ phraseId }) => phraseId);
  const [stood, { entries, hasEarlier }, texts, pins] = await Promise.all([
    standNow(context, rows, [id]),
    showEntries(context, id),
    findPhraseTexts(store, studio.id, phraseIds),
    findPins(store, studio.id, phraseIds),
  ]);
  const name = namesOf(texts);
  const { ladder, history, around, ...stands } = orNotFound(stood.get(id));
  const counting = entries.filter(({ struck, counts }) => counts && !struck).length;
  const tempo = tempoAt(row.sectionSeconds, readTempoChanges(row));
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
      tempo: tempo.bpm,
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
    hasEarlier,
    before: history.slice(0, history.length - counting).map(({ percent = 100, ...one }) => ({ ...one, percent })),
    pins: pins.map(describePin),
    around,
    ...stands,
  };
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

/** The entries of a piece before one of them, a page of them. @throws NotFound */
export async function showEarlier(
  context: RequestContext,
  pieceId: string,
  query: EarlierQuery,
): Promise<EarlierEntries> {
  const { store, studio } = context;
  orNotFound(await findOwn(store.pieces, { studioId: studio.id, id: pieceId }));
  return showEntries(context, pieceId, query);
}

/** The newest entries of a piece; the newest before one of them where one is named. */
async function showEntries(
  { store, studio }: RequestContext,
  pieceId: string,
  { before }: Partial<EarlierQuery> = {},
): Promise<EarlierEntries> {
  const max = ENTRIES_SHOWN + 1;
  const rows = await findEntries(store, studio.id, {
    pieceId,
    zone: studio.zone,
    max,
    ...(before !== undefined && { before }),
  });
  return {
    entries: rows.slice(-ENTRIES_SHOWN).map((row) => describeEntry(pieceId, row)),
    hasEarlier: rows.length === max,
  };
}

/** An entry as it is shown with a piece. */
export function describeEntry(pieceId: string, row: EntryRow): Entry {
  const { id, version, bpm, percent, remark, postedAt, day, postedById, postedByName, struck, loopFrom, loopTo } = row;
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
    day,
    postedBy: { id: postedById, name: postedByName },
  };
}

function describePin({ id, version, phraseId, at, text, pinnedAt, personId, personName, role }: PinRow): Pin {
  const by = { id: personId, name: personName, teaches: role !== 'student' };
  return { id, version, phraseId, at, text, by, pinnedAt: pinnedAt.toISOString() };
}
