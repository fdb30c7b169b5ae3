import type { Store } from '../../store/index.ts';
import type { RequestContext } from './context.ts';

/** What is under way for a person, and who waits for it to end. */
interface Runs<Answer> {
  /** Settles when the run that is under way has ended, however it did. */
  readonly ended: Promise<unknown>;
  /** The next run, and the newest of those who wait for it: that one knows best what time it is, and who asks. */
  next?: Promise<Answer>;
  newest: RequestContext;
}

/**
 * Answers the requests of one person that wait for the same from one run, as when a page is opened on many devices at once. A run that is
 * under way is not shared: whoever asks meanwhile waits for the next one, so that all are answered what holds no earlier than they asked.
 * For what is only read, outside of transactions.
 */
export function sharedRuns<Answer>(
  run: (context: RequestContext) => Promise<Answer>,
): (context: RequestContext) => Promise<Answer> {
  const stores = new WeakMap<Store, Map<string, Runs<Answer>>>();
  return (asked) => {
    const persons = stores.get(asked.store) ?? new Map<string, Runs<Answer>>();
    stores.set(asked.store, persons);
    const { id } = asked.person;
    const begin = (context: RequestContext): Promise<Answer> => {
      const answer = run(context);
      const ended = Promise.allSettled([answer]);
      const runs: Runs<Answer> = { ended, newest: context };
      persons.set(id, runs);
      void ended.then(() => {
        if (!runs.next) persons.delete(id);
      });
      return answer;
    };
    const runs = persons.get(id);
    if (!runs) return begin(asked);
    runs.newest = asked;
    runs.next ??= runs.ended.then(() => begin(runs.newest));
    return runs.next;
  };
}
