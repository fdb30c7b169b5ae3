import type { Migration } from './migration.ts';

/** What was called the pace of a piece is called what it is. */
export const words: Migration = {
  name: '013-words',
  makes: 'pieces.learning_rate',
  up: `
    ALTER TABLE pieces RENAME COLUMN pace TO learning_rate;
    ALTER INDEX pieces_by_pace RENAME TO pieces_by_learning_rate;
  `,
  down: `
    ALTER INDEX pieces_by_learning_rate RENAME TO pieces_by_pace;
    ALTER TABLE pieces RENAME COLUMN learning_rate TO pace;
  `,
};
