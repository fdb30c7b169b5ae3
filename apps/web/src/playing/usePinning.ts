import type { Piece, Pin } from '@jam-ledger/contract';
import type { Span } from '@jam-ledger/core/notation';
import { computed, type Ref } from 'vue';
import { api } from '../api/index.ts';
import { useNotices } from '../session/index.ts';
import type { PlayedStep } from './useStepping.ts';

/** A note with the event of the piece it stands at. */
export interface PinAtEvent {
  readonly pin: Pin;
  readonly place: string;
  readonly span: Span | undefined;
  readonly isHere: boolean;
}

/** Notes pinned to the events of a piece: where they stand, and pinning more. */
export function usePinning(
  piece: Ref<Piece | undefined>,
  {
    step,
    steps,
    playing,
    refresh,
    keep,
  }: {
    readonly step: Readonly<Ref<PlayedStep | undefined>>;
    readonly steps: Readonly<Ref<readonly PlayedStep[]>>;
    readonly playing: Readonly<Ref<Span | undefined>>;
    readonly refresh: () => Promise<void>;
    /** Keeps a note at a tick of a phrase; gives the piece with it. */
    readonly keep: (piece: Piece, note: Pick<Pin, 'phraseId' | 'at' | 'text'>) => Promise<Piece>;
  },
) {
  const notices = useNotices();

  /** The event that sounds at a tick of a phrase; nothing where the piece leaves it out. */
  function eventAt({ phraseId, at }: Pick<Pin, 'phraseId' | 'at'>): PlayedStep | undefined {
    const part = piece.value?.parts.find(
      (one) => one.phraseId === phraseId && one.from <= at && at < one.from + one.length,
    );
    const tick = part && part.at + at - part.from;
    return tick === undefined ? undefined : steps.value.findLast((one) => one.at <= tick);
  }

  const placed = computed((): readonly PinAtEvent[] =>
    (piece.value?.pins ?? []).flatMap((pin) => {
      const event = eventAt(pin);
      if (!event) return [];
      const now = playing.value ?? step.value?.span;
      return [{ pin, place: event.place, span: event.span, isHere: now?.from === event.span.from }];
    }),
  );

  /** Pins a note to the step one stands on; whether it is kept. */
  async function pin(text: string): Promise<boolean> {
    const [now, on] = [piece.value, step.value];
    const part = on && now?.parts.find(({ at, length }) => at <= on.at && on.at < at + length);
    if (!now || !part) return false;
    let kept = false;
    await notices.tell(async () => {
      const at = part.from + on.at - part.at;
      piece.value = await keep(now, { phraseId: part.phraseId, at, text });
      kept = true;
    });
    return kept;
  }

  async function strike(one: Pin): Promise<void> {
    await api.strikePin({ id: one.id, body: { version: one.version, struck: true } });
    await refresh();
    notices.say('The note is taken out.', async () => {
      await api.strikePin({ id: one.id, body: { version: one.version + 1, struck: false } });
      await refresh();
    });
  }

  const here = computed(() => step.value?.place);
  return { placed, pin, strike, here };
}
