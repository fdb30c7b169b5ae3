import type { Invitation, Mail, Person, PersonChanged, Welcome } from './people.ts';
import { ROLES } from './session.ts';
import { anyNumber, anyText, flag, id, list, named, oneOf, orNull, shape, type SchemaOf } from './typed.ts';

/** Checks `Welcome` as it is answered. */
export const welcomeAnswer: SchemaOf<Welcome> = shape<Welcome>({
  name: anyText(),
  studio: anyText(),
  role: oneOf(ROLES),
  signInName: anyText(),
});

/** Checks `Person` as it is answered. */
export const personAnswer: SchemaOf<Person> = shape<Person>({
  id: id(),
  version: anyNumber(),
  name: anyText(),
  role: oneOf(ROLES),
  signsIn: flag(),
  invitedUntil: orNull(anyText()),
  archived: flag(),
  wards: list(named()),
  teacher: orNull(named()),
  email: orNull(anyText()),
  eraseOn: orNull(anyText()),
  lessonsToCome: anyNumber(),
});

/** Checks `PersonChanged` as it is answered. */
export const personChangedAnswer: SchemaOf<PersonChanged> = shape<PersonChanged>({
  person: personAnswer,
  ended: list(anyText()),
});

/** Checks `Invitation` as it is answered. */
export const invitationAnswer: SchemaOf<Invitation> = shape<Invitation>({
  path: anyText(),
  expiresAt: anyText(),
});

/** Checks `Mail` as it is answered. */
export const mailAnswer: SchemaOf<Mail> = shape<Mail>({
  id: id(),
  to: anyText(),
  subject: anyText(),
  body: anyText(),
  at: anyText(),
});
