import type { Migration } from './migration.ts';

/** Practice pieces and the entries posted for them. */
export const pieces: Migration = {
  name: '003-pieces',
  makes: 'entries',
  up: `
    CREATE TABLE pieces (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      studio_id uuid NOT NULL REFERENCES studios (id),
      version integer NOT NULL DEFAULT 1,
      student_id uuid NOT NULL,
      phrase_id uuid NOT NULL,
      start_bpm integer NOT NULL CHECK (start_bpm BETWEEN 20 AND 400),
      target_bpm integer NOT NULL CHECK (target_bpm BETWEEN 20 AND 400),
      assigned_on date NOT NULL,
      struck boolean NOT NULL DEFAULT false,
      UNIQUE (studio_id, id),
      CHECK (start_bpm <= target_bpm),
      FOREIGN KEY (studio_id, student_id) REFERENCES people (studio_id, id),
      FOREIGN KEY (studio_id, phrase_id) REFERENCES phrases (studio_id, id)
    );
    CREATE UNIQUE INDEX one_piece_a_phrase ON pieces (student_id, phrase_id);
    CREATE INDEX pieces_by_student ON pieces (studio_id, student_id);
    CREATE TABLE entries (
      id uuid PRIMARY KEY,
      studio_id uuid NOT NULL REFERENCES studios (id),
      version integer NOT NULL DEFAULT 1,
      piece_id uuid NOT NULL,
      posted_by uuid NOT NULL,
      bpm integer NOT NULL CHECK (bpm BETWEEN 20 AND 400),
      outcome text NOT NULL CHECK (outcome IN ('clean', 'not-yet')),
      medium text NOT NULL CHECK (medium IN ('pencil', 'ink')),
      remark text NOT NULL CHECK (length(remark) <= 500),
      posted_at timestamptz NOT NULL,
      line bigint GENERATED ALWAYS AS IDENTITY,
      struck boolean NOT NULL DEFAULT false,
      FOREIGN KEY (studio_id, piece_id) REFERENCES pieces (studio_id, id),
      FOREIGN KEY (studio_id, posted_by) REFERENCES people (studio_id, id)
    );
    CREATE INDEX entries_by_piece ON entries (studio_id, piece_id, posted_at, line);
  `,
  down: `
    DROP TABLE entries;
    DROP TABLE pieces;
  `,
};
