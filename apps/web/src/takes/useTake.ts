import type { JudgedTake, Learner } from '@jam-ledger/core/listen';
import { perform } from '@jam-ledger/core/notation';
import { CLEAN_RULES, type CleanSchool } from '@jam-ledger/core/pieces';
import { useEventListener, useIntervalFn, useWakeLock } from '@vueuse/core';
import { computed, onScopeDispose, ref, shallowRef, watch } from 'vue';
import { keptTakes, type KeptTake } from '../api/index.ts';
import { useNotices } from '../session/index.ts';
import type { PlayPlan } from '../sound/index.ts';
import { lengthWithCountIn, startClicks, type ClickTrack } from './clicks.ts';
import { decode, MAX_TAKE_SECONDS } from './decode.ts';
import { useSentTakes } from './sentTakes.ts';
import { openMicrophone, type Microphone } from './microphone.ts';
import { listener } from './takeListener.ts';

export type { KeptTake } from '../api/index.ts';

/** What a take is of, and whose it is. */
export interface TakeOf {
  readonly pieceId: string;
  readonly personId: string;
  /** What is to be played, and how fast. */
  readonly plan: PlayPlan;
  /** How strictly it is heard. */
  readonly clean: CleanSchool;
}

/** What goes on with a take. */
export type TakeState = 'idle' | 'opening' | 'recording' | 'playing' | 'judging';

/** After the piece a take goes on for so long by itself, as a share of the piece and in seconds: learners are slower. Our choice. */
const LONGER = { share: 0.6, seconds: 3 } as const;
const METER_MS = 60;

/** Takes of one piece: recorded, from a file or from the practice room, judged, and kept on this device. */
export function useTake(what: () => TakeOf | undefined) {
  const notices = useNotices();
  const studio = useSentTakes();
  const wake = useWakeLock();
  const state = ref<TakeState>('idle');
  const trouble = ref('');
  const level = ref(0);
  const counted = ref(0);
  const takes = shallowRef<readonly KeptTake[]>([]);
  const shownId = ref<string>();
  const shown = computed(() => takes.value.find(({ id }) => id === shownId.value));
  const clean = computed((): CleanSchool => what()?.clean ?? 'nine in ten');
  const rule = computed(() => CLEAN_RULES[clean.value]);
  let microphone: Microphone | undefined;
  let clicks: ClickTrack | undefined;
  let recorded: KeptTake | undefined;
  let until = Infinity;

  const meter = useIntervalFn(
    () => {
      level.value = microphone?.level() ?? 0;
      counted.value = clicks?.counted() ?? 0;
      if (performance.now() > until) void stop();
    },
    METER_MS,
    { immediate: false },
  );

  async function load(): Promise<void> {
    const of = what();
    if (of) takes.value = await keptTakes.of(of.pieceId, of.personId).catch(() => takes.value);
    if (of) await studio.load(of.pieceId).catch(() => undefined);
    await sendWaiting();
  }
  watch(() => what()?.pieceId, load, { immediate: true });
  useEventListener('online', () => void sendWaiting());

  /** What was to be sent while the studio could not be reached goes now. */
  async function sendWaiting(): Promise<void> {
    for (const take of takes.value.filter(({ sending }) => sending === 'waits')) await send(take);
  }

  /** Sends a take to the teacher; while the studio cannot be reached it waits, and says so. */
  async function send(take: KeptTake): Promise<void> {
    trouble.value = '';
    try {
      const now = await studio.send(take, take.seconds ?? 0, rule.value);
      takes.value = takes.value.map((one) => (one.id === now.id ? now : one));
    } catch (error) {
      trouble.value = error instanceof Error ? error.message : 'The take could not be sent.';
    }
  }

  /** Does something with a take and says at its place what stands in the way. */
  async function attempt(during: TakeState, work: () => Promise<void>): Promise<void> {
    if (state.value !== 'idle') return;
    [state.value, trouble.value] = [during, ''];
    try {
      await work();
    } catch (error) {
      await close();
      if (error instanceof Error) trouble.value = error.message;
    } finally {
      if (state.value !== 'recording') state.value = 'idle';
    }
  }

  function begun({ pieceId, personId, plan }: TakeOf, file: Blob): KeptTake {
    const { bpm, from, to } = plan;
    return {
      ...{ id: crypto.randomUUID(), pieceId, personId, at: new Date().toISOString(), bpm, file, judged: null },
      ...(from !== undefined && { from }),
      ...(to !== undefined && { to }),
    };
  }

  /** Keeps a take; where there is no room it is kept in the page alone, and said. */
  async function keep(take: KeptTake): Promise<void> {
    takes.value = [take, ...takes.value.filter(({ id }) => id !== take.id)];
    try {
      await keptTakes.put(take);
    } catch {
      trouble.value = 'This device has no room for the take: it is gone when the page is closed. Delete older ones.';
    }
  }

  /** Opens the microphone and counts in. */
  function record(audible: boolean): Promise<void> {
    return attempt('opening', async () => {
      const of = what();
      if (!of) return;
      recorded = begun(of, new Blob());
      microphone = await openMicrophone(
        (all) => void (recorded && keep((recorded = { ...recorded, file: all }))),
        () => void unplugged(),
      );
      clicks = await startClicks(of.plan, audible);
      recorded = { ...recorded, clickSeconds: (clicks.beginsAt - microphone.startedAt) / 1000 };
      const length = lengthWithCountIn(of.plan);
      until = performance.now() + 1000 * Math.min(MAX_TAKE_SECONDS, length * (1 + LONGER.share) + LONGER.seconds);
      state.value = 'recording';
      meter.resume();
      await wake.request('screen').catch(() => undefined);
    });
  }

  async function close(): Promise<Blob | undefined> {
    meter.pause();
    clicks?.stop();
    const file = await microphone?.stop();
    [microphone, clicks, until, level.value, counted.value] = [undefined, undefined, Infinity, 0, 0];
    await wake.release().catch(() => undefined);
    return file;
  }

  /** Ends the recording and judges it. */
  async function stop(): Promise<void> {
    if (state.value !== 'recording') return;
    state.value = 'judging';
    const take = recorded;
    recorded = undefined;
    const file = await close();
    state.value = 'idle';
    if (take && file) await judge({ ...take, file });
  }

  /** What was recorded so far is judged, and why it is no more is said beside it. */
  async function unplugged(): Promise<void> {
    await stop();
    trouble.value ||= 'The microphone was unplugged; what was recorded so far is judged.';
  }

  /** Judges a take against the piece as it is written now. */
  function judge(take: KeptTake): Promise<void> {
    return attempt('judging', async () => {
      const plan = what()?.plan;
      if (!plan) return;
      await keep(take);
      const audio = await decode(take.file);
      const { from, to, bpm } = take;
      const asked = { ...plan, bpm, ...(from !== undefined && { from }), ...(to !== undefined && { to }) };
      const judged: JudgedTake = await listener.ask((worker) => worker.judge(audio, perform(plan.phrase, asked), bpm));
      await keep({ ...take, judged, seconds: audio.samples.length / audio.sampleRate });
      shownId.value = take.id;
    });
  }

  /** Judges a file instead of a recording. */
  async function fromFile(file: Blob): Promise<void> {
    const of = what();
    if (of && state.value === 'idle') await judge(begun(of, file));
  }

  /** Has the simulated learner of the practice room play the piece. */
  async function fromRoom(learner: Learner): Promise<void> {
    const of = what();
    if (!of) return;
    let file: Blob | undefined;
    await attempt('playing', async () => {
      const { plan } = of;
      const bytes = await listener.ask((worker) => worker.practise(perform(plan.phrase, plan), learner));
      file = new Blob([bytes], { type: 'audio/wav' });
    });
    if (file) await judge(begun(of, file));
  }

  /** Deletes a take; the notice puts it back. */
  async function remove(take: KeptTake): Promise<void> {
    takes.value = takes.value.filter(({ id }) => id !== take.id);
    if (shownId.value === take.id) shownId.value = undefined;
    await keptTakes.remove(take.id).catch(() => undefined);
    notices.say('The take is deleted from this device.', () => keep(take));
  }

  onScopeDispose(() => void close());
  return {
    state,
    trouble,
    level,
    counted,
    takes,
    shown,
    shownId,
    clean,
    rule,
    record,
    stop,
    judge,
    fromFile,
    fromRoom,
    remove,
    send,
  };
}
