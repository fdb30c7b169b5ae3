import { api } from '../api/index.ts';
import { useGoals } from '../handouts/goals.ts';
import { usePeople } from '../people/people.ts';
import { useSession } from '../session/index.ts';

/**
 * Asks for everything that a student’s pages read, so that it lies on this device when the line is cut: their ledger, every piece
 * with its takes, the handout of every song, lessons, series and requests. One after the other, so that nobody waits for it; what
 * fails is asked for when its page is opened.
 */
export async function keepPages(): Promise<void> {
  const [people, goals, session] = [usePeople(), useGoals(), useSession()];
  const [{ pieces }, { series }] = [await api.ledger({ query: {} }), await people.home()];
  const songs = new Set(pieces.map(({ song }) => song.id));
  const asked: (() => Promise<unknown>)[] = [
    () => api.requests(),
    () => api.entries({ query: {} }),
    () => goals.linesFor('', []),
    ...pieces.flatMap(({ id }) => [() => api.piece({ id }), () => api.takes({ id })]),
    ...[...songs].map((id) => () => api.sheet({ id })),
    ...series.map(
      ({ id }) =>
        () =>
          api.seriesReport({ id }),
    ),
  ];
  for (const ask of asked) {
    if (session.isCut) return;
    await ask().catch(() => undefined);
  }
}
