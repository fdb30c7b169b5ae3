import type { SignIn } from './session.ts';

/** Longest key, characters. */
export const MAX_KEY = 64;

/** Whether a studio of one’s own can be begun here, and whether the demo studio is what is here so far. */
export interface Beginning {
  readonly open: boolean;
  readonly demo: boolean;
}

/** The first page of a studio of one’s own: what it is called, where it is, and who owns it. */
export interface BeginningBody {
  /** The key that the start command told. */
  readonly key: string;
  readonly studio: string;
  /** The time zone of its walls, as the tz database names it. */
  readonly zone: string;
  /** The owner’s own name. */
  readonly name: string;
  readonly signInName: SignIn['name'];
  readonly password: SignIn['password'];
}
