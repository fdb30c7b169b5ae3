import type {
  Earliest,
  EarliestQuery,
  RequestBody,
  RequestHours,
  RequestMove,
  RequestPromiseBody,
  SongRequest,
  WorkAction,
} from './requests.ts';
import { many, one, route, type } from './route.ts';
import { ALL, PLAYERS, TEACHERS } from './who.ts';

/** What is asked for. */
export const requestsRoutes = {
  requests: route({
    method: 'GET',
    path: '/requests',
    who: ALL,
    of: 'self',
    does: 'lists requests',
    answer: many<SongRequest>(),
  }),
  askForSong: route({
    method: 'POST',
    path: '/requests',
    who: PLAYERS,
    of: 'self',
    does: 'asks for a song, or for more of one; a teacher writes down what a student asked for',
    body: type<RequestBody>(),
    answer: one<SongRequest>(),
    creates: true,
  }),
  hours: route({
    method: 'GET',
    path: '/requests/hours',
    who: TEACHERS,
    of: 'studio',
    does: 'tells what the requests take, and the timer of whoever asks',
    answer: one<RequestHours>(),
  }),
  earliest: route({
    method: 'GET',
    path: '/requests/earliest',
    who: ALL,
    of: 'studio',
    does: 'tells the earliest day for a request as it is typed',
    query: type<EarliestQuery>(),
    answer: one<Earliest>(),
  }),
  timeWork: route({
    method: 'POST',
    path: '/requests/:id/work',
    who: TEACHERS,
    of: 'studio',
    does: 'starts and stops the timer of a request',
    body: type<WorkAction>(),
    answer: one<RequestHours>(),
  }),
  promise: route({
    method: 'POST',
    path: '/requests/:id/promise',
    who: TEACHERS,
    of: 'studio',
    does: 'promises a request for a day, or takes that back',
    body: type<RequestPromiseBody>(),
    answer: one<SongRequest>(),
  }),
  moveRequest: route({
    method: 'POST',
    path: '/requests/:id/state',
    who: PLAYERS,
    of: 'request',
    does: 'brings a request into another state; a student withdraws',
    body: type<RequestMove>(),
    answer: one<SongRequest>(),
  }),
} as const;
