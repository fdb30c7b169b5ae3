import type { Given, Route, RouteName } from '@jam-ledger/contract';
import { ROUTES } from '@jam-ledger/contract';
import { backupFile, check, day, id, ROUTE_SCHEMAS, token } from '@jam-ledger/contract/schemas';
import type { Request } from 'express';
import { dayOf, Invalid, type RequestContext } from '../studio/index.ts';
import { planOf } from './planBody.ts';
import { validate, type Schema } from './validate.ts';

/** What can stand in a path, by its name there. */
const NAMES: Readonly<Record<string, Schema<string>>> = { id: id(), day: day(), token: token(), file: backupFile() };

/**
 * What is given with a request to a route, checked: what stands in the path by name, `query` and `body`. Days are checked against
 * today in the studio. @throws Invalid with everything that is wrong
 */
export async function inputOf<Name extends RouteName>(
  name: Name,
  request: Request,
  context: RequestContext | undefined,
): Promise<Given<Name>> {
  const about = context ? { today: dayOf(context) } : {};
  const schemas: { readonly query?: Schema; readonly body?: Schema; readonly answer: Schema } = ROUTE_SCHEMAS[name];
  const input: Record<string, unknown> = namesIn(ROUTES[name], request);
  if (schemas.query) input['query'] = validate(schemas.query, { ...request.query });
  if (schemas.body)
    input['body'] = name === 'keepPlan' ? await planOf(request.body) : validate(schemas.body, request.body, about);
  // `ROUTE_SCHEMAS` does not compile where a schema is not the one of the type in the table.
  return input as Given<Name>;
}

/** The ids, days and tokens in the path. @throws Invalid */
function namesIn({ path }: Route, request: Request): Record<string, string> {
  const names: Record<string, string> = {};
  for (const [, name = ''] of path.matchAll(/:(\w+)/g)) {
    const schema = NAMES[name];
    if (!schema) throw new Error(`nothing says what “:${name}” in a path is`);
    const checked = check(schema, request.params[name]);
    if (!checked.ok) throw new Invalid(checked.problems.map(({ message }) => ({ field: name, message })));
    names[name] = checked.value;
  }
  return names;
}
