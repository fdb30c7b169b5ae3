import Joi from 'joi';
import { MAX_BACKUP_NAME, type ErasureBody, type Restoring } from './book.ts';
import { PEOPLE_LIMITS } from './people.ts';
import { SIGN_IN_LIMITS } from './session.ts';
import { asText, line, optional, shape, typed, version, whole } from './typed.ts';

/** The name of a backup’s file: nothing that leads out of its folder. */
export const backupFile = () =>
  typed<string>(
    Joi.string()
      .max(MAX_BACKUP_NAME)
      .pattern(/^[a-z0-9][a-z0-9-]*\.zip$/),
  );

/** Checks `Restoring`. */
export const restoringSchema = shape<Restoring>({
  file: backupFile(),
  password: typed<string>(Joi.string().min(1).max(SIGN_IN_LIMITS.password)),
});

/** Checks `ErasureBody`. */
export const erasureSchema = shape<ErasureBody>({ version: version(), name: line(PEOPLE_LIMITS.name) });

/** Checks the query of the trail. */
export const trailQuerySchema = shape<{ readonly before?: number }>({
  before: optional(asText(whole({ min: 1, max: Number.MAX_SAFE_INTEGER }))),
});

/** Checks the query of everything of one person. */
export const everythingQuerySchema = shape<{ readonly studentId?: string }>({
  studentId: optional(typed<string>(Joi.string().guid())),
});
