import { holidayAnswer } from './standings.answers.ts';
import { ROLES, type Health, type Me } from './session.ts';
import { FIDELITY_SCHOOLS, NAMING_SCHOOLS } from './schools.ts';
import { anyText, flag, id, list, named, oneOf, orNull, shape, type SchemaOf } from './typed.ts';

/** Checks `Health` as it is answered. */
export const healthAnswer: SchemaOf<Health> = shape<Health>({
  database: oneOf(['up', 'down']),
  migration: orNull(anyText()),
});

/** Checks `Me` as it is answered. */
export const meAnswer: SchemaOf<Me> = shape<Me>({
  id: id(),
  name: anyText(),
  signInName: anyText(),
  role: oneOf(ROLES),
  studio: shape<Me['studio']>({
    name: anyText(),
    demo: flag(),
    zone: anyText(),
    today: anyText(),
    holidays: list(holidayAnswer),
  }),
  taught: orNull(
    shape<NonNullable<Me['taught']>>({
      naming: oneOf(NAMING_SCHOOLS),
      fidelity: oneOf(FIDELITY_SCHOOLS),
    }),
  ),
  wards: list(named()),
});
