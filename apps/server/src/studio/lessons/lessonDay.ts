import type {
  Hearing,
  HearingBody,
  Strike,
  HomeNote,
  InkedLine,
  Lesson,
  LedgerPiece,
  LessonDay,
  LessonNote,
  LessonNoteBody,
  LessonNoteText,
} from '@jam-ledger/contract';
import { HEARING_KINDS } from '@jam-ledger/core/hearing';
import { DateTime } from 'luxon';
import {
  addOnce,
  addRow,
  countRows,
  findHearings,
  findInked,
  findLessonNoteRevisions,
  findLessonNotes,
  findLessons,
  findOwn,
  findPieces,
  findRow,
  givePieces,
  keepHearing,
  saveVersioned,
  type HearingRow,
  type LessonNoteRow,
  type PieceRow,
} from '../../store/index.ts';
import { orNotFound, orConflict, requireStudent } from '../context/rows.ts';
import { writeHome } from '../people/outbox.ts';
import { phrasesOf } from '../pieces/assignPiece.ts';
import { moveOnGiven } from '../requests/moveOn.ts';
import { settlePlaces } from '../songs/references.ts';
import { describeLesson } from '../series/series.ts';
import { openPieces } from '../ledger/showLedger.ts';
import { Invalid, Conflict } from '../context/errors.ts';
import { dayOf, visibleStudents, type RequestContext } from '../context/context.ts';

/** Without a lesson to come a summary stays open so long, days; the next lesson is looked for so far ahead. Our choice. */
const OPEN_DAYS = 14;
const AHEAD_DAYS = 60;

/** Most summaries that are shown at home. Our choice. */
const MAX_NOTES = 12;

/** Everything a lesson with a student is held from, today’s or the next. @throws Forbidden, NotFound */
export async function showLessonDay(context: RequestContext, studentId: string): Promise<LessonDay> {
  const { store, studio } = context;
  const day = dayOf(context);
  const [student, [lesson, next]] = await Promise.all([
    requireStudent(context, studentId),
    lessonsFrom(context, studentId, startOf(context, day)),
  ]);
  const { from, to } = spanOf(context, day);
  const [{ rows, pieces }, inked, hearings, notes] = await Promise.all([
    openPieces(context, { studentId, plannedUntil: lesson?.day ?? day }),
    findInked(store, studio.id, { studentId, from, to }),
    findHearings(store, studio.id, { studentId, day }),
    findLessonNotes(store, studio.id, { studentIds: [studentId], until: day, max: 2 }),
  ]);
  const today = notes.find((one) => one.day === day);
  const last = notes.find((one) => one.day !== day);
  return {
    day,
    lesson: lesson ?? null,
    next: next ?? null,
    student,
    pieces: pieces.filter(({ assignedOn }) => assignedOn !== null),
    planned: plannedAmong(rows, pieces),
    inked: inked.map((line): InkedLine => ({ ...line, outcome: line.outcome === 'clean' ? 'clean' : 'not-yet' })),
    hearings: hearings.map(describeHearing),
    note: today ? await describeNote(context, today) : null,
    last: last ? await describeNote(context, last) : null,
  };
}

/**
 * Keeps what a lesson came to, over the version seen; what it was before stays in its history. Assigned pieces that were only
 * planned are given. It can be changed until the next lesson has begun. @throws Forbidden, NotFound, Conflict, Invalid
 */
export async function keepLessonNote(
  context: RequestContext,
  { studentId, day }: { readonly studentId: string; readonly day: string },
  { version, send, ...texts }: LessonNoteBody,
): Promise<LessonNote> {
  await requireStudent(context, studentId);
  await requireOpen(context, studentId, day);
  await requirePieces(context, studentId, texts);
  const { store, studio, person, now } = context;
  const values = { ...texts, writtenBy: person.id, writtenAt: now };
  const where = { studioId: studio.id, studentId, day };
  const before = await findRow(store.lessonNotes, where);
  if (!before) {
    const row = await addOnce(store.lessonNotes, { ...where, ...values });
    const stored = await findRow(store.lessonNotes, where);
    if (stored?.id !== row?.id) throw new Conflict(await noteOf(context, studentId, day));
  } else {
    const { id, words, home, assigned, writtenBy, writtenAt } = before;
    const saved = await saveVersioned(store.lessonNotes, { studioId: studio.id, id, version }, values);
    await orConflict(saved, () => noteOf(context, studentId, day));
    const revision = { studioId: studio.id, noteId: id, words, home, assigned, writtenBy, writtenAt };
    await addRow(store.lessonNoteRevisions, revision);
  }
  const ids = texts.assigned.map(({ pieceId }) => pieceId);
  const planned = await store.pieces.findAll({ where: { studioId: studio.id, id: ids, assignedOn: null } });
  await settlePlaces(context, planned.flatMap(phrasesOf));
  await givePieces(store, studio.id, { studentId, ids, day });
  for (const songId of new Set(planned.map((piece) => piece.songId))) await moveOnGiven(context, { songId, studentId });
  if (send) await writeHome(context, studentId, { subject: `Your lesson on ${sayDay(day)}`, body: homeText(texts) });
  return orNotFound((await noteOf(context, studentId, day)) ?? undefined);
}

/** What goes home of the last lessons of whom one may read for; of one student where one is named. @throws Forbidden */
export async function listHomeNotes(
  context: RequestContext,
  studentId: string | undefined,
): Promise<readonly HomeNote[]> {
  const studentIds = studentId === undefined ? (visibleStudents(context) ?? []) : [studentId];
  const { store, studio } = context;
  const rows = await findLessonNotes(store, studio.id, { studentIds, until: dayOf(context), max: MAX_NOTES });
  return rows.map(({ day, studentId: id, studentName, home, assigned, writtenBy }) => ({
    day,
    student: { id, name: studentName },
    home,
    assigned,
    writtenBy,
  }));
}

/**
 * Puts down what was heard at a point of a piece today; a remark is pinned to the event, for the student.
 * @throws Forbidden, NotFound, Invalid
 */
export async function hear(context: RequestContext, pieceId: string, body: HearingBody): Promise<Hearing> {
  const { store, studio, person } = context;
  const piece = orNotFound((await findPieces(store, studio.id, { id: pieceId }))[0]);
  const taken = await findRow(store.hearings, { id: body.id });
  if (taken && (taken.pieceId !== pieceId || taken.at !== body.at || taken.kind !== body.kind))
    throw new Invalid([{ field: 'id', message: 'Another point already has this id.' }]);
  const values = { ...body, version: 1, pieceId, studioId: studio.id, day: dayOf(context), personId: person.id };
  const row = orNotFound(await keepHearing(store, values));
  const [part] = piece.parts;
  const text = body.remark.trim();
  // In a piece of several stretches the place is not one of a phrase.
  if (text !== '' && part && piece.parts.length === 1)
    await pinRemark(context, row.id, { ...part, at: part.from + body.at, text });
  return describeHearing(row);
}

/** Pins the remark of a point under the point’s own id, or changes what was pinned. @throws Invalid */
async function pinRemark(
  { store, studio, person, now }: RequestContext,
  id: string,
  { phraseId, at, text }: { readonly phraseId: string; readonly at: number; readonly text: string },
): Promise<void> {
  const pinned = await findRow(store.pins, { id });
  if (pinned && (pinned.studioId !== studio.id || pinned.phraseId !== phraseId))
    throw new Invalid([{ field: 'id', message: 'Another note already has this id.' }]);
  if (pinned) await saveVersioned(store.pins, pinned, { text, struck: false });
  else await addRow(store.pins, { id, studioId: studio.id, phraseId, personId: person.id, at, text, pinnedAt: now });
}

/** Takes a point back with what was pinned for it, or puts both there again. @throws Forbidden, NotFound, Conflict */
export async function strikeHearing(context: RequestContext, id: string, { version, struck }: Strike): Promise<null> {
  const { store, studio } = context;
  const saved = await saveVersioned(store.hearings, { studioId: studio.id, id, version }, { struck });
  await orConflict(saved, ({ version: newer }) => ({ id, version: newer }));
  const pinned = await findOwn(store.pins, { studioId: studio.id, id });
  if (pinned) await saveVersioned(store.pins, pinned, { struck });
  return null;
}

/** Those not given yet, in the order in which they are learned. */
function plannedAmong(rows: readonly PieceRow[], pieces: readonly LedgerPiece[]): readonly LedgerPiece[] {
  const positions = new Map(rows.map(({ id, position }) => [id, position]));
  const positionOf = ({ id }: LedgerPiece) => positions.get(id) ?? 0;
  return pieces
    .filter(({ assignedOn }) => assignedOn === null)
    .toSorted((one, other) => positionOf(one) - positionOf(other));
}

function describeHearing({ kind, ...row }: HearingRow): Hearing {
  return { ...row, kind: HEARING_KINDS.find((one) => one === kind) ?? HEARING_KINDS[0] };
}

async function noteOf(context: RequestContext, studentId: string, day: string): Promise<LessonNote | null> {
  const rows = await findLessonNotes(context.store, context.studio.id, { studentIds: [studentId], until: day, max: 1 });
  const row = rows.find((one) => one.day === day);
  return row ? describeNote(context, row) : null;
}

async function describeNote(context: RequestContext, row: LessonNoteRow): Promise<LessonNote> {
  const revisions = await findLessonNoteRevisions(context.store, context.studio.id, row.id);
  return {
    ...textOf(row),
    version: row.version,
    day: row.day,
    isOpen: (await closedBy(context, row.studentId, row.day)) === undefined,
    before: revisions.map(textOf),
  };
}

function textOf({
  words,
  home,
  assigned,
  writtenBy,
  writtenAt,
}: Pick<LessonNoteRow, 'words' | 'home' | 'assigned' | 'writtenBy' | 'writtenAt'>): LessonNoteText {
  return { words, home, assigned, writtenBy, writtenAt: writtenAt.toISOString() };
}

/** @throws Invalid where the summary of a day can no longer be changed, or the day is still to come. */
async function requireOpen(context: RequestContext, studentId: string, day: string): Promise<void> {
  const wrong = (message: string) => new Invalid([{ field: 'day', message }]);
  if (day > dayOf(context)) throw wrong('This lesson is still to come.');
  const why = await closedBy(context, studentId, day);
  if (why !== undefined) throw wrong(why);
}

/** Why a summary is closed; undefined while it is open. */
async function closedBy(context: RequestContext, studentId: string, day: string): Promise<string | undefined> {
  const after = startOf(context, day).plus({ days: 1 });
  const [next] = await lessonsFrom(context, studentId, after);
  const begins = next && DateTime.fromISO(`${next.day}T${next.time}`, { zone: context.studio.zone });
  const ends = begins ?? after.plus({ days: OPEN_DAYS });
  if (DateTime.fromJSDate(context.now) < ends) return undefined;
  return begins
    ? `The lesson of ${sayDay(next.day)} has begun; the summary of ${sayDay(day)} stays as it is.`
    : `The summary of ${sayDay(day)} is more than ${OPEN_DAYS} days old and stays as it is.`;
}

/** @throws Invalid where a piece is not the student’s. */
async function requirePieces(
  { store, studio }: RequestContext,
  studentId: string,
  { assigned }: Pick<LessonNoteBody, 'assigned'>,
): Promise<void> {
  const ids = assigned.map(({ pieceId }) => pieceId);
  const where = { studioId: studio.id, studentId, id: ids };
  const count = ids.length === 0 ? 0 : await countRows(store.pieces, where);
  if (count !== ids.length)
    throw new Invalid([{ field: 'assigned', message: 'One of these is no piece of this student.' }]);
}

/** The first two lessons of a student from a time on. */
async function lessonsFrom(context: RequestContext, studentId: string, from: DateTime): Promise<readonly Lesson[]> {
  const range = { from: from.toUTC().toISO() ?? '', to: from.plus({ days: AHEAD_DAYS }).toUTC().toISO() ?? '' };
  const rows = await findLessons(context.store, context.studio.id, { ...range, studentId, max: 2 });
  return rows.map((row) => describeLesson(context, row));
}

function startOf({ studio }: RequestContext, day: string): DateTime {
  return DateTime.fromISO(day, { zone: studio.zone });
}

function spanOf(context: RequestContext, day: string): { readonly from: string; readonly to: string } {
  const start = startOf(context, day);
  return { from: start.toUTC().toISO() ?? '', to: start.plus({ days: 1 }).toUTC().toISO() ?? '' };
}

function sayDay(day: string): string {
  return DateTime.fromISO(day).toFormat('d LLLL yyyy');
}

function homeText({ home, assigned }: Pick<LessonNoteBody, 'home' | 'assigned'>): string {
  const lines = assigned.map(({ name, bpm }) => `- ${name} at ${bpm}`);
  return [home.trim(), ...(lines.length > 0 ? ['To practise:', ...lines] : [])].filter((one) => one !== '').join('\n');
}
