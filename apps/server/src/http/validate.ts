import { check, type CheckContext } from '@jam-ledger/contract/schemas';
import { Invalid } from '../studio/index.ts';

/** A schema of the contract. */
export type Schema<T = unknown> = Parameters<typeof check<T>>[0];

/** A value from outside, checked. @throws Invalid */
export function validate<T>(schema: Schema<T>, value: unknown, about: CheckContext = {}): T {
  const checked = check(schema, value, about);
  if (!checked.ok) throw new Invalid(checked.problems);
  return checked.value;
}
