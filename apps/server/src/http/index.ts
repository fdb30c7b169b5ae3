export { refuse } from './errors.ts';
export { keptNowhere, knowCaller, sameOriginOnly } from './guards.ts';
export { inTurns } from './inTurns.ts';
export { openApiPage } from './openApi.ts';
export { routerOf } from './router.ts';
export { SESSION_COOKIE } from './sessionCookie.ts';
