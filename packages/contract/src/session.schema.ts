import Joi from 'joi';
import { SIGN_IN_LIMITS, type SignIn } from './session.ts';
import { shape, typed } from './typed.ts';

/** Checks `SignIn`. */
export const signInSchema = shape<SignIn>({
  name: typed<string>(Joi.string().min(1).max(SIGN_IN_LIMITS.name)),
  password: typed<string>(Joi.string().min(1).max(SIGN_IN_LIMITS.password)),
});
