import {
  CALL_KINDS,
  type Desk,
  type DeskCall,
  type DeskLesson,
  type DeskNote,
  type DeskRequest,
  type KeptStanding,
  type Lesson,
} from '@jam-ledger/contract';
import { promisesOf, type PromisedWork } from '@jam-ledger/core/desk';
import { sayCut } from '@jam-ledger/core/pieces';
import { dueOn } from '@jam-ledger/core/progress';
import { agendaFor, type AgendaPiece } from '@jam-ledger/core/series';
import { DateTime } from 'luxon';
import {
  findCalls,
  findOpening,
  findPhraseNames,
  findStudentNotes,
  NOTES_MS,
  type KeptPieceRow,
} from '../../store/index.ts';
import { computeMissing, whyOf } from '../pieces/keptStandings.ts';
import { listLessons } from '../series/series.ts';
import { openWork } from '../requests/requestWork.ts';
import { namesOf } from '../pieces/naming.ts';
import { kindOf } from '../pieces/standing.ts';
import { dayOf, type RequestContext } from '../context/context.ts';
import { sharedRuns } from '../context/sharedRuns.ts';

/** Lessons of so many days, and at most so many lessons, calls and notes, stand on the desk. Our choice. */
const SHOWN = { days: 7, lessons: 24, calls: 24, notes: 12 } as const;

/**
 * What needs the teacher today: lessons and what each opens with, requests at risk, pieces that are stuck or slipping, notes from
 * students. A teacher sees their own, the owner all. A fixed number of queries, none over results. @throws Forbidden
 */
export const showDesk = sharedRuns(lookAtDesk);

async function lookAtDesk(context: RequestContext): Promise<Desk> {
  const { store, studio, person, now } = context;
  await computeMissing(store, { studioId: studio.id });
  const teacherId = person.role === 'owner' ? undefined : person.id;
  const [lessons, calls, notes, requests] = await Promise.all([
    lessonsToCome(context, teacherId),
    findCalls(store, studio.id, { teacherId, max: SHOWN.calls }),
    findStudentNotes(store, studio.id, {
      since: new Date(now.getTime() - NOTES_MS),
      now,
      teacherId,
      max: SHOWN.notes,
    }),
    requestsWaiting(context),
  ]);
  const studentIds = [...new Set(lessons.map(({ student }) => student.id))];
  const pieces = await findOpening(store, studio.id, { studentIds, today: dayOf(context) });
  const opening = lessons.map((lesson) => ({ lesson, opens: opensWith(lesson, pieces, dayOf(context)) }));
  const cuts = [...calls.rows, ...opening.flatMap(({ opens }) => opens?.piece ?? [])];
  const phraseIds = cuts.flatMap(({ parts }) => parts.map(({ phraseId }) => phraseId));
  const name = namesOf(await findPhraseNames(store, studio.id, phraseIds));
  const nameOf = (row: Pick<KeptPieceRow, 'kind' | 'parts'>) => sayCut({ kind: kindOf(row), parts: row.parts }, name);
  return {
    today: dayOf(context),
    lessons: opening.map(({ lesson, opens }): DeskLesson => {
      const opensWith = opens && { kind: opens.item.kind, name: nameOf(opens.piece), why: opens.item.why };
      return { ...lesson, opensWith: opensWith ?? null };
    }),
    requests,
    calls: calls.rows.map((row): DeskCall => {
      const kind = CALL_KINDS[row.call] ?? CALL_KINDS[0];
      const { id, studentId, studentName, section, song } = row;
      return {
        piece: { id, name: nameOf(row) },
        section,
        song,
        student: { id: studentId, name: studentName },
        kind,
        why: whyOf(kind, row.kept),
      };
    }),
    calling: calls.count,
    notes: notes.map(({ id, studentId, studentName, pieceId, phrase, song, text, at }): DeskNote => ({
      id,
      student: { id: studentId, name: studentName },
      piece: pieceId === null ? null : { id: pieceId, name: phrase },
      song,
      text,
      at: at.toISOString(),
    })),
  };
}

/** The lessons of the coming days that are not over, of one teacher or of all. */
function lessonsToCome(context: RequestContext, teacherId: string | undefined): Promise<readonly Lesson[]> {
  return listLessons(context, { days: SHOWN.days, teacherId, after: context.now, max: SHOWN.lessons });
}

function opensWith({ student, minutes }: Lesson, rows: readonly KeptPieceRow[], today: string) {
  const own = rows.filter(({ studentId }) => studentId === student.id);
  const [item] = agendaFor(
    own.map((row) => agendaPieceOf(row, today)),
    minutes,
    today,
  ).items;
  const piece = item && own.find(({ id }) => id === item.pieceId);
  return item && piece ? { item, piece } : undefined;
}

function agendaPieceOf(row: KeptPieceRow, today: string): AgendaPiece {
  const { next, mastery, memory, share, cleanBpm, lastDay }: KeptStanding = row.kept;
  const due = memory && dueOn(memory, today);
  const isNew = next.move === 'begin';
  return {
    id: row.id,
    kind: kindOf(row),
    name: '',
    songId: row.songId,
    next,
    mastery,
    due,
    share,
    cleanBpm,
    lastDay,
    isNew,
  };
}

/** Requests that wait, those at risk first, then by the day they are due. */
async function requestsWaiting(context: RequestContext): Promise<readonly DeskRequest[]> {
  const { works, workMinutes } = await openWork(context);
  const today = dayOf(context);
  const { byId } = promisesOf(works, { today, workMinutes });
  return works
    .map((work) => describeRequest(context, work, byId.get(work.id)))
    .sort((a, b) => Number(b.isAtRisk) - Number(a.isAtRisk) || (a.due ?? '9999').localeCompare(b.due ?? '9999'));
}

function describeRequest(
  { studio }: RequestContext,
  { id, title, state, student, due }: Awaited<ReturnType<typeof openWork>>['works'][number],
  promise: PromisedWork | undefined,
): DeskRequest {
  const say = (day: string) => DateTime.fromISO(day, { zone: studio.zone }).toFormat('d LLLL');
  const left = promise ? `About ${promise.minutesLeft} minutes of work are left` : 'Not reckoned yet';
  const isAtRisk = promise !== undefined && !promise.isInTime;
  const end = promise?.doneOn ? `it is done on ${say(promise.doneOn)}` : 'there are no hours for it';
  return { id, title, student, state, due, isAtRisk, why: isAtRisk ? `${left}; with these hours ${end}.` : `${left}.` };
}
