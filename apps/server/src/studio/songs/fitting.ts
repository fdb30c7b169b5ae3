import { RHYTHMS, startValueOf } from '@jam-ledger/contract';
import { fitText, stringsFor, type Fitted } from '@jam-ledger/core/fitting';
import { readTempoChanges, tempoAt } from '@jam-ledger/core/form';
import { reachOfHand, type Guitar } from '@jam-ledger/core/fretboard';
import { readTuning, TUNINGS } from '@jam-ledger/core/pitch';
import { findOwn, type PersonModel, type SectionModel, type TranscriptionModel } from '../../store/index.ts';
import type { RequestContext } from '../context/context.ts';
import { orNotFound, parseWord } from '../context/rows.ts';
import { schoolsFor } from '../people/students.ts';

/** A place in a song, as far as its guitar and its time go. */
export interface PlaceThere {
  readonly song: Pick<
    TranscriptionModel,
    'tuning' | 'capo' | 'frets' | 'scaleLengthMm' | 'tempo' | 'meter' | 'changes' | 'rhythm'
  >;
  readonly section: Pick<SectionModel, 'startSeconds' | 'tuning' | 'capo'>;
}

/** Whose hand and guitar something is fitted to. */
export interface FitTo {
  readonly student: PersonModel;
  readonly isInBox: boolean;
}

/** Whom something is fitted to, with the school of positions that holds for them. */
export async function fitToOf(context: RequestContext, studentId: string): Promise<FitTo> {
  const student = orNotFound(await findOwn(context.store.people, { studioId: context.studio.id, id: studentId }));
  const { position } = await schoolsFor(context, student);
  return { student, isInBox: position === 'one box' };
}

/** The tuning that somebody’s guitar has for a song, as it is typed. */
export function tuningFor(typed: string, strings: number): string {
  const tuning = readTuning(typed) ?? TUNINGS.standard;
  const theirs = stringsFor(tuning, strings);
  return theirs === tuning ? typed : theirs.name;
}

/** A text of a place fitted to somebody’s guitar and hand. */
export function fitThere(text: string, { song, section }: PlaceThere, { student, isInBox }: FitTo): Fitted {
  const tuning = readTuning(section.tuning ?? song.tuning) ?? TUNINGS.standard;
  const capo = section.capo ?? song.capo;
  const from: Guitar = {
    ...{ tuning, capo, frets: song.frets, scaleLengthMm: song.scaleLengthMm },
    reachMm: reachOfHand({ spanFrets: null, scaleLengthMm: song.scaleLengthMm }),
  };
  const { frets, scaleLengthMm, strings } = student;
  const to: Guitar = {
    ...{ tuning: stringsFor(tuning, strings), capo, frets, scaleLengthMm },
    reachMm: reachOfHand({ spanFrets: student.spanFrets ?? null, scaleLengthMm }),
  };
  const { bpm, meter } = tempoAt(section.startSeconds, readTempoChanges(song));
  const startValue = startValueOf(parseWord(RHYTHMS, song.rhythm));
  return fitText(text, from, to, { bpm, meter, startValue, isInBox });
}
