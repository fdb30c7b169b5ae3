import type { RequestHours, SongRequest } from '@jam-ledger/contract';
import type { Cell } from '@jam-ledger/core/formats';

/** Headings of the requests as a table; the last two are those of the work, where whoever looks may see it. */
export const REQUEST_HEADINGS = [
  ...['asked on', 'student', 'title', 'part', 'state', 'wanted', 'not wanted', 'agreed', 'promised for'],
  ...['estimated minutes', 'spent minutes'],
] as const;

/** The requests as a table, with what each takes and took. */
export function requestRows(
  requests: readonly SongRequest[],
  hours: RequestHours | undefined,
): readonly (readonly Cell[])[] {
  const works = new Map(hours?.works.map((work) => [work.id, work]));
  return requests.map(({ id, askedAt, student, title, part, state, wanted, notWanted, scope, promisedFor }) => {
    const work = works.get(id);
    return [
      ...[askedAt.slice(0, 10), student.name, title, part, state, wanted.join(', '), notWanted.join(', '), scope],
      ...[promisedFor, work ? Math.round(work.estimate.minutes) : null, work ? Math.round(work.spentMinutes) : null],
    ];
  });
}
