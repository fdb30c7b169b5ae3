import { Chord, Note } from 'tonal';
import type { Accompaniment, PlayedNote } from '../notation/index.ts';

/** Lowest bass note, and lowest note of the chord above it, MIDI. Our choice: below and beside the guitar. */
const BASS_FROM = 36;
const CHORD_FROM = 55;

/** Most voices of the chord above the bass. Our choice. */
const VOICES = 4;

/** Strings of the backing's own, beyond those of any guitar; each voice has one. */
const BACKING_STRINGS = 20;

const LEVELS = { bass: 0.7, chord: 0.34 } as const;

/** The bass note and the chord above it for a symbol, MIDI; undefined for a symbol that is not known. */
export function voiceChord(symbol: string): { readonly bass: number; readonly chord: readonly number[] } | undefined {
  const { notes } = Chord.get(symbol);
  const root = notes[0];
  if (root === undefined) return undefined;
  const bass = chromaOf(symbol.includes('/') ? symbol.slice(symbol.lastIndexOf('/') + 1) : root) ?? chromaOf(root) ?? 0;
  const chromas = [...new Set(notes.flatMap((name) => chromaOf(name) ?? []))];
  const chord = chromas.slice(0, VOICES).map((chroma) => above(CHORD_FROM, chroma));
  return { bass: above(BASS_FROM, bass), chord: chord.sort((a, b) => a - b) };
}

/**
 * A plain bass and chord under a phrase, from its harmony symbols: the bass on every first and middle beat, the
 * chord where it changes and where a bar begins. Seconds as in the accompaniment; empty where no chord is written.
 */
export function backingOf({ chords, clicks, seconds }: Accompaniment): readonly PlayedNote[] {
  const bars = clicks.filter(({ accent }) => accent).map((click) => click.seconds);
  const strokes = [...new Set([...chords.map((chord) => chord.seconds), ...bars])].sort((a, b) => a - b);
  return strokes.flatMap((at, index) => {
    const symbol = chords.findLast((chord) => chord.seconds <= at)?.chord;
    const voiced = typeof symbol === 'string' ? voiceChord(symbol) : undefined;
    if (!voiced) return [];
    const end = strokes[index + 1] ?? seconds;
    const beats = clicks.filter((click) => click.seconds > at && click.seconds < end);
    const half = beats[Math.floor(beats.length / 2)]?.seconds;
    const basses = [at, ...(beats.length >= 2 && half !== undefined ? [half] : [])];
    return [
      ...basses.map((from, turn) => stroke(voiced.bass, 0, LEVELS.bass, from, basses[turn + 1] ?? end)),
      ...voiced.chord.map((midi, voice) => stroke(midi, voice + 1, LEVELS.chord, at, end)),
    ];
  });
}

function stroke(midi: number, voice: number, level: number, from: number, to: number): PlayedNote {
  return {
    startSeconds: from,
    durationSeconds: Math.max(0.05, to - from),
    string: BACKING_STRINGS + voice,
    midi,
    contour: [{ seconds: 0, cents: 0 }],
    attack: 'finger',
    level,
    palmMuted: false,
    harmonic: false,
    span: { from: 0, to: 0 },
  };
}

function chromaOf(name: string): number | undefined {
  const { chroma } = Note.get(name);
  return Number.isFinite(chroma) ? chroma : undefined;
}

/** The lowest MIDI number of a pitch class from a number on. */
function above(from: number, chroma: number): number {
  return from + ((((chroma - from) % 12) + 12) % 12);
}
