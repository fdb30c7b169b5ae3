import { wrap, type Remote } from 'comlink';

/** Asks a worker for something. */
export type AskWorker<Api> = <Answer>(ask: (worker: Remote<Api>) => Promise<Answer>) => Promise<Answer>;

/**
 * A worker that is begun when it is first asked. Where its code could not be loaded, since the line was cut, whoever asked is told
 * so in a sentence, and the next one who asks begins it anew.
 *
 * @param what what it makes, for that sentence: `The sound`
 */
export function lazyWorker<Api>(what: string, begin: () => Worker): AskWorker<Api> {
  let opened: { readonly remote: Remote<Api>; readonly lost: Promise<never> } | undefined;
  function open(): NonNullable<typeof opened> {
    const worker = begin();
    const lost = new Promise<never>((_, fail) => {
      worker.addEventListener('error', () => {
        worker.terminate();
        opened = undefined;
        fail(
          new Error(
            `${what} could not be loaded, since the studio cannot be reached. Try again when the line is back.`,
          ),
        );
      });
    });
    lost.catch(() => undefined);
    return { remote: wrap<Api>(worker), lost };
  }
  return (ask) => {
    opened ??= open();
    const { remote, lost } = opened;
    return Promise.race([ask(remote), lost]);
  };
}
