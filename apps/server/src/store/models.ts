import type { SectionBody, SetUp } from '@jam-ledger/contract';
import type { Stretch } from '@jam-ledger/core/pieces';
import type { LessonChanges, LessonRule } from '@jam-ledger/core/series';
import { Model, type CreationOptional, type InferAttributes, type InferCreationAttributes } from 'sequelize';

/** A row of a studio, with the version that guards it against stale saves. */
export abstract class StudioRow<Row extends StudioRow<Row>> extends Model<
  InferAttributes<Row>,
  InferCreationAttributes<Row>
> {
  declare id: CreationOptional<string>;
  declare studioId: string;
  declare version: CreationOptional<number>;
}

export class StudioModel extends Model<InferAttributes<StudioModel>, InferCreationAttributes<StudioModel>> {
  declare id: CreationOptional<string>;
  declare version: CreationOptional<number>;
  declare name: string;
  declare zone: string;
  declare picking: CreationOptional<string>;
  declare position: CreationOptional<string>;
  declare first: CreationOptional<string>;
  declare hearing: CreationOptional<string>;
  declare learning: CreationOptional<string>;
  declare raising: CreationOptional<string>;
  /** For transcribing, in a week. */
  declare workMinutes: CreationOptional<number>;
}

export class PersonModel extends StudioRow<PersonModel> {
  declare role: string;
  declare name: string;
  declare signInName: string;
  declare passwordHash: string;
  declare frets: CreationOptional<number>;
  declare strings: CreationOptional<number>;
  declare scaleLengthMm: CreationOptional<number>;
  declare tremoloArm: CreationOptional<boolean>;
  declare leftHanded: CreationOptional<boolean>;
  declare spanFrets: CreationOptional<number | null>;
  declare picking: CreationOptional<string | null>;
  declare position: CreationOptional<string | null>;
  declare first: CreationOptional<string | null>;
  declare hearing: CreationOptional<string | null>;
  declare learning: CreationOptional<string | null>;
  declare raising: CreationOptional<string | null>;
}

export class RequestModel extends StudioRow<RequestModel> {
  declare studentId: string;
  declare title: string;
  declare whose: string;
  declare wanted: readonly string[];
  declare notWanted: readonly string[];
  declare rendition: string;
  declare guitarMeant: string;
  declare guitar: string;
  declare scope: CreationOptional<string>;
  declare followsId: string | null;
  declare wantedBy: string | null;
  declare remarks: string;
  declare state: CreationOptional<string>;
  declare askedAt: Date;
}

export class RequestEventModel extends StudioRow<RequestEventModel> {
  declare requestId: string;
  declare at: Date;
  declare personId: string;
  declare state: string;
  declare note: string;
}

export class TranscriptionModel extends StudioRow<TranscriptionModel> {
  declare studentId: string;
  declare requestId: string;
  declare title: string;
  declare whose: string;
  declare tuning: string;
  declare capo: number;
  declare key: string;
  declare tempo: number;
  declare meter: string;
  declare frets: number;
  declare offsetCents: number;
  declare secondKey: CreationOptional<string>;
  declare feel: CreationOptional<string>;
  declare changes: CreationOptional<SetUp['changes']>;
  declare rig: CreationOptional<SetUp['rig']>;
  declare scaleLengthMm: CreationOptional<number>;
  declare songSeconds: CreationOptional<number | null>;
  declare pitchWay: CreationOptional<string>;
  declare studentLayer: CreationOptional<string>;
}

export class SectionModel extends StudioRow<SectionModel> {
  declare transcriptionId: string;
  declare label: string;
  declare role: string;
  declare startSeconds: number;
  declare bars: number;
  declare times: number;
  declare open: boolean;
  declare passes: SectionBody['passes'];
  declare jump: SectionBody['jump'];
  declare struck: CreationOptional<boolean>;
}

export class PhraseModel extends StudioRow<PhraseModel> {
  declare sectionId: string;
  declare place: number;
  declare name: string;
  declare text: string;
  declare layer: string;
  declare certainty: string;
  declare reason: string;
  declare status: CreationOptional<string>;
  declare checkedBy: CreationOptional<string>;
  declare checkedAgainst: CreationOptional<string>;
  declare checkedAt: CreationOptional<Date | null>;
  declare alternateOf: CreationOptional<string | null>;
  declare chosen: CreationOptional<boolean>;
  declare refersTo: CreationOptional<string | null>;
  declare movedFrets: CreationOptional<number>;
  declare struck: CreationOptional<boolean>;
}

export class PhraseRevisionModel extends StudioRow<PhraseRevisionModel> {
  declare phraseId: string;
  declare personId: string;
  declare at: Date;
  declare text: string;
}

/** What a phrase can be found by; its id is the phrase’s. */
export class PhraseFactsModel extends StudioRow<PhraseFactsModel> {
  declare techniques: string[];
  declare chords: string[];
  declare degrees: string;
  declare shape: string;
  declare steps: string;
  declare grams: string[];
  declare lowestFret: number;
  declare highestFret: number;
  declare bpm: number;
  declare bars: number;
}

export class PieceModel extends StudioRow<PieceModel> {
  declare studentId: string;
  declare phraseId: string;
  declare songId: string;
  declare startBpm: number;
  declare targetBpm: number;
  /** The day it was given; null while it is planned. */
  declare assignedOn: CreationOptional<string | null>;
  declare kind: CreationOptional<string>;
  declare parts: readonly Stretch[];
  declare cut: string;
  declare place: CreationOptional<number>;
  declare fixed: CreationOptional<boolean>;
  declare floorBpm: CreationOptional<number | null>;
  declare difficulty: CreationOptional<number | null>;
  declare pace: CreationOptional<number | null>;
  declare struck: CreationOptional<boolean>;
}

export class EntryModel extends StudioRow<EntryModel> {
  declare pieceId: string;
  declare postedBy: string;
  declare bpm: number;
  declare outcome: string;
  declare medium: string;
  declare percent: CreationOptional<number>;
  declare remark: string;
  declare postedAt: Date;
  declare struck: CreationOptional<boolean>;
}

/** How the pieces of a song are learned; its id is the song’s. */
export class PlanModel extends StudioRow<PlanModel> {
  declare learning: CreationOptional<string | null>;
  declare raising: CreationOptional<string | null>;
  declare targetPercent: CreationOptional<number>;
  declare cleanNeeded: CreationOptional<number>;
  declare fallsAfter: CreationOptional<number>;
  declare restMinutes: CreationOptional<number>;
}

/** Lessons of a student by a rule. */
export class SeriesModel extends StudioRow<SeriesModel> {
  declare studentId: string;
  declare teacherId: string;
  declare title: string;
  declare rule: LessonRule;
  declare changes: LessonChanges;
  declare goal: string;
  declare goalDay: string | null;
  declare struck: CreationOptional<boolean>;
}

/** A note at an event of a phrase, ticks as played. */
export class PinModel extends StudioRow<PinModel> {
  declare phraseId: string;
  declare personId: string;
  declare at: number;
  declare text: string;
  declare pinnedAt: Date;
  declare struck: CreationOptional<boolean>;
}
