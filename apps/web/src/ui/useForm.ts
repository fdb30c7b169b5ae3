import type * as schemas from '@jam-ledger/contract/schemas';
import type { CheckContext, SchemaOf } from '@jam-ledger/contract/schemas';
import { ref } from 'vue';
import { Refused } from '../api/index.ts';
import { useDraft } from './useDraft.ts';

type Writable<Body> = { -readonly [Key in keyof Body]: Body[Key] };

type Schemas = typeof schemas;
type BodyOf<Schema> = Schema extends SchemaOf<infer Body> ? Body : never;
/** Schemas of bodies, by name. */
type SchemaName = {
  [Name in keyof Schemas]: Schemas[Name] extends SchemaOf<infer Body> ? (Body extends object ? Name : never) : never;
}[keyof Schemas];

/** The schemas come with the first form that is sent; a page is there without them. */
const loadSchemas = () => import('@jam-ledger/contract/schemas');

/**
 * Checks a form by the same schema as the server, then sends it. What either refuses stands at its field,
 * and nothing typed is lost: a form with a name is kept on this device until it is sent, or given up.
 *
 * @param draft what the form is called there, with the version of what it changes; left out where a password is typed
 */
export function useForm<Name extends SchemaName, Body extends object = BodyOf<Schemas[Name]>>(
  schema: Name,
  first: NoInfer<Body>,
  context: () => CheckContext = () => ({}),
  draft?: string,
) {
  const { fields, isBegun, giveUp, refill } = useDraft<Writable<Body>>({ ...first }, draft);
  const problems = ref<Readonly<Record<string, string>>>({});
  const trouble = ref('');
  const busy = ref(false);

  async function send(work: (body: Body) => Promise<void>): Promise<boolean> {
    busy.value = true;
    try {
      const { check, [schema]: known } = await loadSchemas();
      const checked = check(known as unknown as SchemaOf<Body>, Object.assign({}, fields), context());
      trouble.value = '';
      problems.value = checked.ok ? {} : byField(checked.problems);
      if (!checked.ok) return false;
      await work(checked.value);
      giveUp();
      return true;
    } catch (error) {
      problems.value = error instanceof Refused ? byField(error.problems) : {};
      trouble.value = error instanceof Error ? error.message : 'It could not be sent.';
      return false;
    } finally {
      busy.value = false;
    }
  }

  function fill(body: Body): void {
    refill({ ...body });
    problems.value = {};
    trouble.value = '';
  }

  return { fields, problems, trouble, busy, send, fill, giveUp, isBegun };
}

function byField(problems: readonly { field: string; message: string }[]): Readonly<Record<string, string>> {
  return Object.fromEntries([...problems].reverse().map(({ field, message }) => [field, message]));
}
