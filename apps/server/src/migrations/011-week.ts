import type { Migration } from './migration.ts';

/** Where pieces stand, kept beside them; lessons written up; what was inspected; promises, parts and hours of requests. */
export const week: Migration = {
  name: '011-week',
  makes: 'work_spans',
  up: `
    ALTER TABLE pieces
      ADD COLUMN kept jsonb,
      ADD COLUMN call smallint,
      ADD COLUMN lesson_day date,
      ADD COLUMN lesson_fixed boolean NOT NULL DEFAULT false,
      ADD CHECK (lesson_day IS NOT NULL OR NOT lesson_fixed);
    CREATE INDEX pieces_calling ON pieces (studio_id, call, id) WHERE call IS NOT NULL;
    CREATE INDEX pieces_not_reckoned ON pieces (studio_id, student_id) WHERE kept IS NULL AND assigned_on IS NOT NULL AND NOT struck;
    CREATE INDEX entries_with_remarks ON entries (studio_id, posted_at) WHERE remark <> '' AND NOT struck;
    CREATE INDEX pins_by_time ON pins (studio_id, pinned_at) WHERE NOT struck;
    CREATE TABLE lesson_notes (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      studio_id uuid NOT NULL REFERENCES studios (id),
      version integer NOT NULL DEFAULT 1,
      student_id uuid NOT NULL,
      day date NOT NULL,
      words text NOT NULL CHECK (length(words) <= 4000),
      home text NOT NULL CHECK (length(home) <= 4000),
      assigned jsonb NOT NULL,
      written_by uuid NOT NULL,
      written_at timestamptz NOT NULL,
      UNIQUE (student_id, day),
      UNIQUE (studio_id, id),
      FOREIGN KEY (studio_id, student_id) REFERENCES people (studio_id, id),
      FOREIGN KEY (studio_id, written_by) REFERENCES people (studio_id, id)
    );
    CREATE INDEX lesson_notes_by_student ON lesson_notes (studio_id, student_id, day);
    CREATE TABLE lesson_note_revisions (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      studio_id uuid NOT NULL REFERENCES studios (id),
      version integer NOT NULL DEFAULT 1,
      note_id uuid NOT NULL,
      words text NOT NULL,
      home text NOT NULL,
      assigned jsonb NOT NULL,
      written_by uuid NOT NULL,
      written_at timestamptz NOT NULL,
      line bigint GENERATED ALWAYS AS IDENTITY,
      FOREIGN KEY (studio_id, note_id) REFERENCES lesson_notes (studio_id, id),
      FOREIGN KEY (studio_id, written_by) REFERENCES people (studio_id, id)
    );
    CREATE INDEX lesson_note_revisions_by_note ON lesson_note_revisions (studio_id, note_id, line);
    CREATE TABLE hearings (
      id uuid PRIMARY KEY,
      studio_id uuid NOT NULL REFERENCES studios (id),
      version integer NOT NULL DEFAULT 1,
      piece_id uuid NOT NULL,
      day date NOT NULL,
      at integer NOT NULL CHECK (at >= 0),
      kind text NOT NULL CHECK (length(kind) BETWEEN 1 AND 40),
      is_right boolean NOT NULL,
      remark text NOT NULL CHECK (length(remark) <= 500),
      person_id uuid NOT NULL,
      struck boolean NOT NULL DEFAULT false,
      UNIQUE (piece_id, day, at, kind),
      FOREIGN KEY (studio_id, piece_id) REFERENCES pieces (studio_id, id),
      FOREIGN KEY (studio_id, person_id) REFERENCES people (studio_id, id)
    );
    ALTER TABLE requests ADD COLUMN promised_for date;
    ALTER TABLE series ADD COLUMN instalments jsonb NOT NULL DEFAULT '[]';
    CREATE TABLE work_spans (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      studio_id uuid NOT NULL REFERENCES studios (id),
      version integer NOT NULL DEFAULT 1,
      request_id uuid NOT NULL,
      person_id uuid NOT NULL,
      started_at timestamptz NOT NULL,
      seen_at timestamptz NOT NULL,
      ended_at timestamptz,
      CHECK (seen_at >= started_at),
      FOREIGN KEY (studio_id, request_id) REFERENCES requests (studio_id, id),
      FOREIGN KEY (studio_id, person_id) REFERENCES people (studio_id, id)
    );
    CREATE UNIQUE INDEX one_running_span ON work_spans (person_id) WHERE ended_at IS NULL;
    CREATE INDEX work_spans_by_request ON work_spans (studio_id, request_id);
  `,
  down: `
    DROP TABLE work_spans;
    ALTER TABLE series DROP COLUMN instalments;
    ALTER TABLE requests DROP COLUMN promised_for;
    DROP TABLE hearings;
    DROP TABLE lesson_note_revisions;
    DROP TABLE lesson_notes;
    DROP INDEX pins_by_time;
    DROP INDEX entries_with_remarks;
    DROP INDEX pieces_not_reckoned;
    DROP INDEX pieces_calling;
    ALTER TABLE pieces DROP COLUMN kept, DROP COLUMN call, DROP COLUMN lesson_day, DROP COLUMN lesson_fixed;
  `,
};
