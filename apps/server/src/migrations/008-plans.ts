import type { Migration } from './migration.ts';

/** Pieces of every kind and their plan, schools of learning, parts of a piece played, notes pinned to events. */
export const plans: Migration = {
  name: '008-plans',
  makes: 'plans',
  up: `
    ALTER TABLE studios
      ADD COLUMN hearing text NOT NULL DEFAULT 'full speed first',
      ADD COLUMN learning text NOT NULL DEFAULT 'front to back',
      ADD COLUMN raising text NOT NULL DEFAULT 'small even steps';
    ALTER TABLE people ADD COLUMN hearing text, ADD COLUMN learning text, ADD COLUMN raising text;
    CREATE TABLE plans (
      id uuid PRIMARY KEY,
      studio_id uuid NOT NULL REFERENCES studios (id),
      version integer NOT NULL DEFAULT 1,
      learning text,
      raising text,
      target_percent integer NOT NULL DEFAULT 100 CHECK (target_percent BETWEEN 30 AND 120),
      clean_needed integer NOT NULL DEFAULT 2 CHECK (clean_needed BETWEEN 1 AND 6),
      falls_after integer NOT NULL DEFAULT 2 CHECK (falls_after BETWEEN 1 AND 6),
      rest_minutes integer NOT NULL DEFAULT 10 CHECK (rest_minutes BETWEEN 3 AND 15),
      FOREIGN KEY (studio_id, id) REFERENCES transcriptions (studio_id, id) ON DELETE CASCADE
    );
    ALTER TABLE pieces
      ADD COLUMN song_id uuid,
      ADD COLUMN kind text NOT NULL DEFAULT 'phrase' CHECK (kind IN ('drill', 'half', 'phrase', 'join', 'run')),
      ADD COLUMN parts jsonb NOT NULL DEFAULT '[]',
      ADD COLUMN cut text,
      ADD COLUMN place integer NOT NULL DEFAULT 0,
      ADD COLUMN fixed boolean NOT NULL DEFAULT false,
      ADD COLUMN floor_bpm integer CHECK (floor_bpm BETWEEN 20 AND 400),
      ADD COLUMN difficulty double precision CHECK (difficulty BETWEEN 0 AND 100),
      ADD COLUMN pace double precision,
      ALTER COLUMN assigned_on DROP NOT NULL;
    UPDATE pieces p
       SET parts = jsonb_build_array(jsonb_build_object('phraseId', p.phrase_id, 'from', 0, 'to', NULL)),
           cut = 'phrase ' || p.phrase_id || ':0-',
           song_id = c.transcription_id
      FROM phrases f JOIN sections c ON c.studio_id = f.studio_id AND c.id = f.section_id
     WHERE f.studio_id = p.studio_id AND f.id = p.phrase_id;
    ALTER TABLE pieces
      ALTER COLUMN song_id SET NOT NULL,
      ALTER COLUMN cut SET NOT NULL,
      ADD FOREIGN KEY (studio_id, song_id) REFERENCES transcriptions (studio_id, id);
    DROP INDEX one_piece_a_phrase;
    CREATE UNIQUE INDEX one_piece_a_cut ON pieces (student_id, md5(cut));
    CREATE INDEX pieces_by_song ON pieces (studio_id, song_id);
    CREATE INDEX pieces_by_pace ON pieces (studio_id, pace) WHERE pace IS NOT NULL;
    ALTER TABLE entries ADD COLUMN percent integer NOT NULL DEFAULT 100 CHECK (percent BETWEEN 1 AND 100);
    CREATE TABLE pins (
      id uuid PRIMARY KEY,
      studio_id uuid NOT NULL REFERENCES studios (id),
      version integer NOT NULL DEFAULT 1,
      phrase_id uuid NOT NULL,
      person_id uuid NOT NULL,
      at integer NOT NULL CHECK (at >= 0),
      text text NOT NULL CHECK (length(text) BETWEEN 1 AND 500),
      pinned_at timestamptz NOT NULL,
      struck boolean NOT NULL DEFAULT false,
      FOREIGN KEY (studio_id, phrase_id) REFERENCES phrases (studio_id, id),
      FOREIGN KEY (studio_id, person_id) REFERENCES people (studio_id, id)
    );
    CREATE INDEX pins_by_phrase ON pins (studio_id, phrase_id);
    -- Facts tell how long a phrase is from now on; those kept so far are gathered anew at the start.
    DELETE FROM phrase_facts;
    ALTER TABLE phrase_facts ADD COLUMN bars double precision NOT NULL;
  `,
  down: `
    ALTER TABLE phrase_facts DROP COLUMN bars;
    DROP TABLE pins;
    ALTER TABLE entries DROP COLUMN percent;
    DELETE FROM entries USING pieces p WHERE entries.piece_id = p.id AND (p.kind <> 'phrase' OR p.assigned_on IS NULL);
    DELETE FROM pieces WHERE kind <> 'phrase' OR assigned_on IS NULL;
    DROP INDEX one_piece_a_cut;
    DROP INDEX pieces_by_song;
    DROP INDEX pieces_by_pace;
    ALTER TABLE pieces
      DROP COLUMN song_id, DROP COLUMN kind, DROP COLUMN parts, DROP COLUMN cut, DROP COLUMN place, DROP COLUMN fixed,
      DROP COLUMN floor_bpm, DROP COLUMN difficulty, DROP COLUMN pace,
      ALTER COLUMN assigned_on SET NOT NULL;
    CREATE UNIQUE INDEX one_piece_a_phrase ON pieces (student_id, phrase_id);
    DROP TABLE plans;
    ALTER TABLE people DROP COLUMN hearing, DROP COLUMN learning, DROP COLUMN raising;
    ALTER TABLE studios DROP COLUMN hearing, DROP COLUMN learning, DROP COLUMN raising;
  `,
};
