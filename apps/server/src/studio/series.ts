import type { Lesson, LessonQuery, Series, SeriesBody, SeriesChange } from '@jam-ledger/contract';
import { checkRule, lessonDates, overlapsOf, type LessonDate } from '@jam-ledger/core/series';
import { DateTime } from 'luxon';
import {
  findLessons,
  findOwn,
  findSeries,
  keepLessons,
  saveVersioned,
  within,
  type LessonRow,
  type SeriesRow,
} from '../store/index.ts';
import { found, kept } from './keep.ts';
import { requireStudent } from './students.ts';
import { Invalid } from './trouble.ts';
import { dayOf, requireTeacher, teaches, type Visit } from './visit.ts';

/** Every series of the studio for a teacher, their own for a student. */
export async function listSeries(visit: Visit): Promise<readonly Series[]> {
  const rows = await findSeries(visit.store, visit.studio.id, teaches(visit) ? {} : { studentId: visit.person.id });
  return rows.map((row) => describe(visit, row));
}

/** Begins a series of lessons, given by whoever begins it. @throws NotYours, Unknown, Invalid */
export async function beginSeries(visit: Visit, body: SeriesBody): Promise<Series> {
  requireTeacher(visit);
  const { studio, person } = visit;
  await requireStudent(visit, body.studentId);
  return alone(visit, async (inside) => {
    const lessons = await soundLessons(inside, body, { teacherId: person.id, seriesId: undefined });
    const { store } = inside;
    const row = await store.series.create({ ...body, studioId: studio.id, teacherId: person.id }, within(store));
    await keepLessons(store, { studioId: studio.id, seriesId: row.id }, lessons);
    return show(inside, row.id);
  });
}

/** Changes a series and its lessons, or ends it. @throws NotYours, Unknown, Stale, Invalid */
export async function changeSeries(visit: Visit, id: string, change: SeriesChange): Promise<Series> {
  requireTeacher(visit);
  const { store, studio } = visit;
  const before = found(await findOwn(store, store.series, { studioId: studio.id, id }));
  if (before.studentId !== change.studentId)
    throw new Invalid([{ field: 'studentId', message: 'A series stays with its student; begin another one.' }]);
  return alone(visit, async (inside) => {
    const { version, ...body } = change;
    const ids = { teacherId: before.teacherId, seriesId: id };
    const lessons = change.struck ? undefined : await soundLessons(inside, body, ids);
    const saved = await saveVersioned(inside.store, inside.store.series, { studioId: studio.id, id, version }, body);
    await kept(saved, () => show(inside, id));
    if (lessons) await keepLessons(inside.store, { studioId: studio.id, seriesId: id }, lessons);
    return show(inside, id);
  });
}

/** Does something while nobody else of the studio changes series, so that two at once see each other’s lessons. */
function alone<One>(visit: Visit, work: (inside: Visit) => Promise<One>): Promise<One> {
  return visit.store.atOnce(async (store) => {
    await store.rows('SELECT pg_advisory_xact_lock(hashtext($1))', [`series ${visit.studio.id}`]);
    return work({ ...visit, store });
  });
}

async function show(visit: Visit, id: string): Promise<Series> {
  return describe(visit, found((await findSeries(visit.store, visit.studio.id, { id }))[0]));
}

/** Most overlaps that are told at once. */
const MOST_TOLD = 3;

/** The lessons of a series. @throws Invalid where the rule is none, or they overlap others of the student or teacher. */
async function soundLessons(
  visit: Visit,
  { rule, changes, studentId }: SeriesBody,
  { teacherId, seriesId }: { readonly teacherId: string; readonly seriesId: string | undefined },
): Promise<readonly LessonDate[]> {
  const { store, studio } = visit;
  const problems = checkRule(rule, changes, studio.zone);
  const at = (field: string) => (field in changes ? `changes.${field}` : `rule.${field}`);
  if (problems.length > 0) throw new Invalid(problems.map(({ field, message }) => ({ field: at(field), message })));
  const lessons = lessonDates(rule, changes, studio.zone);
  const [first, last] = [lessons[0], lessons.at(-1)];
  if (!first || !last)
    throw new Invalid([{ field: 'rule.count', message: 'There is no lesson in this series; name some days.' }]);
  const others = await findLessons(store, studio.id, { from: first.startsAt, to: last.endsAt });
  const taken = others
    .filter((one) => one.seriesId !== seriesId && (one.studentId === studentId || one.teacherId === teacherId))
    .map((one) => ({ startsAt: iso(one.startsAt), endsAt: iso(one.endsAt), name: one.studentName }));
  const own = lessons.map(({ startsAt, endsAt }) => ({ startsAt, endsAt, name: undefined }));
  const pairs = overlapsOf([...own, ...taken]).filter(([a, b]) => a.name === undefined || b.name === undefined);
  if (pairs.length > 0)
    throw new Invalid(
      pairs.slice(0, MOST_TOLD).map((pair) => ({ field: 'rule.time', message: sayOverlap(visit, pair) })),
    );
  return lessons;
}

interface Taken {
  readonly startsAt: string;
  readonly endsAt: string;
  /** Whose lesson it is; undefined for one of the series itself. */
  readonly name: string | undefined;
}

function sayOverlap({ studio }: Visit, pair: readonly [Taken, Taken]): string {
  const other = pair.find(({ name }) => name !== undefined);
  const own = pair.find((one) => one !== other) ?? pair[0];
  const at = (moment: string, form: string) => DateTime.fromISO(moment, { zone: studio.zone }).toFormat(form);
  const when = at(own.startsAt, 'd LLLL yyyy, HH:mm');
  if (!other) return `On ${when} two lessons of this series overlap.`;
  const [from, to] = [at(other.startsAt, 'HH:mm'), at(other.endsAt, 'HH:mm')];
  return `On ${when} it overlaps the lesson of ${other.name ?? ''} from ${from} to ${to}.`;
}

const iso = (moment: Date) => `${moment.toISOString().slice(0, 19)}Z`;

function describe({ studio }: Visit, row: SeriesRow): Series {
  const { studentId, studentName, teacherId, teacherName, rule, changes, ...rest } = row;
  return {
    ...rest,
    studentId,
    rule,
    changes,
    student: { id: studentId, name: studentName },
    teacher: { id: teacherId, name: teacherName },
    lessons: lessonDates(rule, changes, studio.zone),
  };
}

/** The lessons of some days from today on: those of the studio for a teacher, a student’s own. */
export async function listLessons(visit: Visit, { days }: LessonQuery): Promise<readonly Lesson[]> {
  const { store, studio, person } = visit;
  const start = DateTime.fromISO(dayOf(visit), { zone: studio.zone });
  const range = { from: start.toUTC().toISO() ?? '', to: start.plus({ days }).toUTC().toISO() ?? '' };
  const rows = await findLessons(store, studio.id, range);
  return rows
    .filter(({ studentId }) => teaches(visit) || studentId === person.id)
    .map((row) => describeLesson(visit, row));
}

function describeLesson({ studio }: Visit, row: LessonRow): Lesson {
  const { id, seriesId, title, studentId, studentName, startsAt, endsAt, why, number, of } = row;
  const start = DateTime.fromJSDate(startsAt, { zone: studio.zone });
  return {
    id,
    series: { id: seriesId, title },
    student: { id: studentId, name: studentName },
    day: start.toISODate() ?? '',
    time: start.toFormat('HH:mm'),
    minutes: Math.round((endsAt.getTime() - startsAt.getTime()) / 60_000),
    why: why === 'moved' || why === 'extra' ? why : 'rule',
    number,
    of,
  };
}
