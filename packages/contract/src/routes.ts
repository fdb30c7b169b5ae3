import { sessionRoutes } from './session.routes.ts';
import { beginningRoutes } from './beginning.routes.ts';
import { peopleRoutes } from './people.routes.ts';
import { requestsRoutes } from './requests.routes.ts';
import { songsRoutes } from './songs.routes.ts';
import { piecesRoutes } from './pieces.routes.ts';
import { bookRoutes } from './book.routes.ts';
import { copiesRoutes } from './copies.routes.ts';
import { struckRoutes } from './struck.routes.ts';
import { calendarRoutes } from './calendar.routes.ts';
import { entriesRoutes } from './entries.routes.ts';
import { soundsRoutes } from './sounds.routes.ts';
import { lessonsRoutes } from './lessons.routes.ts';
import type { AnswerOf, InputOf } from './route.ts';

/** Every route of the server, by what it is for: the one list of what can be asked, by whom, and what comes back. */
export const ROUTES = {
  ...sessionRoutes,
  ...beginningRoutes,
  ...peopleRoutes,
  ...requestsRoutes,
  ...songsRoutes,
  ...piecesRoutes,
  ...entriesRoutes,
  ...lessonsRoutes,
  ...calendarRoutes,
  ...bookRoutes,
  ...copiesRoutes,
  ...struckRoutes,
  ...soundsRoutes,
} as const;

/** The name of a route. */
export type RouteName = keyof typeof ROUTES;
/** All of them. */
export const ROUTE_NAMES = Object.keys(ROUTES) as readonly RouteName[];
/** What is given with a route by name. */
export type Input<Name extends RouteName> = InputOf<(typeof ROUTES)[Name]>;
/** The same as the server has it: a query is there, though perhaps empty. */
export type Given<Name extends RouteName> = Required<Input<Name>>;
/** What a route answers by name. */
export type Answer<Name extends RouteName> = AnswerOf<(typeof ROUTES)[Name]>;
