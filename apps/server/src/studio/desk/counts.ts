import type { CountedList, Counts } from '@jam-ledger/contract';
import { findCounts, NOTES_MS, seeList } from '../../store/index.ts';
import { teaches, visibleStudents, type RequestContext } from '../context/context.ts';

/** What is new on each list of whoever asks; what is older than a while is news to nobody. */
export function showCounts(context: RequestContext): Promise<Counts> {
  const { store, studio, person, now } = context;
  return findCounts(store, studio.id, {
    personId: person.id,
    isTeacher: teaches(context),
    teacherId: person.role === 'teacher' ? person.id : null,
    studentIds: visibleStudents(context) ?? [],
    since: new Date(now.getTime() - NOTES_MS),
  });
}

/** Notes that whoever asks has looked at a list; what is still new. */
export async function markSeen(context: RequestContext, list: CountedList): Promise<Counts> {
  const { store, studio, person, now } = context;
  await seeList(store, studio.id, { personId: person.id, list, now });
  return showCounts(context);
}
