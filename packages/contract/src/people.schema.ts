import Joi from 'joi';
import {
  ENTERED_ROLES,
  PEOPLE_LIMITS,
  type Acceptance,
  type OwnNames,
  type PasswordChange,
  type PersonBody,
  type PersonChange,
  type StudentsBody,
} from './people.ts';
import { SIGN_IN_LIMITS } from './session.ts';
import { flag, id, line, list, oneOf, optional, orNull, shape, typed, version } from './typed.ts';

/** An address for mail, as long as one may be (RFC 5321, section 4.5.3.1.3, less its brackets). */
const emailAddress = () => typed<string>(Joi.string().email({ tlds: false }).max(PEOPLE_LIMITS.email));

const wards = () => list(id(), { max: PEOPLE_LIMITS.wards, unique: true });

/** Checks `PersonBody`. */
export const personSchema = shape<PersonBody>({
  role: oneOf(ENTERED_ROLES),
  name: line(PEOPLE_LIMITS.name),
  wards: wards(),
});

/** Checks `StudentsBody`. */
export const studentsSchema = shape<StudentsBody>({
  names: list(line(PEOPLE_LIMITS.name), { min: 1, max: PEOPLE_LIMITS.together }),
});

/** Checks `PersonChange`. */
export const personChangeSchema = shape<PersonChange>({
  version: version(),
  name: line(PEOPLE_LIMITS.name),
  wards: wards(),
  teacherId: orNull(id()),
  archived: flag(),
  email: optional(orNull(emailAddress())),
  role: optional(oneOf(['owner', 'teacher'])),
});

/** A password that somebody chooses. */
export const chosenPassword = () =>
  typed<string>(Joi.string().min(PEOPLE_LIMITS.password).max(SIGN_IN_LIMITS.password));

/** Checks `Acceptance`. */
export const acceptanceSchema = shape<Acceptance>({
  signInName: line(SIGN_IN_LIMITS.name),
  password: chosenPassword(),
});

/** Checks `OwnNames`. */
export const ownNamesSchema = shape<OwnNames>({
  name: line(PEOPLE_LIMITS.name),
  signInName: line(SIGN_IN_LIMITS.name),
  password: typed<string>(Joi.string().min(1).max(SIGN_IN_LIMITS.password)),
});

/** Checks `PasswordChange`. */
export const passwordChangeSchema = shape<PasswordChange>({
  old: typed<string>(Joi.string().min(1).max(SIGN_IN_LIMITS.password)),
  password: chosenPassword(),
});

/** The token of an invitation, in the path: 32 bytes as base64url. */
export const token = () => typed<string>(Joi.string().pattern(/^[A-Za-z0-9_-]{43}$/));
