import type { Outcome, Piece, Rung } from '@jam-ledger/contract';
import { nextStep, tempoLadder } from '@jam-ledger/core/pieces';
import { computed, onMounted, ref, watch } from 'vue';
import { followed, useLedger, type PostedResult } from '../ledger/index.ts';
import { countingOf } from '../playing/index.ts';
import { usePage, useSession } from '../session/index.ts';

/** A piece as it is practised: fetched, the rung of its ladder that is chosen, and the results posted. */
export function usePracticeRun(
  id: string,
  context: {
    /** Minutes played without a break. */
    readonly minutes: () => number;
    /** Told when a rung was chosen, and whether it asks for another share of the piece than the one before. */
    readonly chosen: (isOtherShare: boolean) => void;
  },
) {
  const page = usePage();
  const session = useSession();
  const ledger = useLedger();
  const piece = ref<Piece>();
  const bpm = ref<number | null>(null);
  const percent = ref(100);
  const tempo = computed(() => bpm.value ?? piece.value?.next.bpm ?? 60);
  const rung = computed((): Rung => ({ bpm: tempo.value, percent: percent.value }));

  onMounted(() =>
    page.open(async () => {
      piece.value = await ledger.piece(id);
      follow();
      void ledger.flush();
      if (session.isStudent) await ledger.load();
    }),
  );
  // What is taken back from the notice is taken back here.
  watch(
    () => ledger.changed,
    (changed) => {
      if (changed && changed.id === piece.value?.id) piece.value = followed(piece.value, changed);
    },
  );

  /** The next step; after too long without a break, a rest. */
  const next = computed(() => {
    const now = piece.value;
    if (!now) return undefined;
    const { startBpm, targetBpm: target, raising: school, rules, around } = now;
    const ladder = tempoLadder({ start: startBpm, target, school, rules });
    const { canSplit, join } = around;
    return nextStep(countingOf(now), ladder, { canSplit, join: join ?? undefined, minutes: context.minutes() });
  });
  /** Both tempos in the order the school hears them; nothing where they are one. */
  const both = computed((): readonly [number, number] | undefined => {
    const target = piece.value?.targetBpm ?? tempo.value;
    if (target === tempo.value) return undefined;
    return piece.value?.hearing === 'slow first' ? [tempo.value, target] : [target, tempo.value];
  });

  async function refresh(): Promise<void> {
    if (piece.value) piece.value = await ledger.piece(piece.value.id);
  }
  /** Sends what waits on this device, then asks how the piece stands. */
  async function flush(): Promise<void> {
    await ledger.flush();
    await refresh();
  }

  /** The tempo, and how much of the piece, follow the ladder. */
  function follow(): void {
    if (piece.value) choose(piece.value.next);
  }
  function choose(to: Rung): void {
    const isOtherShare = to.percent !== percent.value;
    bpm.value = to.bpm;
    percent.value = to.percent;
    context.chosen(isOtherShare);
  }

  async function post(at: number, outcome: Outcome, played: Pick<PostedResult, 'percent' | 'loop'>): Promise<void> {
    if (!piece.value) return;
    piece.value = await ledger.post(piece.value, { bpm: at, outcome, ...played });
    // Whoever loops a spot goes on looping it.
    if (!played.loop) follow();
  }

  return { piece, bpm, percent, tempo, rung, next, both, refresh, flush, choose, post };
}
