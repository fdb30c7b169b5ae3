import { alikeTo, hear, mostAlikeFirst, movedAlike, type Alike, type Heard } from '@jam-ledger/core/likeness';
import { moveBetween, readMeter, type Move, type NoteValue, type Phrase } from '@jam-ledger/core/notation';
import { readPlaced } from '@jam-ledger/core/placing';
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
  readonly startValue: NoteValue;
  readonly key: Key;
}

/** An earlier phrase that one is like; with the way it is moved to be exactly that one, where there is such. */
export interface FoundAlike extends Alike {
  readonly move?: Move | undefined;
}

/** Others get a turn after so long, so that a newer job ends this one, milliseconds. Our choice. */
const SLICE_MS = 8;

/** A phrase as it was read and heard, for a text and a set-up. */
interface Known {
  readonly of: string;
  readonly phrase: Phrase;
  readonly heard: Heard;
}

/** Phrases as they were heard, kept until their text or the set-up changes. */
const known = new Map<string, Known>();
let newest = 0;

function knownOf({ id, text, meter }: AlikeJob['earlier'][number], { tuning, capo, startValue, key }: AlikeJob): Known {
  const of = JSON.stringify([text, meter, tuning, capo, startValue, key]);
  const before = known.get(id);
  if (before?.of === of) return before;
  const phrase = read({ text, meter }, { tuning, capo, startValue });
  const fresh = { of, phrase, heard: hear(phrase, { tuning, capo, key }) };
  known.set(id, fresh);
  return fresh;
}

function read(
  { text, meter }: TextOfPhrase,
  { tuning, capo, startValue }: Pick<AlikeJob, 'tuning' | 'capo' | 'startValue'>,
) {
  const read = readMeter(meter);
  return readPlaced(text, { tuning, capo, startValue, ...(read && { meter: read }) }).phrase;
}

const searcher = {
  /** The earlier phrases that are like one, the most alike first; undefined where a newer job has come meanwhile. */
  async findAlike(job: AlikeJob): Promise<readonly FoundAlike[] | undefined> {
    newest += 1;
    const mine = newest;
    const phrase = read(job.phrase, job);
    const heard = hear(phrase, job);
    const found: FoundAlike[] = [];
    let started = performance.now();
    for (const one of job.earlier) {
      if (performance.now() - started > SLICE_MS) {
        await new Promise((done) => setTimeout(done));
        if (mine !== newest) return undefined;
        started = performance.now();
      }
      const earlier = knownOf(one, job);
      const move = moveBetween({ text: one.text, phrase: earlier.phrase }, { text: job.phrase.text, phrase }, job);
      const moved = move && movedAlike(one, phrase, move);
      const alike = moved ?? alikeTo(phrase, heard, { id: one.id, name: one.name, heard: earlier.heard });
      if (alike) found.push({ ...alike, ...(moved && { move }) });
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
