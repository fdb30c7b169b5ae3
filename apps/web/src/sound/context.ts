let context: AudioContext | undefined;

/** The one context of the page: what plays and what reads files share it, so that what is read can be played without being converted again. */
export function sharedContext(): AudioContext {
  context ??= new AudioContext({ latencyHint: 'interactive' });
  return context;
}
