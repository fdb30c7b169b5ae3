import type { Migration } from './migration.ts';

/** Guardians, invitations, those who left, mail that would be sent, holidays, and two more schools. */
export const house: Migration = {
  name: '010-house',
  makes: 'outbox',
  up: `
    ALTER TABLE people DROP CONSTRAINT people_role_check;
    ALTER TABLE people
      ADD CONSTRAINT people_role_check CHECK (role IN ('owner', 'teacher', 'student', 'guardian')),
      ALTER COLUMN sign_in_name DROP NOT NULL,
      ALTER COLUMN password_hash DROP NOT NULL,
      ADD COLUMN archived_at timestamptz,
      ADD COLUMN teacher_id uuid,
      ADD COLUMN naming text,
      ADD COLUMN fidelity text,
      ADD FOREIGN KEY (studio_id, teacher_id) REFERENCES people (studio_id, id);
    CREATE INDEX people_by_role ON people (studio_id, role, name);
    ALTER TABLE studios
      ADD COLUMN naming text NOT NULL DEFAULT 'letters',
      ADD COLUMN fidelity text NOT NULL DEFAULT 'note for note',
      ADD COLUMN holidays jsonb NOT NULL DEFAULT '[]';
    CREATE TABLE guardians (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      studio_id uuid NOT NULL REFERENCES studios (id),
      version integer NOT NULL DEFAULT 1,
      guardian_id uuid NOT NULL,
      student_id uuid NOT NULL,
      UNIQUE (guardian_id, student_id),
      FOREIGN KEY (studio_id, guardian_id) REFERENCES people (studio_id, id),
      FOREIGN KEY (studio_id, student_id) REFERENCES people (studio_id, id)
    );
    CREATE INDEX guardians_by_student ON guardians (studio_id, student_id);
    CREATE TABLE invitations (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      studio_id uuid NOT NULL REFERENCES studios (id),
      version integer NOT NULL DEFAULT 1,
      person_id uuid NOT NULL,
      made_by uuid NOT NULL,
      token_hash text NOT NULL UNIQUE,
      expires_at timestamptz NOT NULL,
      used_at timestamptz,
      FOREIGN KEY (studio_id, person_id) REFERENCES people (studio_id, id),
      FOREIGN KEY (studio_id, made_by) REFERENCES people (studio_id, id)
    );
    CREATE INDEX invitations_by_person ON invitations (studio_id, person_id);
    CREATE TABLE outbox (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      studio_id uuid NOT NULL REFERENCES studios (id),
      version integer NOT NULL DEFAULT 1,
      person_id uuid NOT NULL,
      subject text NOT NULL CHECK (length(subject) BETWEEN 1 AND 200),
      body text NOT NULL CHECK (length(body) <= 8000),
      made_at timestamptz NOT NULL,
      line bigint GENERATED ALWAYS AS IDENTITY,
      FOREIGN KEY (studio_id, person_id) REFERENCES people (studio_id, id)
    );
    CREATE INDEX outbox_by_line ON outbox (studio_id, line);
  `,
  down: `
    DROP TABLE outbox;
    DROP TABLE invitations;
    DROP TABLE guardians;
    ALTER TABLE studios DROP COLUMN naming, DROP COLUMN fidelity, DROP COLUMN holidays;
    DROP INDEX people_by_role;
    DELETE FROM people WHERE role = 'guardian';
    UPDATE people SET sign_in_name = id::text WHERE sign_in_name IS NULL;
    UPDATE people SET password_hash = '' WHERE password_hash IS NULL;
    ALTER TABLE people
      DROP CONSTRAINT people_role_check,
      ADD CONSTRAINT people_role_check CHECK (role IN ('owner', 'teacher', 'student')),
      ALTER COLUMN sign_in_name SET NOT NULL,
      ALTER COLUMN password_hash SET NOT NULL,
      DROP COLUMN archived_at,
      DROP COLUMN teacher_id,
      DROP COLUMN naming,
      DROP COLUMN fidelity;
  `,
};
