import { DataTypes, type ModelAttributeColumnOptions } from 'sequelize';

declare const kind: unique symbol;

/** A column: how Sequelize keeps it, and what stands in it. `isOptional`: it may be left out where a row is made. */
export interface Column<T, IsOptional extends boolean = boolean> {
  readonly attribute: ModelAttributeColumnOptions;
  readonly isOptional: IsOptional;
  readonly [kind]?: T;
}

/** The columns of a table by the names of its properties. */
export type Columns = Readonly<Record<string, Column<unknown>>>;

/** A row as it is read. */
export type RowOf<Table extends Columns> = {
  [Name in keyof Table]: Table[Name] extends Column<infer T> ? T : never;
};

/** A row as it is made. */
export type NewRowOf<Table extends Columns> = {
  [Name in keyof Table as Table[Name] extends Column<unknown, false> ? Name : never]: RowOf<Table>[Name];
} & {
  [Name in keyof Table as Table[Name] extends Column<unknown, true> ? Name : never]?: RowOf<Table>[Name];
};

// Sequelize writes into the attributes it is given, so every column gets an object of its own.
const column = <T>(type: ModelAttributeColumnOptions['type']): Column<T, false> => ({
  attribute: { type, allowNull: false },
  isOptional: false,
});

export const text = <T extends string = string>() => column<T>(DataTypes.TEXT);
export const whole = () => column<number>(DataTypes.INTEGER);
export const small = () => column<number>(DataTypes.SMALLINT);
export const real = () => column<number>(DataTypes.DOUBLE);
export const words = () => column<readonly string[]>(DataTypes.ARRAY(DataTypes.TEXT));
export const flag = () => column<boolean>(DataTypes.BOOLEAN);
export const json = <T>() => column<T>(DataTypes.JSONB);
export const uuid = () => column<string>(DataTypes.UUID);
export const day = () => column<string>(DataTypes.DATEONLY);
export const moment = () => column<Date>(DataTypes.DATE);

/** The same, null where nothing is said. */
export function orNull<T>({ attribute }: Column<T>): Column<T | null, true> {
  return { attribute: { ...attribute, allowNull: true }, isOptional: true };
}

/** The same, with a value where nothing is said. */
export function withDefault<T>({ attribute }: Column<T>, value: T): Column<T, true> {
  return { attribute: { ...attribute, defaultValue: value }, isOptional: true };
}

/** The id of a row, made here. */
export const ownId = (): Column<string, true> => ({
  attribute: { type: DataTypes.UUID, allowNull: false, primaryKey: true, defaultValue: DataTypes.UUIDV4 },
  isOptional: true,
});

/** Counted up with every change, so that a stale save is refused. */
export const version = () => withDefault(whole(), 1);

/** What every row of a studio has. */
export const row = () => ({ id: ownId(), studioId: uuid(), version: version() });
