import type { Migration } from './migration.ts';

/** Sound: the recording of a song, and takes of pieces; its bytes in parts that go with it; how strictly a take is heard. */
export const sounds: Migration = {
  name: '020-sounds',
  makes: 'sounds',
  up: `
    CREATE TABLE sounds (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      studio_id uuid NOT NULL REFERENCES studios (id),
      version integer NOT NULL DEFAULT 1,
      kind text NOT NULL CHECK (kind IN ('recording', 'take')),
      student_id uuid NOT NULL,
      person_id uuid NOT NULL,
      song_id uuid,
      piece_id uuid,
      name text NOT NULL,
      type text NOT NULL,
      bytes integer NOT NULL CHECK (bytes > 0),
      seconds double precision NOT NULL,
      print text NOT NULL,
      made_at timestamptz NOT NULL,
      played_at timestamptz,
      bpm double precision,
      is_clean boolean NOT NULL DEFAULT false,
      came text NOT NULL DEFAULT '',
      answer text NOT NULL DEFAULT '',
      goes_on date,
      UNIQUE (studio_id, id),
      UNIQUE (song_id),
      CHECK ((kind = 'recording') = (song_id IS NOT NULL) AND (kind = 'take') = (piece_id IS NOT NULL)),
      FOREIGN KEY (studio_id, student_id) REFERENCES people (studio_id, id),
      FOREIGN KEY (studio_id, person_id) REFERENCES people (studio_id, id),
      FOREIGN KEY (studio_id, song_id) REFERENCES transcriptions (studio_id, id),
      FOREIGN KEY (studio_id, piece_id) REFERENCES pieces (studio_id, id)
    );
    CREATE INDEX sounds_by_piece ON sounds (studio_id, piece_id, played_at);
    CREATE INDEX sounds_by_day ON sounds (goes_on) WHERE goes_on IS NOT NULL;
    CREATE TABLE sound_parts (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      studio_id uuid NOT NULL REFERENCES studios (id),
      version integer NOT NULL DEFAULT 1,
      sound_id uuid NOT NULL,
      part integer NOT NULL CHECK (part >= 0),
      data bytea NOT NULL,
      UNIQUE (studio_id, id),
      UNIQUE (sound_id, part),
      FOREIGN KEY (studio_id, sound_id) REFERENCES sounds (studio_id, id) ON DELETE CASCADE
    );
    ALTER TABLE sound_parts ALTER COLUMN data SET STORAGE EXTERNAL;
    ALTER TABLE studios ADD COLUMN clean text NOT NULL DEFAULT 'nine in ten';
    ALTER TABLE people ADD COLUMN clean text;
  `,
  down: `
    ALTER TABLE people DROP COLUMN clean;
    ALTER TABLE studios DROP COLUMN clean;
    DROP TABLE sound_parts;
    DROP TABLE sounds;
  `,
};
