let context: AudioContext | undefined;

/** Makes it while nothing else is done: opening a sound device holds a page up for longer than a note may come late. */
export function prepareContext(): void {
  if ('requestIdleCallback' in window) requestIdleCallback(() => sharedContext());
}

/** The one context of the page: what plays and what reads files share it, so that what is read can be played without being converted again. */
export function sharedContext(): AudioContext {
  context ??= new AudioContext({ latencyHint: 'interactive' });
  return context;
}
