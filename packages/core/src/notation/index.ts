export * from './model.ts';
export * from './values.ts';
export * from './problems.ts';
export { readShorthand, MAX_ITEMS, DEEPEST_NEST } from './read.ts';
export { readStamp, TEMPO_RANGE } from './settings.ts';
export type { ReadOptions, Reading } from './read.ts';
export { HARMONIC_RATIOS, WIDEST_BEND_STEPS } from './links.ts';
export { STRING_LETTERS, LETTERED_STRINGS, letterOfString, stringOfLetter } from './strings.ts';
export { writeEvent, writeShorthand, writeStamp } from './write.ts';
export type { WriteOptions } from './write.ts';
export { beatsOf, eventsOfBars, hasRhythm, isHeardOn, unroll, MAX_PLAYED } from './unroll.ts';
export type { Timeline, TimedEvent, PlayedBar } from './unroll.ts';
export { FIRST_ROUND, hasRounds, inRound, isIn } from './rounds.ts';
export type { Round } from './rounds.ts';
export { heardOf, namedMidi } from './heard.ts';
export type { HeardHow, HeardNote } from './heard.ts';
export { isGuessed, playOut } from './playOut.ts';
export type { PlayedEvent, PlayedPitch, Setup } from './playOut.ts';
export { secondsOfEvents, tempoSegments } from './time.ts';
export type { TempoSegment } from './time.ts';
export { perform, accompany } from './perform.ts';
export type { Accompaniment, Attack, Click, EventTime, PerformOptions, PlayedNote } from './perform.ts';
export { centsAt, VIBRATO } from './contour.ts';
export type { ContourPoint } from './contour.ts';
export { heldFrom, heldSpans } from './standing.ts';
export { settledStrokes } from './strokes.ts';
export { scoreOf, MAX_ENGRAVED } from './score.ts';
export type { ScoreBar, ScoreEvent } from './score.ts';
export {
  eventsIn,
  eventsOf,
  insertItem,
  repeatEvent,
  swapWays,
  togglePalmMute,
  touchNeck,
  transpose,
  wrapInRepeat,
} from './edit.ts';
export type { Edit, Edited, PlacedItem } from './edit.ts';
export { foldCase, sayAnotherWay, SAYINGS } from './sayings.ts';
export type { Saying } from './sayings.ts';
export { movedText, moveBetween, sayMove, UNMOVED } from './move.ts';
export type { Move, MoveOn, WrittenPhrase } from './move.ts';
export { keepStrings, mapEvents, mapItems, rewriteEvents, rewriteMoved, withItems } from './rewrite.ts';
export { drillWords, rarityOf, TECHNIQUES, techniquesOf, techniquesOfEvents } from './techniques.ts';
export { HEARING_KINDS } from './signs.ts';
export type { HearingKind, SignRecord } from './signs.ts';
export { EVENT_MARKS, isPlucking, MARK_RECORDS, SAID_FIRST_PATTERN } from './marks.ts';
export type { MarkRecord } from './marks.ts';
export { LINK_RECORDS, linkOfCode } from './linkRecords.ts';
export type { LinkRecord } from './linkRecords.ts';
export { NOTE_MARK_RECORDS } from './noteMarks.ts';
export type { NoteMark, NoteMarkRecord } from './noteMarks.ts';
export { SURENESS_RECORDS, SURENESSES } from './surenesses.ts';
export type { SurenessRecord } from './surenesses.ts';
export { EVENT_PARTS } from './eventParts.ts';
export type { EventPart } from './eventParts.ts';
export type { Technique, Techniques } from './techniques.ts';
export { crossCells, sayCell } from './cells.ts';
export type { CrossCell } from './cells.ts';
export { doubtsOf } from './doubts.ts';
export type { Doubt, DoubtKind } from './doubts.ts';
export { compareVersions } from './versions.ts';
export type { VersionEvent, VersionStep } from './versions.ts';
export { retune } from './retune.ts';
export type { Retuned, Retuning, Strung } from './retune.ts';
