import type { Phrase, Transcription } from '@jam-ledger/contract';
import { onScopeDispose, shallowRef, toRaw, toValue, watch, type MaybeRefOrGetter, type ShallowRef } from 'vue';
import type { AlikeJob, AlikeSearcher, FoundAlike } from './alike.worker.ts';
import { lazyWorker } from '../../sound/index.ts';

const searcher = lazyWorker<AlikeSearcher>(
  'The comparing of phrases',
  () => new Worker(new URL('./alike.worker.ts', import.meta.url), { type: 'module' }),
);

/**
 * The phrases that one is like, found off the page whenever its text has settled; a key pressed meanwhile ends the search.
 *
 * @param typing the text as it is typed just now
 */
export function useAlike(
  job: MaybeRefOrGetter<AlikeJob>,
  typing: MaybeRefOrGetter<string>,
): Readonly<ShallowRef<readonly FoundAlike[]>> {
  const alike = shallowRef<readonly FoundAlike[]>([]);
  let isGone = false;
  // What cannot be compared just now is compared after the next pause.
  const cancel = () => void searcher.ask((worker) => worker.cancel()).catch(() => undefined);
  watch(
    () => toValue(job),
    async (now) => {
      const plain = { ...now, tuning: toRaw(now.tuning), key: toRaw(now.key) };
      const found = await searcher.ask((worker) => worker.findAlike(plain)).catch(() => undefined);
      if (found && !isGone) alike.value = found;
    },
    { immediate: true },
  );
  watch(() => toValue(typing), cancel);
  onScopeDispose(() => {
    isGone = true;
    cancel();
  });
  return alike;
}

/** Whether one phrase is the one that alternates of another stand beside, or one of them. */
export function isWayOf(phrase: Phrase, { id, alternateOf }: Phrase): boolean {
  const main = phrase.alternateOf ?? phrase.id;
  return id === main || alternateOf === main;
}

/** The phrases of a song before one, by what they are called; ways of playing it and those that refer to another left out. */
export function phrasesBefore(
  { sections }: Pick<Transcription, 'sections'>,
  phrase: Phrase,
): readonly { readonly name: string; readonly phrase: Phrase }[] {
  const all = sections.flatMap((section) =>
    section.phrases
      .filter((one) => one.id === phrase.id || (!isWayOf(phrase, one) && one.refersTo === null))
      .map((one) => ({ name: `${section.label} ${one.name}`, phrase: one })),
  );
  return all.slice(
    0,
    all.findIndex((one) => one.phrase.id === phrase.id),
  );
}
