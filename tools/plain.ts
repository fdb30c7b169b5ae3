/** A sentence for the person at the terminal; shown without a stack. */
export class Plain extends Error {}

/** The short reason of a file system error, `EACCES`. */
export function reasonOf(error: unknown): string {
  return error instanceof Error && 'code' in error ? String(error.code) : String(error);
}

/** One field of a JSON object; undefined where the text is something else. */
export function fieldOf(text: string, name: string): unknown {
  try {
    const value: unknown = JSON.parse(text);
    return typeof value === 'object' && value !== null ? Reflect.get(value, name) : undefined;
  } catch {
    return undefined;
  }
}
