import { MAX_KEY, type BeginningBody } from './beginning.ts';
import { PEOPLE_LIMITS } from './people.ts';
import { chosenPassword } from './people.schema.ts';
import { STUDIO_LIMITS } from './schools.ts';
import { SIGN_IN_LIMITS } from './session.ts';
import { line, shape } from './typed.ts';

/** Checks `BeginningBody`. */
export const beginningSchema = shape<BeginningBody>({
  key: line(MAX_KEY),
  studio: line(STUDIO_LIMITS.name),
  zone: line(STUDIO_LIMITS.zone),
  name: line(PEOPLE_LIMITS.name),
  signInName: line(SIGN_IN_LIMITS.name),
  password: chosenPassword(),
});
