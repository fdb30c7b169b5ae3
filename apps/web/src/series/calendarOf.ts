import type { Me, Series } from '@jam-ledger/contract';
import { writeCalendar } from '@jam-ledger/core/series';

/** The lessons of a series as a calendar file, with the name of whom they are with, for the one who takes it. */
export function calendarOf(series: Series, studio: Me['studio'], now: Date): string {
  const { id, rule, changes, student, title } = series;
  return writeCalendar(
    [{ id, rule, changes: { ...changes, holidays: studio.holidays }, summary: `${title}, ${student.name}` }],
    { name: title, place: studio.name, zone: studio.zone, stamp: `${now.toISOString().slice(0, 19)}Z` },
  );
}
