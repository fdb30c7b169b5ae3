import type { Migration } from './migration.ts';

/** Where a phrase stands in its section and a piece in its plan is called its position. */
export const positions: Migration = {
  name: '014-positions',
  makes: 'pieces.position',
  up: `
    ALTER TABLE phrases RENAME COLUMN place TO position;
    ALTER TABLE pieces RENAME COLUMN place TO position;
  `,
  down: `
    ALTER TABLE pieces RENAME COLUMN position TO place;
    ALTER TABLE phrases RENAME COLUMN position TO place;
  `,
};
