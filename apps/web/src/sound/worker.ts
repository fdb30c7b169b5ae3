import { wrap, type Remote } from 'comlink';

/** A worker that is begun when it is first asked, and begun anew after it was ended or could not be loaded. */
export interface LazyWorker<Api> {
  /** Asks for something. @throws Error in a sentence where its code could not be loaded, or `end` was called meanwhile */
  readonly ask: <Answer>(ask: (worker: Remote<Api>) => Promise<Answer>) => Promise<Answer>;
  /** Ends it with whatever is under way. */
  readonly end: () => void;
}

/**
 * Makes a worker that is begun when it is first asked. Where its code could not be loaded, since the line was cut, whoever asked is
 * told so in a sentence, and the next one who asks begins it anew.
 *
 * @param what what it makes, for that sentence: `The sound`
 */
export function lazyWorker<Api>(what: string, begin: () => Worker): LazyWorker<Api> {
  let opened:
    { readonly remote: Remote<Api>; readonly lost: Promise<never>; readonly close: (why: string) => void } | undefined;
  function open(): NonNullable<typeof opened> {
    const worker = begin();
    let lose: (why: Error) => void = () => undefined;
    const lost = new Promise<never>((_, fail) => (lose = fail));
    lost.catch(() => undefined);
    const close = (why: string) => {
      worker.terminate();
      opened = undefined;
      lose(new Error(why));
    };
    worker.addEventListener('error', () => {
      close(`${what} could not be loaded, since the studio cannot be reached. Try again when the line is back.`);
    });
    return { remote: wrap<Api>(worker), lost, close };
  }
  return {
    ask(ask) {
      opened ??= open();
      const { remote, lost } = opened;
      return Promise.race([ask(remote), lost]);
    },
    end: () => opened?.close(`${what} was stopped.`),
  };
}
