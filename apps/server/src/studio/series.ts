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
} from '../store/index.ts';
import { found, kept, requireStudent } from './keep.ts';
import { writeHome } from './outbox.ts';
import { mapInSlices } from './slices.ts';
import { Invalid } from './trouble.ts';
import { dayOf, requireSight, requireTeacher, sightOf, type Visit } from './visit.ts';

/** A page of the series of the studio for a teacher, of those of whom they may read for others. @throws NotYours */
export async function listSeries(visit: Visit, { studentId, from = 0 }: SeriesQuery): Promise<SeriesList> {
  const { store, studio } = visit;
  if (studentId !== undefined) requireSight(visit, studentId);
  const studentIds = studentId === undefined ? sightOf(visit) : [studentId];
  const since = startOfDay(visit, dayOf(visit)).toJSDate();
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

/** One series with its lessons. @throws NotYours, Unknown */
export async function showSeries(visit: Visit, id: string): Promise<Series> {
  const { store, studio } = visit;
  const row = found((await findSeries(store, studio.id, { id }))[0]);
  requireSight(visit, row.studentId);
  return describe(visit, row, await findLessonDates(store, studio.id, { seriesId: id, zone: studio.zone }));
}

/** Begins a series of lessons, given by whoever begins it. @throws NotYours, Unknown, Invalid */
export async function beginSeries(visit: Visit, body: SeriesBody): Promise<Series> {
  requireTeacher(visit);
  const { store, studio, person } = visit;
  await requireStudent(visit, body.studentId);
  await requireInstalments(visit, body);
  await lockSeries(visit);
  const [lessons = []] = await soundLessons(visit, [{ ...body, teacherId: person.id, seriesId: undefined }]);
  const row = await store.series.create({ ...body, studioId: studio.id, teacherId: person.id });
  await keepLessons(store, { studioId: studio.id, seriesId: row.id }, lessons);
  // Whoever gives the first lessons is their teacher from now on.
  const unclaimed = { studioId: studio.id, id: body.studentId, teacherId: null };
  await store.people.update({ teacherId: person.id }, { where: unclaimed });
  return showSeries(visit, row.id);
}

/** Changes a series and its lessons, or ends it; what that means for those at home is written to them. @throws NotYours, Unknown, Stale, Invalid */
export async function changeSeries(visit: Visit, id: string, change: SeriesChange): Promise<Series> {
  requireTeacher(visit);
  const { store, studio } = visit;
  const before = found(await findOwn(store.series, { studioId: studio.id, id }));
  if (before.studentId !== change.studentId)
    throw new Invalid([{ field: 'studentId', message: 'A series stays with its student; begin another one.' }]);
  await requireInstalments(visit, change);
  await lockSeries(visit);
  const { version, ...body } = change;
  const given = { ...body, teacherId: before.teacherId, seriesId: id };
  const [lessons] = change.struck ? [] : await soundLessons(visit, [given]);
  const old = before.struck ? [] : await findLessonDates(store, studio.id, { seriesId: id, zone: studio.zone });
  const saved = await saveVersioned(store.series, { studioId: studio.id, id, version }, body);
  await kept(saved, () => showSeries(visit, id));
  if (lessons) await keepLessons(store, { studioId: studio.id, seriesId: id }, lessons);
  await tellHome(visit, change, { old, lessons: lessons ?? [] });
  return showSeries(visit, id);
}

/** Lets two lessons of two series change places, both or neither. @throws NotYours, Unknown, Stale, Invalid */
export async function swapLessons(visit: Visit, { lessons: pair }: LessonSwap): Promise<readonly Series[]> {
  requireTeacher(visit);
  const { store, studio } = visit;
  await lockSeries(visit);
  const sides = await Promise.all(
    pair.map(async ({ seriesId, version, startsAt }) => {
      const series = await showSeries(visit, seriesId);
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
  const made = await soundLessons(visit, given);
  for (const [index, { series, changes, version }] of swapped.entries()) {
    const row = { studioId: studio.id, id: series.id, version };
    await kept(await saveVersioned(store.series, row, { changes }), () => showSeries(visit, series.id));
    await keepLessons(store, { studioId: studio.id, seriesId: series.id }, made[index] ?? []);
    await tellHome(visit, series, { old: series.lessons, lessons: made[index] ?? [] });
  }
  return Promise.all(swapped.map(({ series }) => showSeries(visit, series.id)));
}

/** Lays the lessons of all series anew, since the zone or the holidays have changed. @throws Invalid where some would overlap. */
export async function layAnew(visit: Visit): Promise<void> {
  const { store, studio } = visit;
  await lockSeries(visit);
  const rows = await findSeries(store, studio.id, {});
  const given = rows.map((row) => ({ ...row, seriesId: row.id }));
  const made = await soundLessons(visit, given);
  for (const [index, { id }] of rows.entries())
    await keepLessons(store, { studioId: studio.id, seriesId: id }, made[index] ?? []);
}

/** Ends the series of a student whose coming lessons overlap others by now; gives their titles. */
export async function endOverlapping(visit: Visit, studentId: string): Promise<readonly string[]> {
  const { store, studio } = visit;
  await lockSeries(visit);
  const ended: string[] = [];
  for (const row of await findSeries(store, studio.id, { studentIds: [studentId] })) {
    const isFree = await soundLessons(visit, [{ ...row, seriesId: row.id }]).then(
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
async function requireInstalments({ store, studio }: Visit, { studentId, instalments }: SeriesBody): Promise<void> {
  const ids = [...new Set(instalments.map(({ requestId }) => requestId))];
  const where = { studioId: studio.id, studentId, id: ids };
  const known = ids.length === 0 ? 0 : await store.requests.count({ where });
  if (known !== ids.length)
    throw new Invalid([{ field: 'instalments', message: 'One of these was not asked for by this student.' }]);
}

/** Writes to those at home which coming lessons fall out and which are new. */
async function tellHome(
  visit: Visit,
  { title, studentId }: Pick<SeriesBody, 'title' | 'studentId'>,
  { old, lessons }: { readonly old: readonly LessonDate[]; readonly lessons: readonly LessonDate[] },
): Promise<void> {
  const now = iso(visit.now);
  const only = (some: readonly LessonDate[], others: readonly LessonDate[]) =>
    some
      .filter(({ startsAt }) => startsAt > now && !others.some((other) => other.startsAt === startsAt))
      .slice(0, MOST_WRITTEN)
      .map(({ startsAt }) => DateTime.fromISO(startsAt, { zone: visit.studio.zone }).toFormat('cccc d LLLL, HH:mm'));
  const [out, fresh] = [only(old, lessons), only(lessons, old)];
  if (out.length === 0 && fresh.length === 0) return;
  const lines = [
    ...(out.length > 0 ? [`No lesson on: ${out.join('; ')}.`] : []),
    ...(fresh.length > 0 ? [`A lesson on: ${fresh.join('; ')}.`] : []),
  ];
  await writeHome(visit, studentId, { subject: `“${title}”: lessons have changed`, body: lines.join('\n') });
}

/** Most lessons that are named in a message. */
const MOST_WRITTEN = 12;

/** Lets nobody else of the studio change series until this is done, so that two at once see each other’s lessons. */
function lockSeries({ store, studio }: Visit): Promise<void> {
  return store.lock(`series ${studio.id}`);
}

/** Most overlaps that are told at once. */
const MOST_TOLD = 3;

/** A series of which lessons are made. */
type Given = Pick<SeriesBody, 'rule' | 'changes' | 'studentId'> & {
  readonly teacherId: string;
  /** Undefined while it is not kept yet. */
  readonly seriesId: string | undefined;
};

/** The lessons of some series, in their order. @throws Invalid where a rule is none, or they overlap others of the student or teacher. */
async function soundLessons(visit: Visit, series: readonly Given[]): Promise<readonly (readonly LessonDate[])[]> {
  const { store, studio } = visit;
  const made = await mapInSlices(series, (given) => ruledLessons(visit, given));
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
      pairs.slice(0, MOST_TOLD).map((pair) => ({ field: 'rule.time', message: sayOverlap(visit, pair) })),
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
function ruledLessons({ studio }: Visit, { rule, changes }: Given): readonly LessonDate[] {
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

function describe({ studio }: Visit, row: SeriesRow, lessons: readonly LessonDate[]): Series {
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

function startOfDay({ studio }: Visit, day: string): DateTime {
  return DateTime.fromISO(day, { zone: studio.zone });
}

/** The lessons of some days from today on: those of the studio for a teacher, of whom they may read for others. */
export async function listLessons(
  visit: Visit,
  {
    days,
    ...only
  }: LessonQuery & { readonly teacherId?: string | undefined; readonly after?: Date; readonly most?: number },
): Promise<readonly Lesson[]> {
  const { store, studio } = visit;
  const start = startOfDay(visit, dayOf(visit));
  const range = { from: start.toUTC().toISO() ?? '', to: start.plus({ days }).toUTC().toISO() ?? '' };
  const rows = await findLessons(store, studio.id, { ...range, ...only });
  return rows
    .filter(({ studentId }) => sightOf(visit)?.includes(studentId) ?? true)
    .map((row) => describeLesson(visit, row));
}

/** A lesson as it is shown. */
export function describeLesson({ studio }: Visit, row: LessonRow): Lesson {
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
