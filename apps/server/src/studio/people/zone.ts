import type { FieldProblem } from '@jam-ledger/contract';
import { IANAZone } from 'luxon';

/** What is wrong with a time zone, at its field; nothing where the tz database has it. */
export function checkZone(zone: string): readonly FieldProblem[] {
  return IANAZone.isValidZone(zone) ? [] : [{ field: 'zone', message: `There is no time zone “${zone}”.` }];
}
