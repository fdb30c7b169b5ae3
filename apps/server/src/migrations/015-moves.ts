import type { Migration } from './migration.ts';

/**
 * A phrase that refers to another may lie on other strings, and leave open strings as they are. A change of tempo may be one of key
 * as well.
 */
export const moves: Migration = {
  name: '015-moves',
  makes: 'phrases.moved_strings',
  up: `
    ALTER TABLE phrases RENAME COLUMN moved_frets TO moved_semitones;
    ALTER TABLE phrases
      ADD COLUMN moved_strings integer NOT NULL DEFAULT 0 CHECK (moved_strings BETWEEN -9 AND 9),
      ADD COLUMN open_stays boolean NOT NULL DEFAULT false;
    UPDATE transcriptions
    SET changes = (SELECT jsonb_agg(one || '{"key": ""}') FROM jsonb_array_elements(changes) AS one)
    WHERE jsonb_array_length(changes) > 0;
  `,
  down: `
    UPDATE transcriptions
    SET changes = (SELECT jsonb_agg(one - 'key') FROM jsonb_array_elements(changes) AS one)
    WHERE jsonb_array_length(changes) > 0;
    UPDATE phrases SET refers_to = NULL, moved_semitones = 0 WHERE moved_strings <> 0 OR open_stays;
    ALTER TABLE phrases DROP COLUMN moved_strings, DROP COLUMN open_stays;
    ALTER TABLE phrases RENAME COLUMN moved_semitones TO moved_frets;
  `,
};
