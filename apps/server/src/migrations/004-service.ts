import type { Migration } from './migration.ts';

/**
 * What the servers share besides the studio's own rows: sessions, counted sign-ins, and the secret that
 * signs cookies, made by the database so that it is never in the repository.
 */
export const service: Migration = {
  name: '004-service',
  makes: 'secrets',
  up: `
    CREATE TABLE sessions (
      sid varchar PRIMARY KEY,
      sess json NOT NULL,
      expire timestamptz NOT NULL,
      studio_id uuid GENERATED ALWAYS AS ((sess ->> 'studioId')::uuid) STORED REFERENCES studios (id)
    );
    CREATE INDEX sessions_expire ON sessions (expire);
    CREATE TABLE counted_sign_ins (
      key text PRIMARY KEY,
      hits integer NOT NULL,
      resets_at timestamptz NOT NULL
    );
    CREATE TABLE secrets (
      name text PRIMARY KEY,
      value text NOT NULL
    );
    INSERT INTO secrets (name, value)
      VALUES ('session', encode(sha256((gen_random_uuid()::text || gen_random_uuid()::text)::bytea), 'hex'));
  `,
  down: `
    DROP TABLE secrets;
    DROP TABLE counted_sign_ins;
    DROP TABLE sessions;
  `,
};
