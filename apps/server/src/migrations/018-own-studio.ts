import type { Migration } from './migration.ts';

/** A studio is somebody’s own, or the demo; until now nobody could begin one, so that every studio there is, is the demo. */
export const ownStudio: Migration = {
  name: '018-own-studio',
  makes: 'studios.demo',
  up: `
    ALTER TABLE studios ADD COLUMN demo boolean NOT NULL DEFAULT false;
    UPDATE studios SET demo = true;
  `,
  down: `
    ALTER TABLE studios DROP COLUMN demo;
  `,
};
