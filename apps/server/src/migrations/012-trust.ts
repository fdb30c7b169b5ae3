import type { Migration } from './migration.ts';

/**
 * What a result was played on, and which ladder it moves; a place of its own for every phrase of a section and every piece of a
 * song, in the order of the song where nobody chose another; messages without the links that stood in them.
 */
export const trust: Migration = {
  name: '012-trust',
  makes: 'entries.counts_for',
  up: `
    ALTER TABLE entries
      ADD COLUMN loop_from integer CHECK (loop_from >= 0),
      ADD COLUMN loop_to integer,
      ADD COLUMN counts_for uuid,
      ADD CHECK ((loop_from IS NULL) = (loop_to IS NULL) AND loop_to > loop_from);
    UPDATE entries SET counts_for = piece_id;
    ALTER TABLE entries
      ADD CHECK (loop_from IS NOT NULL OR counts_for IS NOT NULL),
      ADD FOREIGN KEY (studio_id, counts_for) REFERENCES pieces (studio_id, id);
    CREATE INDEX entries_by_ladder ON entries (studio_id, counts_for, posted_at, line);

    UPDATE phrases f SET place = o.place
      FROM (SELECT m.id, row_number() OVER (PARTITION BY m.section_id ORDER BY m.place, m.id) - 1 AS place
              FROM phrases m WHERE m.alternate_of IS NULL) o
     WHERE o.id = coalesce(f.alternate_of, f.id) AND f.place <> o.place;
    CREATE UNIQUE INDEX one_phrase_a_place ON phrases (section_id, place) WHERE alternate_of IS NULL;

    UPDATE pieces p SET place = o.place
      FROM (SELECT i.id, row_number() OVER (PARTITION BY i.song_id ORDER BY i.place, c.start_seconds, c.label, f.place, f.id, i.cut) - 1 AS place
              FROM pieces i
              JOIN phrases f ON f.studio_id = i.studio_id AND f.id = i.phrase_id
              JOIN sections c ON c.studio_id = f.studio_id AND c.id = f.section_id
             WHERE NOT i.struck) o
     WHERE o.id = p.id AND p.place <> o.place;

    UPDATE outbox SET body = regexp_replace(body, '/welcome/[A-Za-z0-9_-]{43}', '(a link that was handed over)', 'g')
     WHERE body ~ '/welcome/[A-Za-z0-9_-]{43}';
  `,
  down: `
    DROP INDEX one_phrase_a_place;
    DROP INDEX entries_by_ladder;
    DELETE FROM entries WHERE counts_for IS NULL;
    UPDATE entries SET piece_id = counts_for WHERE piece_id <> counts_for;
    ALTER TABLE entries DROP COLUMN counts_for, DROP COLUMN loop_from, DROP COLUMN loop_to;
  `,
};
