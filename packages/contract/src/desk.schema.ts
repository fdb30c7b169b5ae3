import Joi from 'joi';
import { SEARCH_LIMITS, type SearchQuery } from './desk.ts';
import { shape, typed } from './typed.ts';

/** Checks `SearchQuery`. */
export const searchQuerySchema = shape<SearchQuery>({
  q: typed<string>(
    Joi.string()
      .max(SEARCH_LIMITS.max)
      .custom((value: string, helpers) =>
        value.trim().length < SEARCH_LIMITS.min ? helpers.error('string.min', { limit: SEARCH_LIMITS.min }) : value,
      ),
  ),
});
