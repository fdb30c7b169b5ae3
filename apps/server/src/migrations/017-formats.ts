import type { Migration } from './migration.ts';

/** A calendar may ask for somebody’s lessons by a secret address of theirs; only a digest of it is kept. */
export const formats: Migration = {
  name: '017-formats',
  makes: 'calendar_feeds',
  up: `
    CREATE TABLE calendar_feeds (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      studio_id uuid NOT NULL REFERENCES studios (id),
      version integer NOT NULL DEFAULT 1,
      person_id uuid NOT NULL,
      token_hash text NOT NULL UNIQUE,
      made_at timestamptz NOT NULL,
      closed_at timestamptz,
      UNIQUE (studio_id, id),
      FOREIGN KEY (studio_id, person_id) REFERENCES people (studio_id, id)
    );
    CREATE UNIQUE INDEX one_open_feed_a_person ON calendar_feeds (studio_id, person_id) WHERE closed_at IS NULL;
  `,
  down: `
    DROP TABLE calendar_feeds;
  `,
};
