/** The names and numbers that lead to something inside a value. */
export type Path = readonly (string | number)[];

/** The paths of everything that stands in a value. */
export function pathsIn(value: unknown, path: Path = []): readonly Path[] {
  if (typeof value !== 'object' || value === null) return [];
  return Object.entries(value).flatMap(([name, one]) => {
    const here = [...path, Array.isArray(value) ? Number(name) : name];
    return [here, ...pathsIn(one, here)];
  });
}

/** The value with something else at a path; `undefined` leaves it out. */
export function put(value: unknown, [first, ...rest]: Path, to: unknown): unknown {
  if (first === undefined) return to;
  const entries = Object.entries(value as object).map(([name, one]: [string, unknown]): [string, unknown] => [
    name,
    name === String(first) ? put(one, rest, to) : one,
  ]);
  const kept = entries.filter(([, one]) => one !== undefined);
  return Array.isArray(value) ? kept.map(([, one]) => one) : Object.fromEntries(kept);
}

/** What stands at a path. */
export function at(value: unknown, path: Path): unknown {
  return path.reduce<unknown>((inside, name) => (inside as Readonly<Record<string | number, unknown>>)[name], value);
}
