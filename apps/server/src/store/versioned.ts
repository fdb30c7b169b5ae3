import type { Attributes, ModelStatic, WhereOptions } from 'sequelize';
import type { StudioRow } from './models.ts';

/** What became of a versioned save: saved, or refused because the row is newer. */
export type Saved<Row> = { readonly saved: true; readonly row: Row } | { readonly saved: false; readonly current: Row };

/**
 * Changes a row if it still has the version the person saw, and counts the version up; one UPDATE, so that
 * two at once cannot both win. Undefined when there is no such row in the studio.
 */
export async function saveVersioned<Row extends StudioRow<Row>>(
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
export async function findOwn<Row extends StudioRow<Row>>(
  model: ModelStatic<Row>,
  { studioId, id }: { studioId: string; id: string },
): Promise<Row | undefined> {
  const where: WhereOptions = { studioId, id };
  return (await model.findOne({ where })) ?? undefined;
}
