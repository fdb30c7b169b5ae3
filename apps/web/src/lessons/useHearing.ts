import type { Hearing, Piece } from '@jam-ledger/contract';
import { hearingList, type HearingPoint } from '@jam-ledger/core/hearing';
import type { Phrase } from '@jam-ledger/core/notation';
import { readKey, type Tuning } from '@jam-ledger/core/pitch';
import { computed, ref, toRaw, watch, type Ref } from 'vue';
import { api } from '../api/index.ts';
import { useNotices } from '../session/index.ts';

/** A point to inspect, and what was heard there today. */
export interface InspectedPoint {
  readonly point: HearingPoint;
  readonly heard: Hearing | undefined;
}

/** The hearing list of a piece, made from its own marks: ticked, or remarked on, point by point. */
export function useHearing({
  piece,
  phrase,
  tuning,
  hearings,
}: {
  readonly piece: Readonly<Ref<Piece | undefined>>;
  readonly phrase: Readonly<Ref<Phrase>>;
  readonly tuning: Readonly<Ref<Tuning>>;
  /** All of today, of every piece of the student. */
  readonly hearings: Ref<readonly Hearing[]>;
}) {
  const notices = useNotices();
  const points = computed((): readonly InspectedPoint[] => {
    const now = piece.value;
    if (!now) return [];
    const { naming: names, fidelity, song, id } = now;
    const key = readKey(song.key);
    const options = {
      tuning: toRaw(tuning.value),
      capo: song.capo,
      ...(key && { key }),
      names,
      essentialsOnly: fidelity === 'in the ballpark',
    };
    const own = hearings.value.filter(({ pieceId }) => pieceId === id);
    return hearingList(phrase.value, options).map((point) => ({
      point,
      heard: own.find(({ at, kind }) => at === point.at && kind === point.kind),
    }));
  });
  /** Which point is chosen; the first that nobody has heard yet to begin with. */
  const chosen = ref(0);
  watch(
    () => piece.value?.id,
    () =>
      (chosen.value = Math.max(
        0,
        points.value.findIndex(({ heard }) => heard === undefined),
      )),
  );

  function move(by: 1 | -1): void {
    chosen.value = Math.min(points.value.length - 1, Math.max(0, chosen.value + by));
  }

  function replace(one: Hearing | undefined, { pieceId, at, kind }: Pick<Hearing, 'pieceId' | 'at' | 'kind'>): void {
    const others = hearings.value.filter(
      (other) => other.pieceId !== pieceId || other.at !== at || other.kind !== kind,
    );
    hearings.value = one ? [...others, one] : others;
  }

  /** Puts down what was heard at the chosen point, and goes on to the next. */
  function hear(isRight: boolean, remark = ''): Promise<void> {
    return notices.tell(async () => {
      const [now, at] = [piece.value, points.value[chosen.value]];
      if (!now || !at) return;
      const { point, heard: before } = at;
      const body = { id: before?.id ?? crypto.randomUUID(), at: point.at, kind: point.kind, isRight, remark };
      const kept = await api.hear({ id: now.id, body });
      replace(kept, kept);
      move(1);
      notices.say(isRight ? 'Heard, and right.' : 'Not right yet; the remark stands at its place.', async () => {
        await api.strikeHearing({ id: kept.id, body: { version: kept.version, struck: true } });
        replace(undefined, kept);
      });
    });
  }
  return { points, chosen, move, hear };
}
