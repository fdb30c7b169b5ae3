import { alikeTo, hear, mostAlikeFirst, type Alike, type Heard } from '@jam-ledger/core/likeness';
import { readMeter, readShorthand } from '@jam-ledger/core/notation';
import type { Key, Tuning } from '@jam-ledger/core/pitch';
import { expose } from 'comlink';

/** A phrase by its text. */
export interface TextOfPhrase {
  readonly text: string;
  /** As it is written, `4/4`. */
  readonly meter: string;
}

/** A phrase, and those it is compared with; all in one song. */
export interface AlikeJob {
  readonly phrase: TextOfPhrase;
  readonly earlier: readonly (TextOfPhrase & { readonly id: string; readonly name: string })[];
  readonly tuning: Tuning;
  readonly capo: number;
  readonly key: Key;
}

/** Others get a turn after so long, so that a newer job ends this one, milliseconds. Our choice. */
const SLICE_MS = 8;

/** What was heard of each phrase, kept until its text or the set-up changes. */
const known = new Map<string, { readonly of: string; readonly heard: Heard }>();
let newest = 0;

function heardOf({ id, text, meter }: AlikeJob['earlier'][number], { tuning, capo, key }: AlikeJob): Heard {
  const of = JSON.stringify([text, meter, tuning, capo, key]);
  const before = known.get(id);
  if (before?.of === of) return before.heard;
  const heard = hear(read({ text, meter }, tuning), { tuning, capo, key });
  known.set(id, { of, heard });
  return heard;
}

function read({ text, meter }: TextOfPhrase, tuning: Tuning) {
  const read = readMeter(meter);
  return readShorthand(text, { tuning, ...(read && { meter: read }) }).phrase;
}

const searcher = {
  /** The earlier phrases that are like one, the most alike first; undefined where a newer job has come meanwhile. */
  async findAlike(job: AlikeJob): Promise<readonly Alike[] | undefined> {
    newest += 1;
    const mine = newest;
    const phrase = read(job.phrase, job.tuning);
    const heard = hear(phrase, job);
    const found: Alike[] = [];
    let started = performance.now();
    for (const one of job.earlier) {
      if (performance.now() - started > SLICE_MS) {
        await new Promise((done) => setTimeout(done));
        if (mine !== newest) return undefined;
        started = performance.now();
      }
      const alike = alikeTo(phrase, heard, { id: one.id, name: one.name, heard: heardOf(one, job) });
      if (alike) found.push(alike);
    }
    return mostAlikeFirst(found);
  },
  /** Ends what is under way: a key was pressed. */
  cancel(): void {
    newest += 1;
  },
};

/** What the page can ask of this worker. */
export type AlikeSearcher = typeof searcher;

expose(searcher);
