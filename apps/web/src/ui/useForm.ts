import { check, type CheckContext, type SchemaOf } from '@jam-ledger/contract/schemas';
import { reactive, ref, type Reactive } from 'vue';
import { Refused } from '../api/index.ts';

type Writable<Body> = { -readonly [Key in keyof Body]: Body[Key] };

/**
 * Checks a form by the same schema as the server, then sends it. What either refuses stands at its field,
 * and nothing typed is lost.
 */
export function useForm<Body extends object>(
  schema: SchemaOf<Body>,
  first: Body,
  context: () => CheckContext = () => ({}),
) {
  const fields: Reactive<Writable<Body>> = reactive({ ...first });
  const problems = ref<Readonly<Record<string, string>>>({});
  const trouble = ref('');
  const busy = ref(false);

  async function send(work: (body: Body) => Promise<void>): Promise<boolean> {
    const checked = check(schema, Object.assign({}, fields), context());
    trouble.value = '';
    problems.value = checked.ok ? {} : byField(checked.problems);
    if (!checked.ok) return false;
    busy.value = true;
    try {
      await work(checked.value);
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
    Object.assign(fields, body);
    problems.value = {};
    trouble.value = '';
  }

  return { fields, problems, trouble, busy, send, fill };
}

function byField(problems: readonly { field: string; message: string }[]): Readonly<Record<string, string>> {
  return Object.fromEntries([...problems].reverse().map(({ field, message }) => [field, message]));
}
