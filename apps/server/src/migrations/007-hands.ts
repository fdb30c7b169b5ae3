import type { Migration } from './migration.ts';

/** Guitars and hands of students, how the studio teaches, and what phrases can be found by. */
export const hands: Migration = {
  name: '007-hands',
  makes: 'phrase_facts',
  up: `
    ALTER TABLE people
      ADD COLUMN strings integer NOT NULL DEFAULT 6 CHECK (strings BETWEEN 4 AND 9),
      ADD COLUMN scale_length_mm double precision NOT NULL DEFAULT 648 CHECK (scale_length_mm BETWEEN 300 AND 1000),
      ADD COLUMN tremolo_arm boolean NOT NULL DEFAULT false,
      ADD COLUMN left_handed boolean NOT NULL DEFAULT false,
      ADD COLUMN span_frets integer CHECK (span_frets BETWEEN 2 AND 9),
      ADD COLUMN picking text,
      ADD COLUMN position text,
      ADD COLUMN first text;
    ALTER TABLE studios
      ADD COLUMN picking text NOT NULL DEFAULT 'the player’s choice',
      ADD COLUMN position text NOT NULL DEFAULT 'as recorded',
      ADD COLUMN first text NOT NULL DEFAULT 'where first';
    ALTER TABLE phrases DROP CONSTRAINT phrases_reason_check, ADD CONSTRAINT phrases_reason_check CHECK (length(reason) <= 1000);
    CREATE TABLE phrase_facts (
      id uuid PRIMARY KEY,
      studio_id uuid NOT NULL REFERENCES studios (id),
      version integer NOT NULL DEFAULT 1,
      techniques text[] NOT NULL,
      chords text[] NOT NULL,
      degrees text NOT NULL,
      shape text NOT NULL,
      steps text NOT NULL,
      grams text[] NOT NULL,
      lowest_fret integer NOT NULL,
      highest_fret integer NOT NULL,
      bpm double precision NOT NULL,
      FOREIGN KEY (studio_id, id) REFERENCES phrases (studio_id, id) ON DELETE CASCADE
    );
    CREATE INDEX phrase_facts_by_gram ON phrase_facts USING gin (grams);
    CREATE INDEX phrase_facts_by_technique ON phrase_facts USING gin (techniques);
    CREATE INDEX phrase_facts_by_studio ON phrase_facts (studio_id);
  `,
  down: `
    DROP TABLE phrase_facts;
    UPDATE phrases SET reason = left(reason, 200);
    ALTER TABLE phrases DROP CONSTRAINT phrases_reason_check, ADD CONSTRAINT phrases_reason_check CHECK (length(reason) <= 200);
    ALTER TABLE studios DROP COLUMN picking, DROP COLUMN position, DROP COLUMN first;
    ALTER TABLE people DROP COLUMN strings, DROP COLUMN scale_length_mm, DROP COLUMN tremolo_arm, DROP COLUMN left_handed,
      DROP COLUMN span_frets, DROP COLUMN picking, DROP COLUMN position, DROP COLUMN first;
  `,
};
