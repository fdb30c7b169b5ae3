import { check, type CheckContext, type SchemaOf } from '@jam-ledger/contract/schemas';
import { ref } from 'vue';
import { Refused } from '../api/index.ts';
import { useDraft } from './useDraft.ts';

type Writable<Body> = { -readonly [Key in keyof Body]: Body[Key] };

/**
 * Checks a form by the same schema as the server, then sends it. What either refuses stands at its field,
 * and nothing typed is lost: a form with a name is kept on this device until it is sent, or given up.
 *
 * @param draft what the form is called there, with the version of what it changes; left out where a password is typed
 */
export function useForm<Body extends object>(
  schema: SchemaOf<Body>,
  first: Body,
  context: () => CheckContext = () => ({}),
  draft?: string,
) {
  const { fields, isBegun, giveUp, refill } = useDraft<Writable<Body>>({ ...first }, draft);
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
