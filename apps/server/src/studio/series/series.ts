import {
  SERIES_LIMITS,
  type Lesson,
  type LessonQuery,
  type LessonSwap,
  type Series,
  type SeriesBody,
  type SeriesChange,
  type SeriesList,
  type SeriesQuery,
} from '@jam-ledger/contract';
import { checkRule, closedDays, lessonDates, moveLesson, overlapsOf, type LessonDate } from '@jam-ledger/core/series';
import { DateTime } from 'luxon';
import {
  addRow,
  changeRows,
  countRows,
  findLessonDates,
  findLessons,
  findOwn,
  findSeries,
  findSeriesLines,
  findTaken,
  keepLessons,
  saveVersioned,
  type LessonRow,
  type SeriesRow,
} from '../../store/index.ts';
import { orNotFound, orConflict, requireStudent } from '../context/rows.ts';
import { moveOnDelivered } from '../requests/moveOn.ts';
import { writeHome } from '../people/outbox.ts';
import { mapInSlices } from '../context/slices.ts';
import { Invalid } from '../context/errors.ts';
import { dayOf, visibleStudents, type RequestContext } from '../context/context.ts';

/** A page of the series of the studio for a teacher, of those of whom they may read for others. @throws Forbidden */
export async function listSeries(context: RequestContext, { studentId, from = 0 }: SeriesQuery): Promise<SeriesList> {
  const { store, studio } = context;
  const studentIds = studentId === undefined ? visibleStudents(context) : [studentId];
  const since = startOfDay(context, dayOf(context)).toJSDate();
  const page = { studentIds, from, max: SERIES_LIMITS.page, since, zone: studio.zone };
  const rows = await findSeriesLines(store, studio.id, page);
  return {
    total: rows[0]?.total ?? 0,
    series: rows.map(({ id, title, studentId: student, studentName, teacherId, teacherName, lessons, day, time }) => ({
      id,
      title,
      student: { id: student, name: studentName },
      teacher: { id: teacherId, name: teacherName },
      lessons,
      next: day === null || time === null ? null : { day, time },
    })),
  };
}

/** One series with its lessons. @throws Forbidden, NotFound */
export async function showSeries(context: RequestContext, id: string): Promise<Series> {
  const { store, studio } = context;
  const row = orNotFound((await findSeries(store, studio.id, { id }))[0]);
  return describe(context, row, await findLessonDates(store, studio.id, { seriesId: id, zone: studio.zone }));
}

/** Begins a series of lessons, given by whoever begins it. @throws Forbidden, NotFound, Invalid */
export async function beginSeries(context: RequestContext, body: SeriesBody): Promise<Series> {
  const { store, studio, person } = context;
  await requireStudent(context, body.studentId);
  await requireInstalments(context, body);
  await lockSeries(context);
  const [lessons = []] = await soundLessons(context, [{ ...body, teacherId: person.id, seriesId: undefined }]);
  const row = await addRow(store.series, { ...body, studioId: studio.id, teacherId: person.id });
  await keepLessons(store, { studioId: studio.id, seriesId: row.id }, lessons);
  // Whoever gives the first lessons is their teacher from now on.
  const unclaimed = { studioId: studio.id, id: body.studentId, teacherId: null };
  await changeRows(store.people, unclaimed, { teacherId: person.id });
  return showSeries(context, row.id);
}

/** Changes a series and its lessons, or ends it; what that means for those at home is written to them. @throws Forbidden, NotFound, Conflict, Invalid */
export async function changeSeries(context: RequestContext, id: string, change: SeriesChange): Promise<Series> {
  const { store, studio } = context;
  const before = orNotFound(await findOwn(store.series, { studioId: studio.id, id }));
  if (before.studentId !== change.studentId)
    throw new Invalid([{ field: 'studentId', message: 'A series stays with its student; begin another one.' }]);
  await requireInstalments(context, change);
  await lockSeries(context);
  const { version, ...body } = change;
  const given = { ...body, teacherId: before.teacherId, seriesId: id };
  const [lessons] = change.struck ? [] : await soundLessons(context, [given]);
  const old = before.struck ? [] : await findLessonDates(store, studio.id, { seriesId: id, zone: studio.zone });
  const saved = await saveVersioned(store.series, { studioId: studio.id, id, version }, body);
  await orConflict(saved, () => showSeries(context, id));
  if (lessons) await keepLessons(store, { studioId: studio.id, seriesId: id }, lessons);
  await moveOnDelivered(context, change.studentId, nowDelivered(before, change));
  await tellHome(context, change, { old, lessons: lessons ?? [] });
  return showSeries(context, id);
}

/** The requests whose last instalment is delivered by a change. */
function nowDelivered(before: Pick<SeriesBody, 'instalments'>, after: SeriesBody): readonly string[] {
  const done = ({ instalments }: Pick<SeriesBody, 'instalments'>) => {
    const ids = new Set(instalments.map(({ requestId }) => requestId));
    return [...ids].filter((id) => instalments.every(({ requestId, delivered }) => requestId !== id || delivered));
  };
  const had = done(before);
  return done(after).filter((id) => !had.includes(id));
}

/** Lets two lessons of two series change places, both or neither. @throws Forbidden, NotFound, Conflict, Invalid */
export async function swapLessons(context: RequestContext, { lessons: pair }: LessonSwap): Promise<readonly Series[]> {
  const { store, studio } = context;
  await lockSeries(context);
  const sides = await Promise.all(
    pair.map(async ({ seriesId, version, startsAt }) => {
      const series = await showSeries(context, seriesId);
      const lesson = series.lessons.find((one) => one.startsAt === startsAt);
      if (!lesson) throw new Invalid([{ field: 'lessons', message: 'This lesson is not there any more; look again.' }]);
      return { series, lesson, version };
    }),
  );
  const [a, b] = sides;
  if (!a || !b) return [];
  const swapped = [
    { ...a, changes: moveLesson(a.series.changes, a.lesson, b.lesson) },
    { ...b, changes: moveLesson(b.series.changes, b.lesson, a.lesson) },
  ];
  const given = swapped.map(({ series, changes }) => ({
    ...series,
    changes,
    teacherId: series.teacher.id,
    seriesId: series.id,
  }));
  const made = await soundLessons(context, given);
  for (const [index, { series, changes, version }] of swapped.entries()) {
    const row = { studioId: studio.id, id: series.id, version };
    await orConflict(await saveVersioned(store.series, row, { changes }), () => showSeries(context, series.id));
    await keepLessons(store, { studioId: studio.id, seriesId: series.id }, made[index] ?? []);
    await tellHome(context, series, { old: series.lessons, lessons: made[index] ?? [] });
  }
  return Promise.all(swapped.map(({ series }) => showSeries(context, series.id)));
}

/** Lays the lessons of all series anew, since the zone or the holidays have changed. @throws Invalid where some would overlap. */
export async function rebuildLessons(context: RequestContext): Promise<void> {
  const { store, studio } = context;
  await lockSeries(context);
  const rows = await findSeries(store, studio.id, {});
  const given = rows.map((row) => ({ ...row, seriesId: row.id }));
  const made = await soundLessons(context, given);
  for (const [index, { id }] of rows.entries())
    await keepLessons(store, { studioId: studio.id, seriesId: id }, made[index] ?? []);
}

/** Ends the series of a student whose coming lessons overlap others by now; gives their titles. */
export async function endOverlapping(context: RequestContext, studentId: string): Promise<readonly string[]> {
  const { store, studio } = context;
  await lockSeries(context);
  const ended: string[] = [];
  for (const row of await findSeries(store, studio.id, { studentIds: [studentId] })) {
    const isFree = await soundLessons(context, [{ ...row, seriesId: row.id }]).then(
      () => true,
      (error: unknown) => {
        if (error instanceof Invalid) return false;
        throw error;
      },
    );
    if (isFree) continue;
    const { id, version } = row;
    await saveVersioned(store.series, { studioId: studio.id, id, version }, { struck: true });
    ended.push(row.title);
  }
  return ended;
}

/** @throws Invalid where an instalment is of a request of somebody else. */
async function requireInstalments(
  { store, studio }: RequestContext,
  { studentId, instalments }: SeriesBody,
): Promise<void> {
  const ids = [...new Set(instalments.map(({ requestId }) => requestId))];
  const where = { studioId: studio.id, studentId, id: ids };
  const known = ids.length === 0 ? 0 : await countRows(store.requests, where);
  if (known !== ids.length)
    throw new Invalid([{ field: 'instalments', message: 'One of these was not asked for by this student.' }]);
}

/** Writes to those at home which coming lessons fall out and which are new. */
async function tellHome(
  context: RequestContext,
  { title, studentId }: Pick<SeriesBody, 'title' | 'studentId'>,
  { old, lessons }: { readonly old: readonly LessonDate[]; readonly lessons: readonly LessonDate[] },
): Promise<void> {
  const now = iso(context.now);
  const only = (some: readonly LessonDate[], others: readonly LessonDate[]) =>
    some
      .filter(({ startsAt }) => startsAt > now && !others.some((other) => other.startsAt === startsAt))
      .slice(0, MAX_WRITTEN)
      .map(({ startsAt }) => DateTime.fromISO(startsAt, { zone: context.studio.zone }).toFormat('cccc d LLLL, HH:mm'));
  const [out, fresh] = [only(old, lessons), only(lessons, old)];
  if (out.length === 0 && fresh.length === 0) return;
  const lines = [
    ...(out.length > 0 ? [`No lesson on: ${out.join('; ')}.`] : []),
    ...(fresh.length > 0 ? [`A lesson on: ${fresh.join('; ')}.`] : []),
  ];
  await writeHome(context, studentId, { subject: `“${title}”: lessons have changed`, body: lines.join('\n') });
}

/** Most lessons that are named in a message. */
const MAX_WRITTEN = 12;

/** Lets nobody else of the studio change series until this is done, so that two at once see each other’s lessons. */
function lockSeries({ store, studio }: RequestContext): Promise<void> {
  return store.lock(`series ${studio.id}`);
}

/** Most overlaps that are told at once. */
const MAX_TOLD = 3;

/** A series of which lessons are made. */
type Given = Pick<SeriesBody, 'rule' | 'changes' | 'studentId'> & {
  readonly teacherId: string;
  /** Undefined while it is not kept yet. */
  readonly seriesId: string | undefined;
};

/** The lessons of some series, in their order. @throws Invalid where a rule is none, or they overlap others of the student or teacher. */
async function soundLessons(
  context: RequestContext,
  series: readonly Given[],
): Promise<readonly (readonly LessonDate[])[]> {
  const { store, studio } = context;
  const made = await mapInSlices(series, (given) => ruledLessons(context, given));
  const laid = await mapInSlices(series, ({ studentId, teacherId }, index) =>
    (made[index] ?? []).map(({ startsAt, endsAt }) => ({ startsAt, endsAt, studentId, teacherId, name: undefined })),
  );
  const own = laid.flat();
  const [first] = own;
  if (!first) return made;
  let { startsAt: from, endsAt: to } = first;
  await mapInSlices(own, ({ startsAt, endsAt }) => {
    if (startsAt < from) from = startsAt;
    if (endsAt > to) to = endsAt;
  });
  const people = [...new Set(series.flatMap(({ studentId, teacherId }) => [studentId, teacherId]))];
  const but = series.flatMap(({ seriesId }) => seriesId ?? []);
  const others = await findTaken(store, studio.id, { from, to, people, but });
  const taken = others.map((one) => ({
    ...one,
    startsAt: iso(one.startsAt),
    endsAt: iso(one.endsAt),
    name: one.studentName,
  }));
  const pairs = await overlapsOfPeople([...own, ...taken]);
  if (pairs.length > 0)
    throw new Invalid(
      pairs.slice(0, MAX_TOLD).map((pair) => ({ field: 'rule.time', message: sayOverlap(context, pair) })),
    );
  return made;
}

/** Lessons that take the same student or teacher at the same time, one of them of the series that are laid. */
async function overlapsOfPeople(lessons: readonly Taken[]): Promise<readonly (readonly [Taken, Taken])[]> {
  const byPerson = new Map<string, Taken[]>();
  await mapInSlices(lessons, (lesson) => {
    for (const person of new Set([lesson.studentId, lesson.teacherId])) {
      const had = byPerson.get(person);
      if (had) had.push(lesson);
      else byPerson.set(person, [lesson]);
    }
  });
  const pairs = await mapInSlices([...byPerson.values()], (had) =>
    overlapsOf(had).filter(([a, b]) => a.name === undefined || b.name === undefined),
  );
  // Two that share student and teacher are found for both.
  const told = new Set<string>();
  return pairs.flat().filter(([a, b]) => {
    const key = `${a.startsAt} ${a.studentId} ${b.startsAt} ${b.studentId}`;
    return !told.has(key) && told.add(key);
  });
}

/** @throws Invalid */
function ruledLessons({ studio }: RequestContext, { rule, changes }: Given): readonly LessonDate[] {
  const all = { ...changes, holidays: studio.holidays };
  const problems = checkRule(rule, all, studio.zone);
  const at = (field: string) =>
    field === 'holidays' || field === 'zone' ? field : `${field in changes ? 'changes' : 'rule'}.${field}`;
  if (problems.length > 0) throw new Invalid(problems.map(({ field, message }) => ({ field: at(field), message })));
  const lessons = lessonDates(rule, all, studio.zone);
  if (lessons.length === 0)
    throw new Invalid([{ field: 'rule.count', message: 'There is no lesson in this series; name some days.' }]);
  return lessons;
}

interface Taken {
  readonly startsAt: string;
  readonly endsAt: string;
  readonly studentId: string;
  readonly teacherId: string;
  /** Whose lesson it is; undefined for one of the series that are laid. */
  readonly name: string | undefined;
}

function sayOverlap({ studio }: RequestContext, pair: readonly [Taken, Taken]): string {
  const other = pair.find(({ name }) => name !== undefined);
  const own = pair.find((one) => one !== other) ?? pair[0];
  const at = (moment: string, form: string) => DateTime.fromISO(moment, { zone: studio.zone }).toFormat(form);
  const when = at(own.startsAt, 'd LLLL yyyy, HH:mm');
  if (!other) return `On ${when} two lessons of this series overlap.`;
  const [from, to] = [at(other.startsAt, 'HH:mm'), at(other.endsAt, 'HH:mm')];
  return `On ${when} it overlaps the lesson of ${other.name ?? ''} from ${from} to ${to}.`;
}

const iso = (moment: Date) => `${moment.toISOString().slice(0, 19)}Z`;

function describe({ studio }: RequestContext, row: SeriesRow, lessons: readonly LessonDate[]): Series {
  const { studentId, studentName, teacherId, teacherName, rule, changes, ...rest } = row;
  return {
    ...rest,
    studentId,
    rule,
    changes,
    student: { id: studentId, name: studentName },
    teacher: { id: teacherId, name: teacherName },
    lessons,
    closed: closedDays(rule, { ...changes, holidays: studio.holidays }, studio.zone).map(({ day, holiday }) => ({
      day,
      name: holiday.name,
    })),
  };
}

function startOfDay({ studio }: RequestContext, day: string): DateTime {
  return DateTime.fromISO(day, { zone: studio.zone });
}

/** The lessons of some days from today on: those of the studio for a teacher, of whom they may read for others. */
export async function listLessons(
  context: RequestContext,
  {
    days,
    ...only
  }: LessonQuery & { readonly teacherId?: string | undefined; readonly after?: Date; readonly max?: number },
): Promise<readonly Lesson[]> {
  const { store, studio } = context;
  const start = startOfDay(context, dayOf(context));
  const range = { from: start.toUTC().toISO() ?? '', to: start.plus({ days }).toUTC().toISO() ?? '' };
  const rows = await findLessons(store, studio.id, { ...range, ...only });
  return rows
    .filter(({ studentId }) => visibleStudents(context)?.includes(studentId) ?? true)
    .map((row) => describeLesson(context, row));
}

/** A lesson as it is shown. */
export function describeLesson({ studio }: RequestContext, row: LessonRow): Lesson {
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
