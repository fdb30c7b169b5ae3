/** The name of the session cookie. */
export const SESSION_COOKIE = 'jam.sid';
