/** One step of the database, forward and back, in SQL. */
export interface Migration {
  readonly name: string;
  readonly up: string;
  readonly down: string;
}
