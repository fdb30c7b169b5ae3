import type { Store } from '../../store/index.ts';
import type { RequestContext } from './context.ts';

/** The newest run for a person, under way or over. */
interface Runs<Answer> {
  /** Who it was begun for. */
  readonly asked: RequestContext;
  readonly answer: Promise<Answer>;
  /** Settles when it has ended, however it did. */
  readonly ended: Promise<unknown>;
  isOver: boolean;
  /** The next run, and the newest of those who wait for it: that one knows best what time it is, and who asks. */
  next?: Promise<Answer>;
  newest?: RequestContext;
}

/** The clock of an answer may be so old, milliseconds. Our choice. */
const OLDEST_MS = 5000;

/**
 * Answers the requests of one person for the same from one run, as when a page is opened on many devices at once. The answer of a run holds
 * for whoever asks within five seconds while nothing has been written to the database since it began. Otherwise a run that is under way is
 * not shared: whoever asks meanwhile waits for the next one. So all are answered what the database holds no earlier than they asked. For
 * what is only read, outside of transactions.
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
      const runs: Runs<Answer> = { asked: context, answer, ended, isOver: false };
      persons.set(id, runs);
      void ended.then(([{ status }]) => {
        runs.isOver = true;
        if (status === 'rejected' && !runs.next) persons.delete(id);
      });
      return answer;
    };
    const runs = persons.get(id);
    if (runs && holds(runs.asked, asked)) return runs.answer;
    if (!runs || runs.isOver) return begin(asked);
    runs.newest = asked;
    runs.next ??= runs.ended.then(() => begin(runs.newest ?? asked));
    return runs.next;
  };
}

/** Whether what one was answered holds for another: both see the same of the database, at the same time but for a moment. */
function holds(one: RequestContext, other: RequestContext): boolean {
  const later = other.now.getTime() - one.now.getTime();
  return one.snapshot === other.snapshot && later >= 0 && later < OLDEST_MS;
}
