import type { Migration } from './migration.ts';

/**
 * A book that is backed up, restored and let go of: who did what, whose devices are known, who was erased and the hours that were worked
 * for them, work on the book itself; where mail goes, and what of it was written as a file; what somebody has seen; what was corrected.
 */
export const safeBook: Migration = {
  name: '019-safe-book',
  makes: 'erased',
  up: `
    ALTER TABLE people
      ADD COLUMN email text CHECK (length(email) <= 254),
      ADD COLUMN erase_on date;
    CREATE TABLE trail (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      studio_id uuid NOT NULL REFERENCES studios (id),
      version integer NOT NULL DEFAULT 1,
      line bigint GENERATED ALWAYS AS IDENTITY,
      at timestamptz NOT NULL,
      person_id uuid,
      act text NOT NULL,
      about_id uuid,
      detail text NOT NULL DEFAULT '' CHECK (length(detail) <= 200),
      UNIQUE (studio_id, id)
    );
    CREATE INDEX trail_by_line ON trail (studio_id, line);
    CREATE TABLE devices (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      studio_id uuid NOT NULL REFERENCES studios (id),
      version integer NOT NULL DEFAULT 1,
      person_id uuid NOT NULL,
      token_hash text NOT NULL,
      first_at timestamptz NOT NULL,
      UNIQUE (studio_id, id),
      UNIQUE (person_id, token_hash),
      FOREIGN KEY (studio_id, person_id) REFERENCES people (studio_id, id)
    );
    CREATE TABLE erased (
      id uuid PRIMARY KEY,
      studio_id uuid NOT NULL REFERENCES studios (id),
      version integer NOT NULL DEFAULT 1,
      at timestamptz NOT NULL,
      UNIQUE (studio_id, id)
    );
    CREATE TABLE erased_hours (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      studio_id uuid NOT NULL REFERENCES studios (id),
      version integer NOT NULL DEFAULT 1,
      person_id uuid NOT NULL,
      kind text NOT NULL CHECK (kind IN ('work', 'lesson')),
      started_at timestamptz NOT NULL,
      ended_at timestamptz NOT NULL,
      UNIQUE (studio_id, id),
      FOREIGN KEY (studio_id, person_id) REFERENCES people (studio_id, id)
    );
    CREATE INDEX erased_hours_by_start ON erased_hours (studio_id, started_at);
    CREATE TABLE book_jobs (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      studio_id uuid NOT NULL,
      version integer NOT NULL DEFAULT 1,
      line bigint GENERATED ALWAYS AS IDENTITY,
      kind text NOT NULL,
      state text NOT NULL DEFAULT 'running',
      done integer NOT NULL DEFAULT 0,
      total integer NOT NULL DEFAULT 0,
      says text NOT NULL DEFAULT '',
      started_at timestamptz NOT NULL DEFAULT now(),
      seen_at timestamptz NOT NULL DEFAULT now()
    );
    ALTER TABLE outbox ADD COLUMN about_id uuid, ADD COLUMN written_at timestamptz;
    UPDATE outbox SET written_at = made_at;
    CREATE INDEX outbox_unwritten ON outbox (made_at) WHERE written_at IS NULL;
    CREATE TABLE seen_lists (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      studio_id uuid NOT NULL REFERENCES studios (id),
      version integer NOT NULL DEFAULT 1,
      person_id uuid NOT NULL,
      list text NOT NULL,
      at timestamptz NOT NULL,
      UNIQUE (studio_id, id),
      UNIQUE (person_id, list),
      FOREIGN KEY (studio_id, person_id) REFERENCES people (studio_id, id)
    );
    CREATE TABLE corrections (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      studio_id uuid NOT NULL REFERENCES studios (id),
      version integer NOT NULL DEFAULT 1,
      line bigint GENERATED ALWAYS AS IDENTITY,
      at timestamptz NOT NULL,
      person_id uuid NOT NULL,
      kind text NOT NULL,
      row_id uuid NOT NULL,
      field text NOT NULL,
      was text NOT NULL,
      became text NOT NULL,
      UNIQUE (studio_id, id),
      FOREIGN KEY (studio_id, person_id) REFERENCES people (studio_id, id)
    );
    CREATE INDEX corrections_by_row ON corrections (studio_id, row_id, line);
  `,
  down: `
    DROP TABLE corrections;
    DROP TABLE seen_lists;
    DROP INDEX outbox_unwritten;
    ALTER TABLE outbox DROP COLUMN about_id, DROP COLUMN written_at;
    DROP TABLE book_jobs;
    DROP TABLE erased_hours;
    DROP TABLE erased;
    DROP TABLE devices;
    DROP TABLE trail;
    ALTER TABLE people DROP COLUMN email, DROP COLUMN erase_on;
  `,
};
