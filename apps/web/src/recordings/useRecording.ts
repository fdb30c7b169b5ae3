import type { BandOptions, BandPart, BeatOptions } from '@jam-ledger/core/listen';
import { useRafFn } from '@vueuse/core';
import { computed, onScopeDispose, ref, shallowRef } from 'vue';
import { ROUTES, type StudioSound } from '@jam-ledger/contract';
import { api, factsOf, fileAddress, keptRecordings, sendParts, type KeptRecording } from '../api/index.ts';
import { useNotices } from '../session/index.ts';
import { decodeFile, lazyWorker, mixed } from '../sound/index.ts';
import { RecordingPlayback, type Band, type Hearing, type Side } from './recordingPlayer.ts';
import type { Heard, RecordingListener } from './recordings.worker.ts';

/** What a recording may be; longer ones fill the memory, 20 MB a minute. */
export const RECORDING = { what: 'a recording', seconds: 1800, bytes: 100_000_000 } as const;
/** Points of the waveform a second. */
const PEAKS_A_SECOND = 60;

/** A recording as it is open on the page. */
export interface OpenRecording {
  readonly name: string;
  readonly file: Blob;
  readonly seconds: number;
  readonly sampleRate: number;
  readonly channels: readonly Float32Array<ArrayBuffer>[];
  /** How far the sound reaches to each side, for drawing it. */
  readonly peaks: Float32Array;
}

/** A stretch of the recording, seconds. */
export interface RecordedStretch {
  readonly from: number;
  readonly to: number;
}

/** A stretch to be played; from where it stands, to the end, once, where nothing else is said. */
export type ToPlay = Partial<RecordedStretch> & { readonly loop?: boolean };

/** So many beats of so many seconds before it begins. */
export interface CountIn {
  readonly beats: number;
  readonly seconds: number;
}

/** Sound that is played in the place of the recording, and when in it its first sample stands, seconds. */
export interface Instead {
  readonly channels: readonly Float32Array<ArrayBuffer>[];
  readonly from: number;
}

/** What goes on with a recording. */
export type RecordingState = 'none' | 'reading' | 'playing the band' | 'listening' | 'ready';

const listener = lazyWorker<RecordingListener>(
  'What listens',
  () => new Worker(new URL('./recordings.worker.ts', import.meta.url), { type: 'module' }),
);

/** The recording of one song: brought, kept on this device, listened to, and played in any way that helps. */
export function useRecording() {
  const notices = useNotices();
  const recording = shallowRef<OpenRecording>();
  const heard = shallowRef<Heard>();
  const state = ref<RecordingState>('none');
  const trouble = ref('');
  const seconds = ref(0);
  const running = ref(false);
  const held = shallowRef<readonly number[]>();
  const loop = ref<RecordedStretch>();
  const speed = ref(1);
  const semitones = ref(0);
  const cents = ref(0);
  const side = ref<Side>('everything');
  const band = ref<Band>('all of it');
  const level = ref(0.6);
  /** What the studio knows of the recording of this song; null for nothing. */
  const known = shallowRef<StudioSound | null>(null);
  /** How much of it is sent, 0 to 1, while it is. */
  const sent = ref<number>();
  let songId: string | undefined;
  let playback: RecordingPlayback | undefined;

  const hearing = computed((): Hearing => ({
    speed: held.value ? 0 : speed.value,
    semitones: semitones.value + cents.value / 100,
    side: side.value,
    band: band.value,
    level: level.value,
  }));
  const follow = useRafFn(() => (seconds.value = playback && !held.value ? playback.seconds() : seconds.value), {
    immediate: false,
  });

  /** Does something that takes its time, and says at its place what stands in the way. */
  async function attempt(during: RecordingState, work: () => Promise<void>): Promise<void> {
    [state.value, trouble.value] = [during, ''];
    try {
      await work();
    } catch (error) {
      trouble.value = error instanceof Error ? error.message : 'It could not be done.';
    } finally {
      state.value = recording.value ? 'ready' : 'none';
    }
  }

  /** Opens the recording that this device has of a song, if any. */
  async function open(id: string): Promise<void> {
    close();
    songId = id;
    const asked = api.songRecording({ id }).catch(() => undefined);
    const kept = await keptRecordings.of(id).catch(() => undefined);
    if (kept && songId === id) await read(kept);
    const told = await asked;
    if (told && songId === id) known.value = told.recording;
  }

  /**
   * Notes in the studio which recording this is, so that another device can ask for the same. Another one that is kept there goes only
   * where that is asked for.
   */
  async function note(id: string, isAsked: boolean): Promise<void> {
    const now = recording.value;
    if (!now || !isSecureContext) return;
    const before = known.value;
    const body = await factsOf(now.file, now.name, now.seconds);
    if (before?.isKept && before.print !== body.print && !isAsked)
      return notices.say(
        `The studio keeps another recording of this song, “${before.name}”: this one stays on this device.`,
      );
    const told = await api.knowRecording({ id, body });
    if (songId === id) known.value = told.recording;
  }

  /** Keeps the recording in the studio, part by part; what was cut off goes on the next time. */
  async function keepInStudio(): Promise<void> {
    const [now, id] = [recording.value, songId];
    if (!now || id === undefined || sent.value !== undefined) return;
    sent.value = 0;
    await notices.tell(async () => {
      await note(id, true);
      const whole = known.value;
      if (whole)
        await sendParts(whole, now.file, {
          onProgress: (share) => (sent.value = share),
          isStopped: () => sent.value === undefined || songId !== id,
        });
      const told = await api.songRecording({ id });
      if (songId === id) known.value = told.recording;
    });
    sent.value = undefined;
  }

  function stopSending(): void {
    sent.value = undefined;
  }

  /** Fetches the recording that the studio keeps onto this device. */
  function fetchFromStudio(options: BeatOptions = {}): Promise<void> {
    return notices.tell(async () => {
      const there = known.value;
      if (!there?.isKept) return;
      const answer = await fetch(fileAddress(ROUTES.sound, { id: there.id }), { credentials: 'same-origin' });
      if (!answer.ok) throw new Error('The recording could not be fetched; try again.');
      await bring(new Blob([await answer.arrayBuffer()], { type: there.type }), there.name, options);
    });
  }

  /** Deletes the recording from the studio; on this device it stays. */
  function deleteFromStudio(): Promise<void> {
    return notices.tell(async () => {
      const id = songId;
      if (id === undefined) return;
      const told = await api.forgetRecording({ id });
      if (songId === id) known.value = told.recording;
      notices.say('The recording is deleted from the studio; this device still has it.', keepInStudio);
    });
  }

  function close(): void {
    stop();
    [recording.value, heard.value, loop.value, held.value] = [undefined, undefined, undefined, undefined];
    [known.value, sent.value] = [null, undefined];
    [seconds.value, trouble.value, state.value, songId] = [0, '', 'none', undefined];
  }

  function read(kept: KeptRecording, options: BeatOptions = {}): Promise<void> {
    return attempt('reading', async () => {
      const buffer = await decodeFile(kept.file, RECORDING);
      if (songId !== kept.songId) return;
      const channels = Array.from({ length: Math.min(2, buffer.numberOfChannels) }, (_, channel) =>
        buffer.getChannelData(channel).slice(),
      );
      const sound = mixed(buffer);
      const { sampleRate, duration } = buffer;
      recording.value = {
        ...{ name: kept.name, file: kept.file, seconds: duration, sampleRate, channels },
        peaks: peaksOf(sound, sampleRate),
      };
      state.value = 'listening';
      await listener.ask((worker) => worker.open(sound, sampleRate));
      const told = await listener.ask((worker) => worker.hear(options));
      if (songId === kept.songId) heard.value = told;
    });
  }

  /** Brings a file as the recording of the song; it stays on this device. */
  async function bring(file: Blob, name: string, options: BeatOptions = {}): Promise<void> {
    if (songId === undefined || state.value === 'reading' || state.value === 'listening') return;
    const before = recording.value;
    const kept = { songId, name, file };
    stop();
    recording.value = undefined;
    await read(kept, options);
    if (!isOpen()) {
      // What could not be read does not take the place of what was there.
      recording.value = before;
      state.value = before ? 'ready' : 'none';
      return;
    }
    try {
      await keptRecordings.put(kept);
    } catch {
      trouble.value = 'This device has no room for the recording: it is gone when the page is closed.';
    }
    // Without a line it is noted the next time it is kept in the studio.
    await note(kept.songId, false).catch(() => undefined);
  }

  function isOpen(): boolean {
    return recording.value !== undefined;
  }

  /** Has the simulated band play the song, and takes that as its recording. */
  async function bringBand(part: BandPart, options: BandOptions, name: string): Promise<void> {
    let file: Blob | undefined;
    await attempt('playing the band', async () => {
      const bytes = await listener.ask((worker) => worker.band(part, options));
      file = new Blob([bytes], { type: 'audio/wav' });
    });
    if (file) await bring(file, name);
  }

  /** Takes the recording from this device; the notice puts it back. */
  async function forget(): Promise<void> {
    const was = recording.value;
    const id = songId;
    if (!was || id === undefined) return;
    const there = known.value;
    close();
    [songId, known.value] = [id, there];
    await keptRecordings.remove(id).catch(() => undefined);
    notices.say('The recording is taken from this device.', async () => {
      if (songId === id) await bring(was.file, was.name);
      else await keptRecordings.put({ songId: id, name: was.name, file: was.file });
    });
  }

  /** Plays a stretch, or another sound in its place; to the end where none is said. */
  function play(stretch: ToPlay, before: CountIn = { beats: 0, seconds: 0 }, instead?: Instead): Promise<void> {
    stop();
    return begin(stretch, before, instead);
  }

  async function begin(stretch: ToPlay, countIn: CountIn, instead?: Instead): Promise<void> {
    const open = recording.value;
    if (!open) return;
    const { channels, from: channelsFrom } = instead ?? { channels: open.channels, from: 0 };
    const from = Math.min(Math.max(0, stretch.from ?? seconds.value), open.seconds);
    const to = Math.min(stretch.to ?? open.seconds, open.seconds);
    const [first, last] = [from, to].map((at) => Math.round((at - channelsFrom) * open.sampleRate));
    const beats = Array.from({ length: countIn.beats }, (_, beat) => (countIn.beats - beat) * countIn.seconds);
    playback = new RecordingPlayback(
      {
        channels: channels.map((channel) => channel.subarray(first, last)),
        sampleRate: open.sampleRate,
        from,
        loop: stretch.loop === true,
        countIn: beats,
      },
      hearing.value,
      () => stop(),
    );
    running.value = true;
    follow.resume();
    try {
      await playback.start();
    } catch (error) {
      stop();
      trouble.value = error instanceof Error ? error.message : 'It cannot be played.';
    }
  }

  function stop(): void {
    if (playback && !held.value) seconds.value = playback.seconds();
    playback?.stop();
    playback = undefined;
    running.value = false;
    held.value = undefined;
    follow.pause();
  }

  function toggle(): void {
    if (running.value) return stop();
    const end = recording.value?.seconds ?? 0;
    const at = loop.value;
    if (at) void play({ ...at, loop: true });
    else void play({ from: seconds.value >= end - 0.05 ? 0 : seconds.value });
  }

  function goTo(place: number): void {
    const was = running.value && !held.value;
    stop();
    seconds.value = Math.min(Math.max(0, place), recording.value?.seconds ?? place);
    if (was) void play({ from: seconds.value });
  }

  /** Plays on in another way from where it is. */
  function changed(): void {
    if (!running.value || held.value) return;
    const at = playback?.seconds() ?? seconds.value;
    const round = loop.value;
    if (round) void play({ ...round, loop: true });
    else void play({ from: at });
  }

  function setLevel(loud: number): void {
    level.value = loud;
    playback?.setLevel(loud);
  }

  /** A moment that goes on sounding, with the pitches in it; again to let go. */
  async function hold(offCents: number): Promise<void> {
    if (held.value) return stop();
    const at = seconds.value;
    stop();
    seconds.value = at;
    held.value = [];
    await begin({ from: at, to: at + HELD_SECONDS }, { beats: 0, seconds: 0 });
    const pitches = await listener.ask((worker) => worker.pitches(at, offCents)).catch(() => []);
    if (isHolding()) held.value = pitches;
  }

  function isHolding(): boolean {
    return held.value !== undefined;
  }

  onScopeDispose(close);
  return {
    ...{ recording, heard, state, trouble, seconds, running, held, loop, speed, semitones, cents, side, band, level },
    ...{ known, sent, keepInStudio, stopSending, fetchFromStudio, deleteFromStudio },
    ...{ open, bring, bringBand, forget, play, stop, toggle, goTo, changed, setLevel, hold, ask: listener.ask },
  };
}

/** So much sound lies around a moment that is held, seconds. */
const HELD_SECONDS = 0.6;

function peaksOf(sound: Float32Array, sampleRate: number): Float32Array {
  const step = sampleRate / PEAKS_A_SECOND;
  const peaks = new Float32Array(Math.ceil(sound.length / step));
  for (let n = 0; n < sound.length; n += 1) {
    const at = Math.floor(n / step);
    const value = Math.abs(sound[n] ?? 0);
    if (value > (peaks[at] ?? 0)) peaks[at] = value;
  }
  return peaks;
}
