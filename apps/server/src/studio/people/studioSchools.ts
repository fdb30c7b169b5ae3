import type { StudioSchools } from '@jam-ledger/contract';
import { checkHolidays } from '@jam-ledger/core/series';
import { findStudio, forgetStandings, saveStudio } from '../../store/index.ts';
import { trace } from '../book/trail.ts';
import { Conflict, Invalid } from '../context/errors.ts';
import { type RequestContext } from '../context/context.ts';
import { orNotFound } from '../context/rows.ts';
import { rebuildLessons } from '../series/series.ts';
import { schoolsOf } from './students.ts';
import { checkZone } from './zone.ts';

/** How the studio teaches where teachers differ. @throws Forbidden for a student. */
export async function showSchools(context: RequestContext): Promise<StudioSchools> {
  const row = orNotFound((await findStudio(context.store, context.studio.id)) ?? undefined);
  const { version, name, workMinutes, zone, holidays } = row;
  return { version, name, workMinutes, zone, holidays, ...schoolsOf(row) };
}

/**
 * Changes how the studio teaches, its zone and its holidays; lessons are laid anew where those change. Only its owner does that.
 * @throws Forbidden, Conflict, Invalid
 */
export async function changeSchools(
  context: RequestContext,
  { version, ...changes }: StudioSchools,
): Promise<StudioSchools> {
  const { zone, holidays, raising } = changes;
  const problems = [...checkZone(zone), ...checkHolidays(holidays)];
  if (problems.length > 0) throw new Invalid(problems);
  const { store, studio } = context;
  const before = await showSchools(context);
  if (!(await saveStudio(store, { id: studio.id, version }, changes))) throw new Conflict(before);
  if (changes.name !== before.name) await trace(context, 'renamed the studio');
  const isLaidAnew = zone !== before.zone || JSON.stringify(holidays) !== JSON.stringify(before.holidays);
  if (isLaidAnew) await rebuildLessons({ ...context, studio: { ...studio, zone, holidays } });
  // Days of results are days of the zone.
  if (raising !== before.raising || zone !== before.zone) await forgetStandings(store, studio.id, {});
  return showSchools(context);
}
