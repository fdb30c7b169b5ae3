import type { Migration } from './migration.ts';

/** Series of lessons by a rule, the lessons made of it, and the hours there are for transcribing. */
export const series: Migration = {
  name: '009-series',
  makes: 'lessons',
  up: `
    ALTER TABLE studios ADD COLUMN work_minutes integer NOT NULL DEFAULT 300 CHECK (work_minutes BETWEEN 0 AND 5000);
    CREATE TABLE series (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      studio_id uuid NOT NULL REFERENCES studios (id),
      version integer NOT NULL DEFAULT 1,
      student_id uuid NOT NULL,
      teacher_id uuid NOT NULL,
      title text NOT NULL CHECK (length(title) BETWEEN 1 AND 120),
      rule jsonb NOT NULL,
      changes jsonb NOT NULL,
      goal text NOT NULL CHECK (length(goal) <= 120),
      goal_day date,
      struck boolean NOT NULL DEFAULT false,
      UNIQUE (studio_id, id),
      FOREIGN KEY (studio_id, student_id) REFERENCES people (studio_id, id),
      FOREIGN KEY (studio_id, teacher_id) REFERENCES people (studio_id, id)
    );
    CREATE INDEX series_by_student ON series (studio_id, student_id);
    CREATE TABLE lessons (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      studio_id uuid NOT NULL REFERENCES studios (id),
      version integer NOT NULL DEFAULT 1,
      series_id uuid NOT NULL,
      starts_at timestamptz NOT NULL,
      ends_at timestamptz NOT NULL CHECK (ends_at > starts_at),
      why text NOT NULL CHECK (why IN ('rule', 'moved', 'extra')),
      UNIQUE (series_id, starts_at),
      FOREIGN KEY (studio_id, series_id) REFERENCES series (studio_id, id) ON DELETE CASCADE
    );
    CREATE INDEX lessons_by_time ON lessons (studio_id, starts_at);
  `,
  down: `
    DROP TABLE lessons;
    DROP TABLE series;
    ALTER TABLE studios DROP COLUMN work_minutes;
  `,
};
