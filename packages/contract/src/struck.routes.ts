import { many, nothing, one, route, type } from './route.ts';
import type { Correction, Counts, ListSeen, PutBack, StruckLine, StruckQuery } from './struck.ts';
import { ALL, PLAYERS, TEACHERS } from './who.ts';

/** What was struck out, and what is new. */
export const struckRoutes = {
  struck: route({
    method: 'GET',
    path: '/struck',
    who: PLAYERS,
    of: 'query',
    does: 'lists what was struck out of a student’s songs, pieces, results, notes and series',
    query: type<StruckQuery>(),
    answer: many<StruckLine>(),
  }),
  putBack: route({
    method: 'POST',
    path: '/struck',
    who: PLAYERS,
    of: 'self',
    does: 'puts back what was struck out; results and notes by whoever wrote them',
    body: type<PutBack>(),
    answer: nothing,
  }),
  corrections: route({
    method: 'GET',
    path: '/corrections/:id',
    who: TEACHERS,
    of: 'studio',
    does: 'lists what was corrected of a person, or of a song and what is in it',
    answer: many<Correction>(),
  }),
  counts: route({
    method: 'GET',
    path: '/counts',
    who: ALL,
    of: 'self',
    does: 'counts what is new on each of one’s lists',
    answer: one<Counts>(),
  }),
  seeList: route({
    method: 'POST',
    path: '/counts',
    who: ALL,
    of: 'self',
    does: 'notes that one has looked at a list',
    body: type<ListSeen>(),
    answer: one<Counts>(),
  }),
} as const;
