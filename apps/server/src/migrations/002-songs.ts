import type { Migration } from './migration.ts';

/** Requests, transcriptions, sections, phrases. A row never points out of its studio. */
export const songs: Migration = {
  name: '002-songs',
  makes: 'phrases',
  up: `
    CREATE TABLE requests (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      studio_id uuid NOT NULL REFERENCES studios (id),
      version integer NOT NULL DEFAULT 1,
      student_id uuid NOT NULL,
      title text NOT NULL CHECK (length(title) BETWEEN 1 AND 120),
      whose text NOT NULL CHECK (length(whose) <= 120),
      parts_wanted text NOT NULL CHECK (length(parts_wanted) BETWEEN 1 AND 500),
      parts_not_wanted text NOT NULL CHECK (length(parts_not_wanted) <= 500),
      wanted_by date,
      remarks text NOT NULL CHECK (length(remarks) <= 2000),
      state text NOT NULL DEFAULT 'asked' CHECK (state IN ('asked', 'accepted', 'declined', 'withdrawn')),
      asked_at timestamptz NOT NULL,
      UNIQUE (studio_id, id),
      FOREIGN KEY (studio_id, student_id) REFERENCES people (studio_id, id)
    );
    CREATE INDEX requests_by_student ON requests (studio_id, student_id);
    CREATE TABLE transcriptions (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      studio_id uuid NOT NULL REFERENCES studios (id),
      version integer NOT NULL DEFAULT 1,
      student_id uuid NOT NULL,
      request_id uuid NOT NULL UNIQUE,
      title text NOT NULL CHECK (length(title) BETWEEN 1 AND 120),
      whose text NOT NULL CHECK (length(whose) <= 120),
      tuning text NOT NULL,
      capo integer NOT NULL CHECK (capo BETWEEN 0 AND 12),
      key text NOT NULL CHECK (length(key) <= 24),
      tempo double precision NOT NULL CHECK (tempo BETWEEN 20 AND 400),
      meter text NOT NULL CHECK (meter ~ '^[0-9]{1,2}/[0-9]{1,2}$'),
      frets integer NOT NULL CHECK (frets BETWEEN 12 AND 36),
      offset_cents double precision NOT NULL CHECK (offset_cents BETWEEN -100 AND 100),
      UNIQUE (studio_id, id),
      FOREIGN KEY (studio_id, student_id) REFERENCES people (studio_id, id),
      FOREIGN KEY (studio_id, request_id) REFERENCES requests (studio_id, id)
    );
    CREATE INDEX transcriptions_by_student ON transcriptions (studio_id, student_id);
    CREATE TABLE sections (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      studio_id uuid NOT NULL REFERENCES studios (id),
      version integer NOT NULL DEFAULT 1,
      transcription_id uuid NOT NULL,
      label text NOT NULL CHECK (length(label) BETWEEN 1 AND 24),
      role text NOT NULL,
      start_seconds double precision NOT NULL CHECK (start_seconds BETWEEN 0 AND 7200),
      bars integer NOT NULL CHECK (bars BETWEEN 1 AND 999),
      struck boolean NOT NULL DEFAULT false,
      UNIQUE (studio_id, id),
      FOREIGN KEY (studio_id, transcription_id) REFERENCES transcriptions (studio_id, id)
    );
    CREATE INDEX sections_by_transcription ON sections (studio_id, transcription_id);
    CREATE TABLE phrases (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      studio_id uuid NOT NULL REFERENCES studios (id),
      version integer NOT NULL DEFAULT 1,
      section_id uuid NOT NULL,
      place integer NOT NULL,
      name text NOT NULL CHECK (length(name) BETWEEN 1 AND 80),
      text text NOT NULL CHECK (length(text) <= 65536),
      struck boolean NOT NULL DEFAULT false,
      UNIQUE (studio_id, id),
      FOREIGN KEY (studio_id, section_id) REFERENCES sections (studio_id, id)
    );
    CREATE INDEX phrases_by_section ON phrases (studio_id, section_id);
  `,
  down: `
    DROP TABLE phrases;
    DROP TABLE sections;
    DROP TABLE transcriptions;
    DROP TABLE requests;
  `,
};
