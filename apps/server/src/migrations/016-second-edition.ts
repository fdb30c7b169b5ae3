import type { Migration } from './migration.ts';

/**
 * A section may be laid out before anybody knows where it starts or how long it is, and the guitar may be another from it on. A song’s
 * tempo may be supposed, and its rhythm written by feel.
 */
export const secondEdition: Migration = {
  name: '016-second-edition',
  makes: 'sections.start_known',
  up: `
    ALTER TABLE sections
      ADD COLUMN start_known boolean NOT NULL DEFAULT true,
      ADD COLUMN bars_known boolean NOT NULL DEFAULT true,
      ADD COLUMN tuning text,
      ADD COLUMN capo integer CHECK (capo BETWEEN 0 AND 12);
    ALTER TABLE transcriptions
      ADD COLUMN tempo_known boolean NOT NULL DEFAULT true,
      ADD COLUMN rhythm text NOT NULL DEFAULT 'counted' CHECK (rhythm IN ('counted', 'by feel'));
  `,
  down: `
    ALTER TABLE sections
      DROP COLUMN start_known, DROP COLUMN bars_known, DROP COLUMN tuning, DROP COLUMN capo;
    ALTER TABLE transcriptions DROP COLUMN tempo_known, DROP COLUMN rhythm;
  `,
};
