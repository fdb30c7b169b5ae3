import type { Lesson, LessonQuery, LessonSwap, Series, SeriesBody, SeriesChange } from '@jam-ledger/contract';
import { checkRule, closedDays, lessonDates, moveLesson, overlapsOf, type LessonDate } from '@jam-ledger/core/series';
import { DateTime } from 'luxon';
import {
  findLessons,
  findOwn,
  findSeries,
  findTaken,
  keepLessons,
  saveVersioned,
  within,
  type LessonRow,
  type SeriesRow,
} from '../store/index.ts';
import { found, kept, requireStudent } from './keep.ts';
import { writeHome } from './outbox.ts';
import { Invalid } from './trouble.ts';
import { dayOf, requireTeacher, sightOf, type Visit } from './visit.ts';

/** Every series of the studio for a teacher, those of whom they may read for others. */
export async function listSeries(visit: Visit): Promise<readonly Series[]> {
  const rows = await findSeries(visit.store, visit.studio.id, { studentIds: sightOf(visit) });
  return rows.map((row) => describe(visit, row));
}

/** One series. @throws Unknown */
export async function showSeries(visit: Visit, id: string): Promise<Series> {
  return describe(visit, found((await findSeries(visit.store, visit.studio.id, { id }))[0]));
}

/** Begins a series of lessons, given by whoever begins it. @throws NotYours, Unknown, Invalid */
export async function beginSeries(visit: Visit, body: SeriesBody): Promise<Series> {
  requireTeacher(visit);
  const { studio, person } = visit;
  await requireStudent(visit, body.studentId);
  await requireInstalments(visit, body);
  return alone(visit, async (inside) => {
    const { store } = inside;
    const [lessons = []] = await soundLessons(inside, [{ ...body, teacherId: person.id, seriesId: undefined }]);
    const row = await store.series.create({ ...body, studioId: studio.id, teacherId: person.id }, within(store));
    await keepLessons(store, { studioId: studio.id, seriesId: row.id }, lessons);
    // Whoever gives the first lessons is their teacher from now on.
    const unclaimed = { studioId: studio.id, id: body.studentId, teacherId: null };
    await store.people.update({ teacherId: person.id }, { where: unclaimed, ...within(store) });
    return showSeries(inside, row.id);
  });
}

/** Changes a series and its lessons, or ends it; what that means for those at home is written to them. @throws NotYours, Unknown, Stale, Invalid */
export async function changeSeries(visit: Visit, id: string, change: SeriesChange): Promise<Series> {
  requireTeacher(visit);
  const { store, studio } = visit;
  const before = found(await findOwn(store, store.series, { studioId: studio.id, id }));
  if (before.studentId !== change.studentId)
    throw new Invalid([{ field: 'studentId', message: 'A series stays with its student; begin another one.' }]);
  await requireInstalments(visit, change);
  return alone(visit, async (inside) => {
    const { version, ...body } = change;
    const given = { ...body, teacherId: before.teacherId, seriesId: id };
    const [lessons] = change.struck ? [] : await soundLessons(inside, [given]);
    const old = before.struck ? [] : lessonsOf(visit, before);
    const saved = await saveVersioned(inside.store, inside.store.series, { studioId: studio.id, id, version }, body);
    await kept(saved, () => showSeries(inside, id));
    if (lessons) await keepLessons(inside.store, { studioId: studio.id, seriesId: id }, lessons);
    await tellHome(inside, change, { old, lessons: lessons ?? [] });
    return showSeries(inside, id);
  });
}

/** Lets two lessons of two series change places, both or neither. @throws NotYours, Unknown, Stale, Invalid */
export async function swapLessons(visit: Visit, { lessons: pair }: LessonSwap): Promise<readonly Series[]> {
  requireTeacher(visit);
  const { studio } = visit;
  return alone(visit, async (inside) => {
    const sides = await Promise.all(
      pair.map(async ({ seriesId, version, startsAt }) => {
        const series = await showSeries(inside, seriesId);
        const lesson = series.lessons.find((one) => one.startsAt === startsAt);
        if (!lesson)
          throw new Invalid([{ field: 'lessons', message: 'This lesson is not there any more; look again.' }]);
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
    const made = await soundLessons(inside, given);
    const { store } = inside;
    for (const [index, { series, changes, version }] of swapped.entries()) {
      const row = { studioId: studio.id, id: series.id, version };
      await kept(await saveVersioned(store, store.series, row, { changes }), () => showSeries(inside, series.id));
      await keepLessons(store, { studioId: studio.id, seriesId: series.id }, made[index] ?? []);
      await tellHome(inside, series, { old: series.lessons, lessons: made[index] ?? [] });
    }
    return Promise.all(swapped.map(({ series }) => showSeries(inside, series.id)));
  });
}

/** Lays the lessons of all series anew, since the zone or the holidays have changed. @throws Invalid where some would overlap. */
export async function layAnew(visit: Visit): Promise<void> {
  await alone(visit, async (inside) => {
    const rows = await findSeries(inside.store, visit.studio.id, {});
    const made = await soundLessons(
      inside,
      rows.map((row) => ({ ...row, seriesId: row.id })),
    );
    for (const [index, { id }] of rows.entries())
      await keepLessons(inside.store, { studioId: visit.studio.id, seriesId: id }, made[index] ?? []);
  });
}

/** Ends the series of a student whose coming lessons overlap others by now; gives their titles. */
export async function endOverlapping(visit: Visit, studentId: string): Promise<readonly string[]> {
  return alone(visit, async (inside) => {
    const { store, studio } = inside;
    const ended: string[] = [];
    for (const row of await findSeries(store, studio.id, { studentIds: [studentId] })) {
      const given = { ...row, seriesId: row.id };
      const isFree = await soundLessons(inside, [given]).then(
        () => true,
        (error: unknown) => {
          if (error instanceof Invalid) return false;
          throw error;
        },
      );
      if (isFree) continue;
      await saveVersioned(
        store,
        store.series,
        { studioId: studio.id, id: row.id, version: row.version },
        { struck: true },
      );
      ended.push(row.title);
    }
    return ended;
  });
}

/** @throws Invalid where an instalment is of a request of somebody else. */
async function requireInstalments({ store, studio }: Visit, { studentId, instalments }: SeriesBody): Promise<void> {
  const ids = [...new Set(instalments.map(({ requestId }) => requestId))];
  const where = { studioId: studio.id, studentId, id: ids };
  const known = ids.length === 0 ? 0 : await store.requests.count({ where, ...within(store) });
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

/** Does something while nobody else of the studio changes series, so that two at once see each other’s lessons. */
function alone<One>(visit: Visit, work: (inside: Visit) => Promise<One>): Promise<One> {
  return visit.store.atOnce(async (store) => {
    await store.rows('SELECT pg_advisory_xact_lock(hashtext($1))', [`series ${visit.studio.id}`]);
    return work({ ...visit, store });
  });
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
  const made = series.map((given) => ruledLessons(visit, given));
  const own = series.flatMap(({ studentId, teacherId }, index) =>
    (made[index] ?? []).map(({ startsAt, endsAt }) => ({ startsAt, endsAt, studentId, teacherId, name: undefined })),
  );
  const [from, to] = [
    own.map(({ startsAt }) => startsAt).sort()[0],
    own
      .map(({ endsAt }) => endsAt)
      .sort()
      .at(-1),
  ];
  if (from === undefined || to === undefined) return made;
  const people = [...new Set(series.flatMap(({ studentId, teacherId }) => [studentId, teacherId]))];
  const others = await findTaken(store, studio.id, { from, to, people });
  const ids = new Set(series.map(({ seriesId }) => seriesId));
  const taken = others
    .filter(({ seriesId }) => !ids.has(seriesId))
    .map((one) => ({ ...one, startsAt: iso(one.startsAt), endsAt: iso(one.endsAt), name: one.studentName }));
  const pairs = overlapsOf<Taken>([...own, ...taken]).filter(
    ([a, b]) =>
      (a.name === undefined || b.name === undefined) && (a.studentId === b.studentId || a.teacherId === b.teacherId),
  );
  if (pairs.length > 0)
    throw new Invalid(
      pairs.slice(0, MOST_TOLD).map((pair) => ({ field: 'rule.time', message: sayOverlap(visit, pair) })),
    );
  return made;
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

function lessonsOf({ studio }: Visit, { rule, changes }: Pick<SeriesRow, 'rule' | 'changes'>): readonly LessonDate[] {
  return lessonDates(rule, { ...changes, holidays: studio.holidays }, studio.zone);
}

function describe(visit: Visit, row: SeriesRow): Series {
  const { studio } = visit;
  const { studentId, studentName, teacherId, teacherName, rule, changes, ...rest } = row;
  return {
    ...rest,
    studentId,
    rule,
    changes,
    student: { id: studentId, name: studentName },
    teacher: { id: teacherId, name: teacherName },
    lessons: lessonsOf(visit, row),
    closed: closedDays(rule, { ...changes, holidays: studio.holidays }, studio.zone).map(({ day, holiday }) => ({
      day,
      name: holiday.name,
    })),
  };
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
  const start = DateTime.fromISO(dayOf(visit), { zone: studio.zone });
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
