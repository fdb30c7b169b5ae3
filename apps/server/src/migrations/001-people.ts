import type { Migration } from './migration.ts';

/** Studios and their people. */
export const people: Migration = {
  name: '001-people',
  makes: 'people',
  up: `
    CREATE TABLE studios (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      version integer NOT NULL DEFAULT 1,
      name text NOT NULL CHECK (length(name) BETWEEN 1 AND 120),
      zone text NOT NULL
    );
    CREATE TABLE people (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      studio_id uuid NOT NULL REFERENCES studios (id),
      version integer NOT NULL DEFAULT 1,
      role text NOT NULL CHECK (role IN ('owner', 'teacher', 'student')),
      name text NOT NULL CHECK (length(name) BETWEEN 1 AND 120),
      sign_in_name text NOT NULL CHECK (length(sign_in_name) BETWEEN 1 AND 64),
      password_hash text NOT NULL,
      frets integer NOT NULL DEFAULT 22 CHECK (frets BETWEEN 12 AND 36),
      UNIQUE (studio_id, id)
    );
    CREATE UNIQUE INDEX people_sign_in ON people (lower(sign_in_name));
  `,
  down: `
    DROP TABLE people;
    DROP TABLE studios;
  `,
};
