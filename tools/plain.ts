import { parseArgs } from 'node:util';

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

/** The options of a command. */
type Options = Readonly<Record<string, { readonly type: 'string' | 'boolean' }>>;
/** What was told of each. */
type Told<Known extends Options> = {
  readonly [Name in keyof Known]?: Known[Name]['type'] extends 'string' ? string : boolean;
} & { readonly positionals: readonly string[] };

/** What a command was told: its options, and up to so many words besides. @throws Plain, with the help, for an option that is not known */
export function parsedBy<const Known extends Options>(options: Known, help: string, words = 0): Told<Known> {
  try {
    const { values, positionals } = parseArgs({ options, strict: true, allowPositionals: words > 0 });
    if (positionals.length > words) throw new Plain(`That is a word too many: ${positionals.at(-1) ?? ''}\n\n${help}`);
    // Each has the type that its option names, which the types of Node say in a way that cannot be named here.
    return { ...values, positionals } as unknown as Told<Known>;
  } catch (error) {
    if (error instanceof Plain) throw error;
    throw new Plain(`${error instanceof Error ? error.message : 'An option is not known.'}\n\n${help}`);
  }
}
