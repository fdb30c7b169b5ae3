import type { Migration } from './migration.ts';

/** What a request covers, the states it goes through, and who brought it there when. */
export const scope: Migration = {
  name: '005-scope',
  makes: 'request_events',
  up: `
    ALTER TABLE requests
      ADD COLUMN wanted jsonb NOT NULL DEFAULT '[]' CHECK (jsonb_typeof(wanted) = 'array'),
      ADD COLUMN not_wanted jsonb NOT NULL DEFAULT '[]' CHECK (jsonb_typeof(not_wanted) = 'array'),
      ADD COLUMN rendition text NOT NULL DEFAULT 'recorded',
      ADD COLUMN guitar_meant text NOT NULL DEFAULT 'the only guitar',
      ADD COLUMN guitar text NOT NULL DEFAULT '' CHECK (length(guitar) <= 120),
      ADD COLUMN scope text NOT NULL DEFAULT '' CHECK (length(scope) <= 400),
      ADD COLUMN follows_id uuid,
      ADD COLUMN line bigint GENERATED ALWAYS AS IDENTITY,
      ADD FOREIGN KEY (studio_id, follows_id) REFERENCES requests (studio_id, id);
    UPDATE requests SET wanted = jsonb_build_array(parts_wanted),
      not_wanted = CASE WHEN parts_not_wanted = '' THEN '[]' ELSE jsonb_build_array(parts_not_wanted) END;
    ALTER TABLE requests DROP COLUMN parts_wanted, DROP COLUMN parts_not_wanted;
    ALTER TABLE requests DROP CONSTRAINT requests_state_check;
    UPDATE requests SET state = 'in work' WHERE state = 'accepted';
    ALTER TABLE requests ADD CONSTRAINT requests_state_check CHECK (state IN ('asked', 'agreed', 'in work',
      'to be checked', 'delivered', 'in practice', 'closed', 'declined', 'withdrawn'));
    CREATE TABLE request_events (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      studio_id uuid NOT NULL REFERENCES studios (id),
      version integer NOT NULL DEFAULT 1,
      request_id uuid NOT NULL,
      line bigint GENERATED ALWAYS AS IDENTITY,
      at timestamptz NOT NULL,
      person_id uuid NOT NULL,
      state text NOT NULL,
      note text NOT NULL CHECK (length(note) <= 400),
      FOREIGN KEY (studio_id, request_id) REFERENCES requests (studio_id, id),
      FOREIGN KEY (studio_id, person_id) REFERENCES people (studio_id, id)
    );
    CREATE INDEX request_events_by_request ON request_events (studio_id, request_id);
  `,
  down: `
    DROP TABLE request_events;
    ALTER TABLE requests DROP CONSTRAINT requests_state_check;
    UPDATE requests SET state = 'accepted' WHERE state NOT IN ('asked', 'declined', 'withdrawn');
    ALTER TABLE requests ADD CONSTRAINT requests_state_check
      CHECK (state IN ('asked', 'accepted', 'declined', 'withdrawn'));
    ALTER TABLE requests
      ADD COLUMN parts_wanted text NOT NULL DEFAULT 'all of it' CHECK (length(parts_wanted) BETWEEN 1 AND 500),
      ADD COLUMN parts_not_wanted text NOT NULL DEFAULT '' CHECK (length(parts_not_wanted) <= 500);
    UPDATE requests SET
      parts_wanted = coalesce(nullif(left((SELECT string_agg(part, ', ') FROM jsonb_array_elements_text(wanted) AS part), 500), ''), 'all of it'),
      parts_not_wanted = coalesce(left((SELECT string_agg(part, ', ') FROM jsonb_array_elements_text(not_wanted) AS part), 500), '');
    ALTER TABLE requests DROP COLUMN wanted, DROP COLUMN not_wanted, DROP COLUMN rendition, DROP COLUMN guitar_meant,
      DROP COLUMN guitar, DROP COLUMN scope, DROP COLUMN follows_id, DROP COLUMN line;
  `,
};
