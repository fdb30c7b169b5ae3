import type { Attributes, CreationAttributes, ModelStatic, WhereOptions } from 'sequelize';
import type { StudioRow } from './models.ts';

/** What became of a versioned save: saved, or refused because the row is newer. */
export type Saved<Row> = { readonly saved: true; readonly row: Row } | { readonly saved: false; readonly current: Row };

/**
 * Changes a row if it still has the version the person saw, and counts the version up; one UPDATE, so that
 * two at once cannot both win. Undefined when there is no such row in the studio.
 */
export async function saveVersioned<Row extends StudioRow>(
  model: ModelStatic<Row>,
  { studioId, id, version }: { studioId: string; id: string; version: number },
  changes: Partial<Attributes<Row>>,
): Promise<Saved<Row> | undefined> {
  // The keys are those of every studio row; Sequelize cannot see that through the type parameter.
  const where: WhereOptions = { studioId, id, version };
  const values: object = { ...changes, version: version + 1 };
  const [, rows] = await model.update(values, { where, returning: true });
  const row = rows[0];
  if (row) return { saved: true, row };
  const current = await findOwn(model, { studioId, id });
  return current ? { saved: false, current } : undefined;
}

/** The row of a studio with an id, or undefined. */
export async function findOwn<Row extends StudioRow>(
  model: ModelStatic<Row>,
  { studioId, id }: { studioId: string; id: string },
): Promise<Row | undefined> {
  const where: WhereOptions = { studioId, id };
  return (await model.findOne({ where })) ?? undefined;
}

/** What rows must have: values, lists of values, or null. */
type Where<Row extends StudioRow> = {
  readonly [Name in keyof Attributes<Row>]?: Attributes<Row>[Name] | readonly Attributes<Row>[Name][];
};

const whereOf = <Row extends StudioRow>(where: Where<Row>): WhereOptions => ({ ...where });

/** Makes a row. */
export function addRow<Row extends StudioRow>(model: ModelStatic<Row>, values: CreationAttributes<Row>): Promise<Row> {
  return model.create(values);
}

/** Makes a row unless there is one with the same key; undefined where it was not made, as far as the database says. */
export async function addOnce<Row extends StudioRow>(
  model: ModelStatic<Row>,
  values: CreationAttributes<Row>,
): Promise<Row | undefined> {
  const [row] = await model.bulkCreate([values], { ignoreDuplicates: true });
  return row;
}

/** The first row that has some values; undefined where there is none. */
export async function findRow<Row extends StudioRow>(
  model: ModelStatic<Row>,
  where: Where<Row>,
): Promise<Row | undefined> {
  return (await model.findOne({ where: whereOf(where) })) ?? undefined;
}

/** The rows that have some values. */
export function findRows<Row extends StudioRow>(model: ModelStatic<Row>, where: Where<Row>): Promise<readonly Row[]> {
  return model.findAll({ where: whereOf(where) });
}

/** How many rows have some values. */
export function countRows<Row extends StudioRow>(model: ModelStatic<Row>, where: Where<Row>): Promise<number> {
  return model.count({ where: whereOf(where) });
}

/** Changes all rows that have some values; their versions stay, since nobody saw them. */
export async function changeRows<Row extends StudioRow>(
  model: ModelStatic<Row>,
  where: Where<Row>,
  values: Partial<Attributes<Row>>,
): Promise<void> {
  await model.update(values, { where: whereOf(where) });
}
