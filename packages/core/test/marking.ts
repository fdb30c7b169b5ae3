import { newTechniques } from '../src/difficulty/index.ts';
import { hearingList } from '../src/hearing/index.ts';
import { readShorthand, techniquesOf, type Technique } from '../src/notation/index.ts';
import { TUNINGS } from '../src/pitch/index.ts';
import { usualGuitar } from '../src/fretboard/index.ts';

/** The techniques of a phrase as typed. */
export function techniquesIn(text: string): readonly Technique[] {
  return [...techniquesOf(readShorthand(text).phrase).keys()];
}

/** What is inspected where it is heard: of what kind, in which words. */
export function hearingOf(text: string): readonly (readonly [kind: string, says: string])[] {
  const points = hearingList(readShorthand(text).phrase, { tuning: TUNINGS.standard, capo: 0 });
  return points.map(({ kind, says }) => [kind, says]);
}

/** What a drill of a technique says to listen for. */
export function drillFor(text: string, technique: string | undefined): string | undefined {
  const found = newTechniques(readShorthand(text).phrase, new Set(), usualGuitar(TUNINGS.standard));
  return found.find((one) => one.technique === technique)?.drill.says;
}
