import type { Beginning, BeginningBody } from './beginning.ts';
import type { Me } from './session.ts';
import { one, route, type } from './route.ts';

/** A studio of one’s own is begun. */
export const beginningRoutes = {
  beginning: route({
    method: 'GET',
    path: '/beginning',
    who: 'anybody',
    of: 'studio',
    does: 'tells whether a studio of one’s own can be begun here',
    answer: one<Beginning>(),
  }),
  begin: route({
    method: 'POST',
    path: '/beginning',
    who: 'anybody',
    of: 'self',
    does: 'begins a studio of one’s own with the key of the start command, once; the demo studio goes',
    body: type<BeginningBody>(),
    answer: one<Me>(),
  }),
} as const;
