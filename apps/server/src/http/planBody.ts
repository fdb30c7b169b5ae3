import type { PlanBody } from '@jam-ledger/contract';
import { check, planFrameSchema, planPieceSchema } from '@jam-ledger/contract/schemas';
import { Invalid, mapInSlices } from '../studio/index.ts';
import { validate } from './validate.ts';

/** A plan that was sent, checked; it may hold thousands of pieces, so that others are answered in between. @throws Invalid */
export async function planOf(body: unknown): Promise<PlanBody> {
  const frame = validate(planFrameSchema, body);
  const checked = await mapInSlices(frame.pieces, (piece) => check(planPieceSchema, piece));
  const ids = new Set<string>();
  const problems = checked.flatMap((one, index) => {
    const at = `pieces.${index}`;
    if (!one.ok)
      return one.problems.map(({ field, message }) => ({ field: field === 'body' ? at : `${at}.${field}`, message }));
    if (ids.has(one.value.id)) return [{ field: at, message: 'This stands here twice.' }];
    ids.add(one.value.id);
    return [];
  });
  if (problems.length > 0) throw new Invalid(problems);
  return { ...frame, pieces: checked.flatMap((one) => (one.ok ? [one.value] : [])) };
}
