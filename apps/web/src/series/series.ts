import type {
  Lesson,
  LessonDate,
  Readiness,
  Series,
  SeriesBody,
  SeriesLine,
  SeriesReport,
  Student,
} from '@jam-ledger/contract';
import { defineStore } from 'pinia';
import { ref } from 'vue';
import { api } from '../api/index.ts';

/** Lessons of other series are offered to change places with so many days ahead. Our choice. */
const SWAP_DAYS = 28;

/** The series of the studio, as far as they are listed, and the one that is open. */
export const useSeries = defineStore('series', () => {
  const lines = ref<readonly SeriesLine[]>();
  const total = ref(0);
  const students = ref<readonly Student[]>([]);
  const chosen = ref<Series>();
  /** Which was asked for last; an answer that comes after another was asked for is not shown. */
  let wanted: string | undefined;
  /** Lessons of all series in the coming days. */
  const coming = ref<readonly Lesson[]>([]);

  /** As many lines as are shown, and the series that is open, as they stand now. */
  async function load(): Promise<void> {
    const shown = Math.max(1, lines.value?.length ?? 0);
    const fresh: SeriesLine[] = [];
    do {
      const page = await api.seriesList({ query: { from: fresh.length } });
      total.value = page.total;
      fresh.push(...page.series);
    } while (fresh.length < Math.min(shown, total.value));
    lines.value = fresh;
    coming.value = await api.lessons({ query: { days: SWAP_DAYS } });
    await choose(fresh.some(({ id }) => id === wanted) ? wanted : fresh[0]?.id);
  }

  /** Opens the page, with one series chosen or the first; nothing of before is shown meanwhile. */
  async function open(id: string | undefined): Promise<void> {
    [lines.value, chosen.value, coming.value, wanted] = [undefined, undefined, [], undefined];
    const opening = id === undefined ? undefined : choose(id);
    [students.value] = await Promise.all([api.students(), opening]);
    await load();
  }

  async function more(): Promise<void> {
    const page = await api.seriesList({ query: { from: lines.value?.length ?? 0 } });
    total.value = page.total;
    lines.value = [...(lines.value ?? []), ...page.series];
  }

  async function choose(id: string | undefined): Promise<void> {
    wanted = id;
    const fresh = id === undefined ? undefined : await api.series({ id });
    if (wanted === id) chosen.value = fresh && !fresh.struck ? fresh : undefined;
  }

  async function begin(body: SeriesBody): Promise<Series> {
    const begun = await api.beginSeries({ body });
    [chosen.value, wanted] = [begun, begun.id];
    await load();
    return begun;
  }

  /** Changes a series, or ends it. */
  async function put(one: Series, to: Partial<SeriesBody>, struck = false): Promise<Series> {
    const kept = await api.changeSeries({ id: one.id, body: { ...bodyOf(one), ...to, version: one.version, struck } });
    await load();
    return kept;
  }

  /** Lets a lesson change places with one of another series; gives the way back. */
  async function swap(one: Series, lesson: LessonDate, other: Lesson): Promise<() => Promise<void>> {
    const side = ({ id, version }: Series, startsAt: string) => ({ seriesId: id, version, startsAt });
    const there = await api.series({ id: other.series.id });
    const theirs = there.lessons.find(({ day, time }) => day === other.day && time === other.time);
    if (!theirs) throw new Error('This lesson is not there any more; look again.');
    const [here, away] = await api.swapLessons({
      body: { lessons: [side(one, lesson.startsAt), side(there, theirs.startsAt)] },
    });
    await load();
    return async () => {
      if (!here || !away) return;
      await api.swapLessons({ body: { lessons: [side(here, theirs.startsAt), side(away, lesson.startsAt)] } });
      await load();
    };
  }

  function report(id: string): Promise<SeriesReport> {
    return api.seriesReport({ id });
  }

  /** The chance that what a series leads to is ready by its goal day; null where it has none. */
  async function readinessOf({ id, goalDay }: Series): Promise<Readiness | null> {
    return goalDay === null ? null : (await report(id)).readiness;
  }

  return {
    lines,
    total,
    students,
    chosen,
    coming,
    open,
    more,
    choose,
    begin,
    put,
    swap,
    report,
    readinessOf,
  };
});

/** What of a series is written in its form. */
export function bodyOf({ studentId, title, rule, changes, goal, goalDay, instalments }: SeriesBody): SeriesBody {
  return { studentId, title, rule, changes, goal, goalDay, instalments };
}
