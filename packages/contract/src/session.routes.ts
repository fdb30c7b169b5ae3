import type { Acceptance, OwnNames, PasswordChange, Welcome } from './people.ts';
import type { Health, Me, SignIn } from './session.ts';
import { nothing, one, oneOrNone, route, type } from './route.ts';
import { ALL } from './who.ts';

/** Who is signed in, and how they come in. */
export const sessionRoutes = {
  health: route({
    method: 'GET',
    path: '/health',
    who: 'anybody',
    of: 'studio',
    does: 'tells whether the server is well',
    answer: one<Health>(),
  }),
  openApi: route({
    method: 'GET',
    path: '/openapi.json',
    who: ALL,
    of: 'studio',
    does: 'describes these routes for programs',
    answer: one<object>(),
  }),
  me: route({
    method: 'GET',
    path: '/session',
    who: 'anybody',
    of: 'self',
    does: 'tells who is signed in; nothing for nobody',
    answer: oneOrNone<Me>(),
  }),
  signIn: route({
    method: 'POST',
    path: '/session',
    who: 'anybody',
    of: 'self',
    does: 'signs in',
    body: type<SignIn>(),
    answer: one<Me>(),
  }),
  signOut: route({
    method: 'DELETE',
    path: '/session',
    who: 'anybody',
    of: 'self',
    does: 'signs out',
    answer: nothing,
  }),
  signOutEverywhere: route({
    method: 'DELETE',
    path: '/session/everywhere',
    who: ALL,
    of: 'self',
    does: 'signs out everywhere, and forgets one’s devices',
    answer: nothing,
  }),
  changeNames: route({
    method: 'PUT',
    path: '/session',
    who: ALL,
    of: 'self',
    does: 'changes one’s own name and the one to sign in with',
    body: type<OwnNames>(),
    answer: one<Me>(),
  }),
  changePassword: route({
    method: 'PUT',
    path: '/password',
    who: ALL,
    of: 'self',
    does: 'changes one’s own password and ends all other sessions',
    body: type<PasswordChange>(),
    answer: nothing,
  }),
  welcome: route({
    method: 'GET',
    path: '/invitations/:token',
    who: 'anybody',
    of: 'self',
    does: 'tells who is invited, to whoever has the link',
    answer: one<Welcome>(),
  }),
  accept: route({
    method: 'POST',
    path: '/invitations/:token',
    who: 'anybody',
    of: 'self',
    does: 'takes an invitation: a name and a password are chosen',
    body: type<Acceptance>(),
    answer: nothing,
  }),
} as const;
