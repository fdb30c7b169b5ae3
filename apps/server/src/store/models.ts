import type { SectionBody, SetUp } from '@jam-ledger/contract';
import {
  DataTypes,
  Model,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  type ModelStatic,
  type Sequelize,
} from 'sequelize';

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
}

export class PieceModel extends StudioRow<PieceModel> {
  declare studentId: string;
  declare phraseId: string;
  declare startBpm: number;
  declare targetBpm: number;
  declare assignedOn: string;
  declare struck: CreationOptional<boolean>;
}

export class EntryModel extends StudioRow<EntryModel> {
  declare pieceId: string;
  declare postedBy: string;
  declare bpm: number;
  declare outcome: string;
  declare medium: string;
  declare remark: string;
  declare postedAt: Date;
  declare struck: CreationOptional<boolean>;
}

/** Models bound to one database. */
export interface Models {
  readonly studios: ModelStatic<StudioModel>;
  readonly people: ModelStatic<PersonModel>;
  readonly requests: ModelStatic<RequestModel>;
  readonly requestEvents: ModelStatic<RequestEventModel>;
  readonly transcriptions: ModelStatic<TranscriptionModel>;
  readonly sections: ModelStatic<SectionModel>;
  readonly phrases: ModelStatic<PhraseModel>;
  readonly phraseRevisions: ModelStatic<PhraseRevisionModel>;
  readonly phraseFacts: ModelStatic<PhraseFactsModel>;
  readonly pieces: ModelStatic<PieceModel>;
  readonly entries: ModelStatic<EntryModel>;
}

// Sequelize writes into the attributes it is given, so every column gets an object of its own.
const text = () => ({ type: DataTypes.TEXT, allowNull: false });
const whole = () => ({ type: DataTypes.INTEGER, allowNull: false });
const real = () => ({ type: DataTypes.DOUBLE, allowNull: false });
const words = () => ({ type: DataTypes.ARRAY(DataTypes.TEXT), allowNull: false });
const yesOrNo = () => ({ type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false });
const json = () => ({ type: DataTypes.JSONB, allowNull: false });
const uuid = () => ({ type: DataTypes.UUID, allowNull: false });
const moment = () => ({ type: DataTypes.DATE, allowNull: false });
const version = () => ({ ...whole(), defaultValue: 1 });
const ownId = () => ({ type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 });
const row = () => ({ id: ownId(), studioId: uuid(), version: version() });

/** Makes the models of one database; each connection has classes of its own. */
export function defineModels(sequelize: Sequelize): Models {
  const options = (tableName: string) => ({
    sequelize,
    tableName,
    modelName: tableName,
    underscored: true,
    timestamps: false,
  });
  return {
    studios: class extends StudioModel {}.init(
      {
        id: ownId(),
        version: version(),
        name: text(),
        zone: text(),
        picking: { ...text(), defaultValue: 'the player’s choice' },
        position: { ...text(), defaultValue: 'as recorded' },
        first: { ...text(), defaultValue: 'where first' },
      },
      options('studios'),
    ),
    people: class extends PersonModel {}.init(
      {
        ...row(),
        role: text(),
        name: text(),
        signInName: text(),
        passwordHash: text(),
        frets: { ...whole(), defaultValue: 22 },
        strings: { ...whole(), defaultValue: 6 },
        scaleLengthMm: { ...real(), defaultValue: 648 },
        tremoloArm: yesOrNo(),
        leftHanded: yesOrNo(),
        spanFrets: { type: DataTypes.INTEGER },
        picking: { type: DataTypes.TEXT },
        position: { type: DataTypes.TEXT },
        first: { type: DataTypes.TEXT },
      },
      options('people'),
    ),
    requests: class extends RequestModel {}.init(
      {
        ...row(),
        studentId: uuid(),
        title: text(),
        whose: text(),
        wanted: json(),
        notWanted: json(),
        rendition: text(),
        guitarMeant: text(),
        guitar: text(),
        scope: { ...text(), defaultValue: '' },
        followsId: { type: DataTypes.UUID },
        wantedBy: { type: DataTypes.DATEONLY },
        remarks: text(),
        state: { ...text(), defaultValue: 'asked' },
        askedAt: moment(),
      },
      options('requests'),
    ),
    requestEvents: class extends RequestEventModel {}.init(
      { ...row(), requestId: uuid(), at: moment(), personId: uuid(), state: text(), note: text() },
      options('request_events'),
    ),
    transcriptions: class extends TranscriptionModel {}.init(
      {
        ...row(),
        studentId: uuid(),
        requestId: uuid(),
        title: text(),
        whose: text(),
        tuning: text(),
        capo: whole(),
        key: text(),
        tempo: real(),
        meter: text(),
        frets: whole(),
        offsetCents: real(),
        secondKey: { ...text(), defaultValue: '' },
        feel: { ...text(), defaultValue: 'straight' },
        changes: { ...json(), defaultValue: [] },
        rig: { ...json(), defaultValue: [] },
        scaleLengthMm: { ...real(), defaultValue: 648 },
        songSeconds: { type: DataTypes.DOUBLE },
        pitchWay: { ...text(), defaultValue: 'tune the guitar' },
        studentLayer: { ...text(), defaultValue: 'lead' },
      },
      options('transcriptions'),
    ),
    sections: class extends SectionModel {}.init(
      {
        ...row(),
        transcriptionId: uuid(),
        label: text(),
        role: text(),
        startSeconds: real(),
        bars: whole(),
        times: whole(),
        open: { type: DataTypes.BOOLEAN, allowNull: false },
        passes: json(),
        jump: { type: DataTypes.JSONB },
        struck: yesOrNo(),
      },
      options('sections'),
    ),
    phrases: class extends PhraseModel {}.init(
      {
        ...row(),
        sectionId: uuid(),
        place: whole(),
        name: text(),
        text: text(),
        layer: text(),
        certainty: text(),
        reason: text(),
        status: { ...text(), defaultValue: 'draft' },
        checkedBy: { ...text(), defaultValue: '' },
        checkedAgainst: { ...text(), defaultValue: '' },
        checkedAt: { type: DataTypes.DATE },
        alternateOf: { type: DataTypes.UUID },
        chosen: { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: true },
        refersTo: { type: DataTypes.UUID },
        movedFrets: { ...whole(), defaultValue: 0 },
        struck: yesOrNo(),
      },
      options('phrases'),
    ),
    phraseRevisions: class extends PhraseRevisionModel {}.init(
      { ...row(), phraseId: uuid(), personId: uuid(), at: moment(), text: text() },
      options('phrase_revisions'),
    ),
    phraseFacts: class extends PhraseFactsModel {}.init(
      {
        ...row(),
        techniques: words(),
        chords: words(),
        degrees: text(),
        shape: text(),
        steps: text(),
        grams: words(),
        lowestFret: whole(),
        highestFret: whole(),
        bpm: real(),
      },
      options('phrase_facts'),
    ),
    pieces: class extends PieceModel {}.init(
      {
        ...row(),
        studentId: uuid(),
        phraseId: uuid(),
        startBpm: whole(),
        targetBpm: whole(),
        assignedOn: { type: DataTypes.DATEONLY, allowNull: false },
        struck: yesOrNo(),
      },
      options('pieces'),
    ),
    entries: class extends EntryModel {}.init(
      {
        ...row(),
        pieceId: uuid(),
        postedBy: uuid(),
        bpm: whole(),
        outcome: text(),
        medium: text(),
        remark: text(),
        postedAt: moment(),
        struck: yesOrNo(),
      },
      options('entries'),
    ),
  };
}
