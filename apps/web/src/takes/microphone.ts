import { NotTaken } from '../sound/index.ts';

/** A recording under way. */
export interface Microphone {
  /** How loud it is just now, 0 to 1. */
  level(): number;
  /** When it began to record, by the clock of the page (`performance.now`). */
  readonly startedAt: number;
  /** Ends it; what was recorded. */
  stop(): Promise<Blob>;
}

/** How often what was recorded is handed over, so that little is lost when the page goes; milliseconds. */
const HAND_OVER_MS = 1000;

/**
 * Opens the microphone and records what it hears. Nothing that makes speech clearer is asked for: it would swallow a guitar.
 *
 * @param soFar told all that is recorded, every second
 * @param lost told when the microphone is unplugged in the middle
 * @throws NotTaken where there is none, or it may not be used
 */
export async function openMicrophone(soFar: (all: Blob) => void, lost: () => void): Promise<Microphone> {
  const stream = await openStream();
  const recorder = new MediaRecorder(stream, { audioBitsPerSecond: 128_000 });
  const chunks: Blob[] = [];
  const all = () => new Blob(chunks, { type: recorder.mimeType });
  recorder.ondataavailable = ({ data }) => {
    if (data.size === 0) return;
    chunks.push(data);
    soFar(all());
  };
  stream.getAudioTracks()[0]?.addEventListener('ended', lost);
  const meter = meterOf(stream);
  recorder.start(HAND_OVER_MS);
  return {
    startedAt: performance.now(),
    level: meter.level,
    async stop() {
      if (recorder.state !== 'inactive') {
        const stopped = new Promise((resolve) => (recorder.onstop = resolve));
        recorder.stop();
        await stopped;
      }
      stream.getTracks().forEach((track) => track.stop());
      await meter.close();
      return all();
    },
  };
}

/** Opens the microphone. @throws NotTaken where there is none, or it may not be used */
export async function openStream(): Promise<MediaStream> {
  // Without TLS browsers have no microphone, but for the machine they run on; their types say otherwise.
  const devices = navigator.mediaDevices as MediaDevices | undefined;
  if (!devices || !window.isSecureContext)
    throw new NotTaken(
      'A browser opens the microphone only for an address that begins with https. Choose a file instead.',
    );
  try {
    return await devices.getUserMedia({
      audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false },
    });
  } catch (error) {
    throw new NotTaken(sayTrouble(error instanceof DOMException ? error.name : ''));
  }
}

/** Names as in the W3C’s “Media Capture and Streams”, 10.2. */
function sayTrouble(name: string): string {
  if (name === 'NotAllowedError')
    return 'The microphone may not be used. Allow it in the settings of the browser, or choose a file.';
  if (name === 'NotFoundError') return 'There is no microphone. Plug one in, or choose a file.';
  if (name === 'NotReadableError') return 'The microphone is used by another program. Close that, or choose a file.';
  return 'The microphone does not answer. Choose a file instead.';
}

function meterOf(stream: MediaStream): { readonly level: () => number; readonly close: () => Promise<void> } {
  const context = new AudioContext();
  const analyser = context.createAnalyser();
  analyser.fftSize = 1024;
  context.createMediaStreamSource(stream).connect(analyser);
  const samples = new Float32Array(analyser.fftSize);
  return {
    level: () => {
      analyser.getFloatTimeDomainData(samples);
      return Math.min(
        1,
        samples.reduce((most, one) => Math.max(most, Math.abs(one)), 0),
      );
    },
    close: () => context.close(),
  };
}
