/** One step of the database, forward and back, in SQL. */
export interface Migration {
  readonly name: string;
  readonly up: string;
  readonly down: string;
  /** A table, or `table.column`, that is there as soon as the step is done, and not before. */
  readonly makes: string;
}
