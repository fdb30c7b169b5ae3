/** A column of facts: what its cells say of a row. */
export interface TableColumn<Row> {
  readonly head: string;
  readonly says: (row: Row) => string | number;
  /** What stands softly behind it. */
  readonly aside?: (row: Row) => string;
  readonly look?: 'ink' | 'pencil' | 'number';
}
