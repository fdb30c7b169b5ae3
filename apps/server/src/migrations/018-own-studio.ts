import type { Migration } from './migration.ts';

/**
 * A studio is somebody’s own, or the demo; until now nobody could begin one, so that every studio there is, is the demo. A song may be
 * begun without a request.
 */
export const ownStudio: Migration = {
  name: '018-own-studio',
  makes: 'studios.demo',
  up: `
    ALTER TABLE studios ADD COLUMN demo boolean NOT NULL DEFAULT false;
    UPDATE studios SET demo = true;
    ALTER TABLE transcriptions ALTER COLUMN request_id DROP NOT NULL;
  `,
  down: `
    DO $$ BEGIN
      IF EXISTS (SELECT FROM transcriptions WHERE request_id IS NULL) THEN
        RAISE EXCEPTION 'songs that were begun without a request cannot go back';
      END IF;
    END $$;
    ALTER TABLE transcriptions ALTER COLUMN request_id SET NOT NULL;
    ALTER TABLE studios DROP COLUMN demo;
  `,
};
