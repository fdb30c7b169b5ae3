import type { AssignedTempo, Instalment, KeptStanding, SectionBody, SetUp } from '@jam-ledger/contract';
import type { Excerpt } from '@jam-ledger/core/pieces';
import type { Holiday, LessonChanges, LessonRule } from '@jam-ledger/core/series';
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
  declare naming: CreationOptional<string>;
  declare fidelity: CreationOptional<string>;
  /** For transcribing, in a week. */
  declare workMinutes: CreationOptional<number>;
  declare holidays: CreationOptional<readonly Holiday[]>;
}

export class PersonModel extends StudioRow<PersonModel> {
  declare role: string;
  declare name: string;
  /** Null until they accept an invitation. */
  declare signInName: CreationOptional<string | null>;
  declare passwordHash: CreationOptional<string | null>;
  /** When they left; null while they are here. */
  declare archivedAt: CreationOptional<Date | null>;
  declare teacherId: CreationOptional<string | null>;
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
  declare naming: CreationOptional<string | null>;
  declare fidelity: CreationOptional<string | null>;
}

/** A student whose pages a guardian reads. */
export class GuardianModel extends StudioRow<GuardianModel> {
  declare guardianId: string;
  declare studentId: string;
}

/** A link that lets somebody choose a name and a password, once. */
export class InvitationModel extends StudioRow<InvitationModel> {
  declare personId: string;
  declare madeBy: string;
  declare tokenHash: string;
  declare expiresAt: Date;
  declare usedAt: CreationOptional<Date | null>;
}

/** A message that would be sent. */
export class MailModel extends StudioRow<MailModel> {
  declare personId: string;
  declare subject: string;
  declare body: string;
  declare madeAt: Date;
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
  /** The day it was promised for; null where none was. */
  declare promisedFor: CreationOptional<string | null>;
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
  declare parts: readonly Excerpt[];
  declare cut: string;
  declare place: CreationOptional<number>;
  declare fixed: CreationOptional<boolean>;
  declare floorBpm: CreationOptional<number | null>;
  declare difficulty: CreationOptional<number | null>;
  declare learningRate: CreationOptional<number | null>;
  /** Where it stands, as far as the desk and a lesson ask; null until it is computed anew. */
  declare kept: CreationOptional<KeptStanding | null>;
  /** How urgently it calls for the teacher, 0 first; null where it does not. */
  declare call: CreationOptional<number | null>;
  /** The lesson it is to be begun in, and whether a teacher chose that by hand. */
  declare lessonDay: CreationOptional<string | null>;
  declare lessonFixed: CreationOptional<boolean>;
  declare struck: CreationOptional<boolean>;
}

export class EntryModel extends StudioRow<EntryModel> {
  declare pieceId: string;
  declare postedBy: string;
  declare bpm: number;
  declare outcome: string;
  declare medium: string;
  declare percent: CreationOptional<number>;
  /** The stretch of the piece it was played on, ticks as played; null for all of it. */
  declare loopFrom: CreationOptional<number | null>;
  declare loopTo: CreationOptional<number | null>;
  /** The piece whose ladder it moves; null for none. */
  declare countsFor: CreationOptional<string | null>;
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
  declare instalments: CreationOptional<readonly Instalment[]>;
  declare struck: CreationOptional<boolean>;
}

/** What a lesson came to: words for the studio, what goes home, what is assigned. */
export class LessonNoteModel extends StudioRow<LessonNoteModel> {
  declare studentId: string;
  declare day: string;
  declare words: string;
  declare home: string;
  declare assigned: readonly AssignedTempo[];
  declare writtenBy: string;
  declare writtenAt: Date;
}

/** What such a note was before. */
export class LessonNoteRevisionModel extends StudioRow<LessonNoteRevisionModel> {
  declare noteId: string;
  declare words: string;
  declare home: string;
  declare assigned: readonly AssignedTempo[];
  declare writtenBy: string;
  declare writtenAt: Date;
}

/** A point of a phrase that was inspected in a lesson, ticks as played. */
export class HearingModel extends StudioRow<HearingModel> {
  declare pieceId: string;
  declare day: string;
  declare at: number;
  declare kind: string;
  declare isRight: boolean;
  declare remark: string;
  declare personId: string;
  declare struck: CreationOptional<boolean>;
}

/** A stretch of work on a request. */
export class WorkSpanModel extends StudioRow<WorkSpanModel> {
  declare requestId: string;
  declare personId: string;
  declare startedAt: Date;
  /** The last sign of life. */
  declare seenAt: Date;
  declare endedAt: CreationOptional<Date | null>;
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
