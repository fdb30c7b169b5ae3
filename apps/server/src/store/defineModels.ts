import { DataTypes, type ModelStatic, type Sequelize } from 'sequelize';
import {
  EntryModel,
  GuardianModel,
  HearingModel,
  InvitationModel,
  LessonNoteModel,
  LessonNoteRevisionModel,
  MailModel,
  PersonModel,
  PhraseFactsModel,
  PhraseModel,
  PhraseRevisionModel,
  PieceModel,
  PinModel,
  PlanModel,
  RequestEventModel,
  RequestModel,
  SectionModel,
  SeriesModel,
  StudioModel,
  TranscriptionModel,
  WorkSpanModel,
} from './models.ts';

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
  readonly plans: ModelStatic<PlanModel>;
  readonly pins: ModelStatic<PinModel>;
  readonly series: ModelStatic<SeriesModel>;
  readonly guardians: ModelStatic<GuardianModel>;
  readonly invitations: ModelStatic<InvitationModel>;
  readonly outbox: ModelStatic<MailModel>;
  readonly lessonNotes: ModelStatic<LessonNoteModel>;
  readonly lessonNoteRevisions: ModelStatic<LessonNoteRevisionModel>;
  readonly hearings: ModelStatic<HearingModel>;
  readonly workSpans: ModelStatic<WorkSpanModel>;
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
        hearing: { ...text(), defaultValue: 'full speed first' },
        learning: { ...text(), defaultValue: 'front to back' },
        raising: { ...text(), defaultValue: 'small even steps' },
        naming: { ...text(), defaultValue: 'letters' },
        fidelity: { ...text(), defaultValue: 'note for note' },
        workMinutes: { ...whole(), defaultValue: 300 },
        holidays: { ...json(), defaultValue: [] },
      },
      options('studios'),
    ),
    people: class extends PersonModel {}.init(
      {
        ...row(),
        role: text(),
        name: text(),
        signInName: { type: DataTypes.TEXT },
        passwordHash: { type: DataTypes.TEXT },
        archivedAt: { type: DataTypes.DATE },
        teacherId: { type: DataTypes.UUID },
        frets: { ...whole(), defaultValue: 22 },
        strings: { ...whole(), defaultValue: 6 },
        scaleLengthMm: { ...real(), defaultValue: 648 },
        tremoloArm: yesOrNo(),
        leftHanded: yesOrNo(),
        spanFrets: { type: DataTypes.INTEGER },
        picking: { type: DataTypes.TEXT },
        position: { type: DataTypes.TEXT },
        first: { type: DataTypes.TEXT },
        hearing: { type: DataTypes.TEXT },
        learning: { type: DataTypes.TEXT },
        raising: { type: DataTypes.TEXT },
        naming: { type: DataTypes.TEXT },
        fidelity: { type: DataTypes.TEXT },
      },
      options('people'),
    ),
    guardians: class extends GuardianModel {}.init(
      { ...row(), guardianId: uuid(), studentId: uuid() },
      options('guardians'),
    ),
    invitations: class extends InvitationModel {}.init(
      {
        ...row(),
        personId: uuid(),
        madeBy: uuid(),
        tokenHash: text(),
        expiresAt: moment(),
        usedAt: { type: DataTypes.DATE },
      },
      options('invitations'),
    ),
    outbox: class extends MailModel {}.init(
      { ...row(), personId: uuid(), subject: text(), body: text(), madeAt: moment() },
      options('outbox'),
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
        promisedFor: { type: DataTypes.DATEONLY },
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
        bars: real(),
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
        assignedOn: { type: DataTypes.DATEONLY },
        songId: uuid(),
        kind: { ...text(), defaultValue: 'phrase' },
        parts: json(),
        cut: text(),
        place: { ...whole(), defaultValue: 0 },
        fixed: yesOrNo(),
        floorBpm: { type: DataTypes.INTEGER },
        difficulty: { type: DataTypes.DOUBLE },
        learningRate: { type: DataTypes.DOUBLE },
        kept: { type: DataTypes.JSONB },
        call: { type: DataTypes.SMALLINT },
        lessonDay: { type: DataTypes.DATEONLY },
        lessonFixed: yesOrNo(),
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
        percent: { ...whole(), defaultValue: 100 },
        loopFrom: { type: DataTypes.INTEGER },
        loopTo: { type: DataTypes.INTEGER },
        countsFor: { type: DataTypes.UUID },
        remark: text(),
        postedAt: moment(),
        struck: yesOrNo(),
      },
      options('entries'),
    ),
    plans: class extends PlanModel {}.init(
      {
        ...row(),
        learning: { type: DataTypes.TEXT },
        raising: { type: DataTypes.TEXT },
        targetPercent: { ...whole(), defaultValue: 100 },
        cleanNeeded: { ...whole(), defaultValue: 2 },
        fallsAfter: { ...whole(), defaultValue: 2 },
        restMinutes: { ...whole(), defaultValue: 10 },
      },
      options('plans'),
    ),
    pins: class extends PinModel {}.init(
      {
        ...row(),
        phraseId: uuid(),
        personId: uuid(),
        at: whole(),
        text: text(),
        pinnedAt: moment(),
        struck: yesOrNo(),
      },
      options('pins'),
    ),
    series: class extends SeriesModel {}.init(
      {
        ...row(),
        studentId: uuid(),
        teacherId: uuid(),
        title: text(),
        rule: json(),
        changes: json(),
        goal: text(),
        goalDay: { type: DataTypes.DATEONLY },
        instalments: { ...json(), defaultValue: [] },
        struck: yesOrNo(),
      },
      options('series'),
    ),
    lessonNotes: class extends LessonNoteModel {}.init(
      {
        ...row(),
        studentId: uuid(),
        day: { type: DataTypes.DATEONLY, allowNull: false },
        words: text(),
        home: text(),
        assigned: json(),
        writtenBy: uuid(),
        writtenAt: moment(),
      },
      options('lesson_notes'),
    ),
    lessonNoteRevisions: class extends LessonNoteRevisionModel {}.init(
      {
        ...row(),
        noteId: uuid(),
        words: text(),
        home: text(),
        assigned: json(),
        writtenBy: uuid(),
        writtenAt: moment(),
      },
      options('lesson_note_revisions'),
    ),
    hearings: class extends HearingModel {}.init(
      {
        ...row(),
        pieceId: uuid(),
        day: { type: DataTypes.DATEONLY, allowNull: false },
        at: whole(),
        kind: text(),
        isRight: { type: DataTypes.BOOLEAN, allowNull: false },
        remark: text(),
        personId: uuid(),
        struck: yesOrNo(),
      },
      options('hearings'),
    ),
    workSpans: class extends WorkSpanModel {}.init(
      {
        ...row(),
        requestId: uuid(),
        personId: uuid(),
        startedAt: moment(),
        seenAt: moment(),
        endedAt: { type: DataTypes.DATE },
      },
      options('work_spans'),
    ),
  };
}
