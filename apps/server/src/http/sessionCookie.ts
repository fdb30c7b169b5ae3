import type { Request } from 'express';

/** The name of the session cookie. */
export const SESSION_COOKIE = 'jam.sid';

/** The cookie by which a browser is known again; it opens nothing. */
export const DEVICE_COOKIE = 'jam.device';
/** How it is kept: 400 days, the longest that browsers allow (RFC 6265bis, section 5.5). */
export const DEVICE = { httpOnly: true, sameSite: 'strict', maxAge: 400 * 24 * 60 * 60 * 1000, path: '/api' } as const;

/** What the browser that asks keeps to be known again; undefined where it keeps nothing that is ours. */
export function deviceOf(request: Request): string | undefined {
  const pair = (request.headers.cookie ?? '').split(/; */).find((one) => one.startsWith(`${DEVICE_COOKIE}=`));
  const token = pair?.slice(DEVICE_COOKIE.length + 1);
  return token !== undefined && /^[A-Za-z0-9_-]{43}$/.test(token) ? token : undefined;
}
