import type { EntriesBody, EntriesBrought, EntriesQuery, EntriesStruck, EntryRow } from './entries.ts';
import { many, nothing, one, route, type } from './route.ts';
import { ALL, TEACHERS } from './who.ts';

/** Results as a table, out and in. */
export const entriesRoutes = {
  entries: route({
    method: 'GET',
    path: '/entries',
    who: ALL,
    of: 'query',
    does: 'lists all results of a student, the newest first',
    query: type<EntriesQuery>(),
    answer: many<EntryRow>(),
  }),
  bringEntries: route({
    method: 'POST',
    path: '/entries',
    who: TEACHERS,
    of: 'studio',
    does: 'brings results of an older book in, in ink, all or none',
    body: type<EntriesBody>(),
    answer: one<EntriesBrought>(),
    creates: true,
  }),
  strikeEntries: route({
    method: 'POST',
    path: '/entries/struck',
    who: TEACHERS,
    of: 'self',
    does: 'strikes results out together that one posted oneself, or puts them back',
    body: type<EntriesStruck>(),
    answer: nothing,
  }),
} as const;
