import { createHash, randomBytes } from 'node:crypto';

/** A secret of 32 bytes made by chance, as it stands in a link. */
export function makeToken(): string {
  return randomBytes(32).toString('base64url');
}

/** What is kept of a token. They are long and made by chance, so that a plain digest keeps them. */
export function digestOf(token: string): string {
  return createHash('sha256').update(token).digest('hex');
}
