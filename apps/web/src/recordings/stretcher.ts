/** How sound is stretched. */
export interface StretchPlan {
  readonly sampleRate: number;
  /** Share of the speed, 1 for as it is; 0 holds the first moment. */
  readonly speed: number;
  /** Semitones up, with a fraction. */
  readonly semitones: number;
  /** Whether it goes round and round. */
  readonly loop: boolean;
}

/** A stretcher of sound, fed once and then asked for what comes out. */
export interface Stretcher {
  /** Takes the sound in, a channel each, two of equal length; it begins at its first sample. */
  begin(channels: readonly Float32Array[], plan: StretchPlan): void;
  /** The next so many samples of two channels. */
  next(frames: number): readonly Float32Array<ArrayBuffer>[];
}

/** What the package registers: a processor of the audio thread. */
interface Processor {
  readonly port: Port;
  readonly outputLatencySeconds: number;
  process(inputs: readonly unknown[], outputs: readonly (readonly Float32Array[])[], parameters: object): boolean;
}

/** The end of a message channel as the processor has it. */
interface Port {
  onmessage: (event: { data: unknown[] }) => void;
  postMessage(message: readonly unknown[]): void;
}

/** The surroundings of the audio thread that the package looks for. */
interface AudioThread {
  AudioWorkletProcessor: unknown;
  registerProcessor: unknown;
  sampleRate: number;
  currentTime: number;
}

/** Samples that are made at once, as few as keep its spectra apart. */
const BLOCK = 128;
const CHANNELS = 2;

/**
 * Opens the stretcher of the package outside of the audio thread for which it is made, where it can run ahead of what is heard: it is
 * given the few names of that thread that it uses. Of samples that come out.
 *
 * @throws Error where this browser does not run what it is compiled to
 */
export async function openStretcher(sampleRate: number): Promise<Stretcher> {
  const thread = globalThis as unknown as AudioThread;
  let Registered: (new (options: object) => Processor) | undefined;
  thread.AudioWorkletProcessor ??= class {
    readonly port: Port = { onmessage: () => undefined, postMessage: ([what]) => what === 'ready' && ready() };
  };
  thread.registerProcessor = (_name: string, given: typeof Registered) => (Registered = given);
  [thread.sampleRate, thread.currentTime] = [sampleRate, 0];
  const isReady = new Promise<void>((resolve) => (ready = resolve));
  processorOf ??= import('signalsmith-stretch').then(() => Registered);
  const Known = await processorOf;
  if (!Known) throw new Error('The sound cannot be slowed down in this browser.');
  const processor = new Known({ numberOfOutputs: 1, outputChannelCount: [CHANNELS] });
  await isReady;
  const ask = (method: string, ...given: unknown[]) => processor.port.onmessage({ data: [0, method, ...given] });
  const block = [new Float32Array(BLOCK), new Float32Array(BLOCK)];
  const step = () => {
    processor.process([[]], [block], {});
    thread.currentTime += BLOCK / sampleRate;
  };
  return {
    begin(channels, { speed, semitones, loop }) {
      const seconds = (channels[0]?.length ?? 0) / sampleRate;
      ask('dropBuffers');
      ask('addBuffers', channels);
      const output = thread.currentTime + processor.outputLatencySeconds;
      const round = loop && speed > 0 ? { loopStart: 0, loopEnd: seconds } : { loopStart: 0, loopEnd: 0 };
      ask('schedule', { active: true, output, outputTime: output, input: 0, rate: speed, semitones, ...round });
      // What comes out first was made before the sound came in.
      while (thread.currentTime < output) step();
    },
    next(frames) {
      const out = Array.from({ length: CHANNELS }, () => new Float32Array(frames));
      for (let at = 0; at < frames; at += BLOCK) {
        step();
        const length = Math.min(BLOCK, frames - at);
        out.forEach((channel, index) => channel.set((block[index] ?? new Float32Array(0)).subarray(0, length), at));
      }
      return out;
    },
  };
}

/** What is called when the processor that was made last is ready; the class of the package is made once, and asks for it each time. */
let ready: () => void = () => undefined;
let processorOf: Promise<(new (options: object) => Processor) | undefined> | undefined;
