import { startValueOf, type PlanPiece, type Transcription } from '@jam-ledger/contract';
import { difficultyOf } from '@jam-ledger/core/difficulty';
import { reachOfHand } from '@jam-ledger/core/fretboard';
import { tempoAt, readTempoChanges } from '@jam-ledger/core/form';
import { readPlaced } from '@jam-ledger/core/placing';
import { cutKey, cutPieces, floorTempo, phraseToCut, temposOf } from '@jam-ledger/core/pieces';
import { readTuning, TUNINGS } from '@jam-ledger/core/pitch';
import { randomUUID } from 'node:crypto';

/** The pieces of a song as the school of its student would cut them; those that are there already stay as they are. */
export function demoPlan(song: Transcription, already: readonly PlanPiece[]): readonly PlanPiece[] {
  const { capo, frets, scaleLengthMm, student } = song;
  const tuning = readTuning(song.tuning) ?? TUNINGS.standard;
  const guitar = { tuning, capo, frets, scaleLengthMm, reachMm: reachOfHand(student.guitar) };
  const phrases = song.sections.flatMap(({ id: sectionId, startSeconds, phrases: own }) =>
    own.map(({ id, text }) => {
      const { bpm, meter } = tempoAt(startSeconds, readTempoChanges(song));
      const { phrase } = readPlaced(text, { tuning, capo, meter, startValue: startValueOf(song.rhythm) });
      const { total, hardest } = difficultyOf(phrase, { ...guitar, bpm });
      const cut = phraseToCut(phrase, { id, sectionId, difficulty: total, hardest: hardest?.span });
      return { bpm, cut, floorBpm: floorTempo(phrase, bpm)?.bpm ?? null };
    }),
  );
  const known = new Map(already.map((piece) => [cutKey(piece), piece]));
  return cutPieces(
    phrases.map(({ cut }) => cut),
    student.schools.learning,
  ).map((cut): PlanPiece => {
    const tempos = temposOf(cut, phrases, { shown: student.shown });
    const { id, kind, parts, startBpm, targetBpm, floorBpm, difficulty, fixed, lesson } = {
      ...cut,
      ...tempos,
      id: randomUUID(),
      fixed: false,
      lesson: null,
      ...known.get(cutKey(cut)),
    };
    return {
      id,
      kind,
      parts,
      startBpm,
      targetBpm,
      floorBpm: floorBpm ?? tempos.floorBpm,
      difficulty: difficulty ?? tempos.difficulty,
      fixed,
      lesson,
    };
  });
}
