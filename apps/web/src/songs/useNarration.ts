import type { NarratedSection, SpokenContext } from '@jam-ledger/core/spoken';
import { onScopeDispose, ref, shallowRef, toRaw, watch, type Ref, type ShallowRef } from 'vue';
import { lazyWorker } from '../sound/index.ts';
import type { NarrationReader } from './narration.worker.ts';

/** A page of talk, and what was found in it. */
export interface Narration {
  readonly page: string;
  readonly sections: readonly NarratedSection[];
}

const reader = lazyWorker<NarrationReader>(
  'The reading of words',
  () => new Worker(new URL('./narration.worker.ts', import.meta.url), { type: 'module' }),
);

/** A page of talk, read off the page whenever it has settled; what is changed meanwhile ends the reading. */
export function useNarration(job: () => { readonly page: string; readonly context: SpokenContext }): {
  readonly narration: Readonly<ShallowRef<Narration>>;
  readonly isReading: Readonly<Ref<boolean>>;
  readonly trouble: Readonly<Ref<string>>;
} {
  const narration = shallowRef<Narration>({ page: '', sections: [] });
  const isReading = ref(false);
  const trouble = ref('');
  let asked = 0;
  watch(
    job,
    async ({ page, context }) => {
      if (isReading.value) reader.end();
      const own = (asked += 1);
      isReading.value = true;
      trouble.value = '';
      try {
        const plain = Object.fromEntries(Object.entries(context).map(([name, value]) => [name, toRaw(value)]));
        const sections = await reader.ask((worker) => worker.cut(page, plain));
        if (own === asked) narration.value = { page, sections };
      } catch (error) {
        if (own === asked) trouble.value = error instanceof Error ? error.message : 'The words could not be read.';
      }
      if (own === asked) isReading.value = false;
    },
    { immediate: true },
  );
  onScopeDispose(() => {
    asked += 1;
    if (isReading.value) reader.end();
  });
  return { narration, isReading, trouble };
}
