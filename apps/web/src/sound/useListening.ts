import type { SongBasics } from '@jam-ledger/contract';
import { unroll, type Feel, type Span } from '@jam-ledger/core/notation';
import { computed, ref, toValue, type MaybeRefOrGetter } from 'vue';
import { usePlayer, type PlayPlan } from './usePlayer.ts';

/** What is heard, and how the guitar and the recording are set up. */
export type Listening = Omit<PlayPlan, keyof Stretch | 'loop' | 'countIn'>;

/** How a song as it is set up sounds: at the recording’s pitch where the guitar is tuned to it; with its feel. */
export function soundOf(
  song: Pick<SongBasics, 'capo' | 'offsetCents' | 'pitchWay' | 'feel'>,
): Pick<Listening, 'capo' | 'offsetCents' | 'feel'> {
  const { capo, offsetCents, pitchWay, feel } = song;
  return { capo, offsetCents: pitchWay === 'tune the guitar' ? offsetCents : 0, feel: feelOf(feel) };
}

/** How eighths are played in the feel of a song. */
export function feelOf(feel: SongBasics['feel']): Feel {
  return feel === 'swing' || feel === 'shuffle' ? 'swing' : 'straight';
}

/** A stretch of the played-out phrase, ticks. */
export type Stretch = Pick<PlayPlan, 'from' | 'to'>;

/** The player of one phrase with its switches: whole, from the caret, or a selection round and round. */
export function useListening(what: MaybeRefOrGetter<Listening>, loops: boolean) {
  const player = usePlayer();
  const loop = ref(loops);
  const countIn = ref(true);
  const playing = computed(() => player.cursor.value?.span);
  /** Whether there is a harmony for bass and chords to follow. */
  const hasChords = computed(() => toValue(what).phrase.items.some(({ kind }) => kind === 'harmony'));

  function start(stretch: Stretch, round = loop.value): Promise<void> {
    return player.play({ ...toValue(what), ...stretch, loop: round, countIn: countIn.value });
  }

  /** Once at one tempo, then at another, round and round where looping is on. */
  function hearBoth([first, second]: readonly [number, number], stretch: Stretch): Promise<void> {
    const both = { ...toValue(what), ...stretch };
    const then = () => void player.play({ ...both, bpm: second, loop: loop.value, countIn: countIn.value });
    return player.play({ ...both, bpm: first, loop: false, countIn: countIn.value }, then);
  }

  /** One event alone, without click or count-in. */
  function hearOne(stretch: Required<Stretch>): Promise<void> {
    return player.play({ ...toValue(what), ...stretch, loop: false, countIn: false });
  }

  /** From the first event at or behind a place of the text; stops instead when something is playing. */
  async function playFrom({ from }: Span): Promise<void> {
    if (player.playing.value) return player.stop();
    const event = unroll(toValue(what).phrase).events.find(({ span }) => span.to >= from);
    await start(event ? { from: event.at } : {}, false);
  }

  /** The events a selection touches, round and round. */
  async function loopOver({ from, to }: Span): Promise<void> {
    if (from === to) return start({}, true);
    const touched = unroll(toValue(what).phrase).events.filter(({ span }) => span.from < to && span.to > from);
    const [first, last] = [touched[0], touched.at(-1)];
    if (first && last) await start({ from: first.at, to: last.at + last.length }, true);
  }

  return {
    player,
    loop,
    countIn,
    playing,
    hasChords,
    play: () => start({}),
    start,
    hearBoth,
    hearOne,
    playFrom,
    loopOver,
  };
}
