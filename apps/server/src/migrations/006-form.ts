import type { Migration } from './migration.ts';

/** Repeats, passes and jumps of sections; the whole set-up of a song; evidence, alternates and revisions of phrases. */
export const form: Migration = {
  name: '006-form',
  makes: 'phrase_revisions',
  up: `
    ALTER TABLE transcriptions
      ADD COLUMN second_key text NOT NULL DEFAULT '' CHECK (length(second_key) <= 24),
      ADD COLUMN feel text NOT NULL DEFAULT 'straight',
      ADD COLUMN changes jsonb NOT NULL DEFAULT '[]' CHECK (jsonb_typeof(changes) = 'array'),
      ADD COLUMN rig jsonb NOT NULL DEFAULT '[]' CHECK (jsonb_typeof(rig) = 'array'),
      ADD COLUMN scale_length_mm double precision NOT NULL DEFAULT 648 CHECK (scale_length_mm BETWEEN 300 AND 1000),
      ADD COLUMN song_seconds double precision CHECK (song_seconds BETWEEN 1 AND 7200),
      ADD COLUMN pitch_way text NOT NULL DEFAULT 'tune the guitar',
      ADD COLUMN student_layer text NOT NULL DEFAULT 'lead';
    ALTER TABLE sections
      ADD COLUMN times integer NOT NULL DEFAULT 1 CHECK (times BETWEEN 1 AND 99),
      ADD COLUMN open boolean NOT NULL DEFAULT false,
      ADD COLUMN passes jsonb NOT NULL DEFAULT '[]' CHECK (jsonb_typeof(passes) = 'array'),
      ADD COLUMN jump jsonb;
    ALTER TABLE phrases
      ADD COLUMN layer text NOT NULL DEFAULT 'lead',
      ADD COLUMN certainty text NOT NULL DEFAULT 'heard',
      ADD COLUMN reason text NOT NULL DEFAULT '' CHECK (length(reason) <= 200),
      ADD COLUMN status text NOT NULL DEFAULT 'draft' CHECK (status IN ('draft', 'checked', 'proven')),
      ADD COLUMN checked_by text NOT NULL DEFAULT '',
      ADD COLUMN checked_against text NOT NULL DEFAULT '' CHECK (length(checked_against) <= 200),
      ADD COLUMN checked_at timestamptz,
      ADD COLUMN alternate_of uuid,
      ADD COLUMN chosen boolean NOT NULL DEFAULT true,
      ADD COLUMN refers_to uuid,
      ADD COLUMN moved_frets integer NOT NULL DEFAULT 0 CHECK (moved_frets BETWEEN -36 AND 36),
      ADD FOREIGN KEY (studio_id, alternate_of) REFERENCES phrases (studio_id, id),
      ADD FOREIGN KEY (studio_id, refers_to) REFERENCES phrases (studio_id, id);
    CREATE INDEX phrases_by_reference ON phrases (studio_id, refers_to);
    CREATE TABLE phrase_revisions (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      line bigint GENERATED ALWAYS AS IDENTITY,
      studio_id uuid NOT NULL REFERENCES studios (id),
      version integer NOT NULL DEFAULT 1,
      phrase_id uuid NOT NULL,
      person_id uuid NOT NULL,
      at timestamptz NOT NULL,
      text text NOT NULL CHECK (length(text) <= 65536),
      FOREIGN KEY (studio_id, phrase_id) REFERENCES phrases (studio_id, id),
      FOREIGN KEY (studio_id, person_id) REFERENCES people (studio_id, id)
    );
    CREATE INDEX phrase_revisions_by_phrase ON phrase_revisions (studio_id, phrase_id, line);
  `,
  down: `
    DROP TABLE phrase_revisions;
    ALTER TABLE phrases DROP COLUMN layer, DROP COLUMN certainty, DROP COLUMN reason, DROP COLUMN status,
      DROP COLUMN checked_by, DROP COLUMN checked_against, DROP COLUMN checked_at, DROP COLUMN alternate_of,
      DROP COLUMN chosen, DROP COLUMN refers_to, DROP COLUMN moved_frets;
    ALTER TABLE sections DROP COLUMN times, DROP COLUMN open, DROP COLUMN passes, DROP COLUMN jump;
    ALTER TABLE transcriptions DROP COLUMN second_key, DROP COLUMN feel, DROP COLUMN changes, DROP COLUMN rig,
      DROP COLUMN scale_length_mm, DROP COLUMN song_seconds, DROP COLUMN pitch_way, DROP COLUMN student_layer;
    UPDATE transcriptions SET tuning = 'standard'
      WHERE tuning NOT IN ('standard', 'drop D', 'half step down', 'whole step down', 'D A D G A D', 'open G', 'open D');
  `,
};
