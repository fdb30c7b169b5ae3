import { diffArrays } from 'diff';
import type { Span } from './model.ts';
import { readShorthand, type ReadOptions } from './read.ts';
import { scoreOf } from './score.ts';
import { sayPlace } from './values.ts';

/** An event (or rest) of one version of a text, and where it stands: `bar 1, beat 2`, or `note 2`. */
export interface VersionEvent {
  readonly text: string;
  readonly span: Span;
  readonly place: string;
}

/** One step of a comparison: the event before, the event after, or both where it was changed or kept. */
export interface VersionStep {
  readonly kind: 'kept' | 'changed' | 'gone' | 'added';
  readonly before?: VersionEvent;
  readonly after?: VersionEvent;
}

/**
 * Compares two versions of a phrase event by event, in playing order of the page; marks and values of an event count,
 * white space does not. What stands where something else stood is changed.
 */
export function compareVersions(before: string, after: string, options: ReadOptions): readonly VersionStep[] {
  const old = versionEvents(before, options);
  const now = versionEvents(after, options);
  const steps: VersionStep[] = [];
  const said = (events: readonly VersionEvent[]) => events.map(({ text }) => text);
  let [o, n] = [0, 0];
  const gone: VersionEvent[] = [];
  const flush = () => steps.push(...gone.splice(0).map((event): VersionStep => ({ kind: 'gone', before: event })));
  for (const { added, removed, count } of diffArrays(said(old), said(now))) {
    if (removed) gone.push(...old.slice(o, o + count));
    else if (added)
      for (const event of now.slice(n, n + count)) {
        const was = gone.shift();
        steps.push(was ? { kind: 'changed', before: was, after: event } : { kind: 'added', after: event });
      }
    else {
      flush();
      for (let step = 0; step < count; step += 1) {
        const [was, is] = [old[o + step], now[n + step]];
        if (was && is) steps.push({ kind: 'kept', before: was, after: is });
      }
    }
    if (!added) o += count;
    if (!removed) n += count;
  }
  flush();
  return steps;
}

function versionEvents(text: string, options: ReadOptions): readonly VersionEvent[] {
  let note = 0;
  return scoreOf(readShorthand(text, options).phrase).flatMap(({ events, meter }, index) =>
    events.map(({ item, span, at, timed }) => {
      if (item) note += 1;
      return {
        text: text.slice(span.from, span.to).replaceAll(/\s+/g, ' '),
        span,
        place: sayPlace({ timed, bar: index + 1, at, meter, note }),
      };
    }),
  );
}
