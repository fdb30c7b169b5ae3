import type { Migration } from './migration.ts';

/**
 * Where a phrase stands in its section and a piece in its plan is called its position. What licks are found by is gathered anew at the
 * next start, by the pitches that sound.
 */
export const positions: Migration = {
  name: '014-positions',
  makes: 'pieces.position',
  up: `
    ALTER TABLE phrases RENAME COLUMN place TO position;
    ALTER TABLE pieces RENAME COLUMN place TO position;
    DELETE FROM phrase_facts;
  `,
  down: `
    ALTER TABLE pieces RENAME COLUMN position TO place;
    ALTER TABLE phrases RENAME COLUMN position TO place;
    DELETE FROM phrase_facts;
  `,
};
