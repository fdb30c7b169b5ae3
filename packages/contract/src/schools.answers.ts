import { CLEAN_SCHOOLS, LEARNING_SCHOOLS, TEMPO_SCHOOLS } from '@jam-ledger/core/pieces';
import { holidayAnswer } from './standings.answers.ts';
import {
  FIDELITY_SCHOOLS,
  HEARING_SCHOOLS,
  NAMING_SCHOOLS,
  PICKING_SCHOOLS,
  POSITION_SCHOOLS,
  WHY_SCHOOLS,
  type GuitarAndHand,
  type OwnSchools,
  type Schools,
  type Student,
  type StudentSchools,
  type StudioSchools,
} from './schools.ts';
import { anyNumber, anyText, flag, id, list, oneOf, orNull, shape, type SchemaOf } from './typed.ts';

/** Checks `GuitarAndHand` as it is answered. */
export const guitarAndHandAnswer: SchemaOf<GuitarAndHand> = shape<GuitarAndHand>({
  frets: anyNumber(),
  strings: anyNumber(),
  scaleLengthMm: anyNumber(),
  tremoloArm: flag(),
  leftHanded: flag(),
  spanFrets: orNull(anyNumber()),
});

/** Checks `Schools` as it is answered. */
export const schoolsAnswer: SchemaOf<Schools> = shape<Schools>({
  learning: oneOf(LEARNING_SCHOOLS),
  raising: oneOf(TEMPO_SCHOOLS),
  hearing: oneOf(HEARING_SCHOOLS),
  picking: oneOf(PICKING_SCHOOLS),
  position: oneOf(POSITION_SCHOOLS),
  first: oneOf(WHY_SCHOOLS),
  naming: oneOf(NAMING_SCHOOLS),
  fidelity: oneOf(FIDELITY_SCHOOLS),
  clean: oneOf(CLEAN_SCHOOLS),
});

/** Checks `StudentSchools` as it is answered. */
export const studentSchoolsAnswer: SchemaOf<StudentSchools> = shape<StudentSchools>({
  learning: orNull(oneOf(LEARNING_SCHOOLS)),
  raising: orNull(oneOf(TEMPO_SCHOOLS)),
  hearing: orNull(oneOf(HEARING_SCHOOLS)),
  picking: orNull(oneOf(PICKING_SCHOOLS)),
  position: orNull(oneOf(POSITION_SCHOOLS)),
  first: orNull(oneOf(WHY_SCHOOLS)),
  naming: orNull(oneOf(NAMING_SCHOOLS)),
  fidelity: orNull(oneOf(FIDELITY_SCHOOLS)),
  clean: orNull(oneOf(CLEAN_SCHOOLS)),
});

/** Checks `Student` as it is answered. */
export const studentAnswer: SchemaOf<Student> = shape<Student>({
  id: id(),
  version: anyNumber(),
  name: anyText(),
  guitar: guitarAndHandAnswer,
  schools: studentSchoolsAnswer,
});

/** Checks `StudioSchools` as it is answered. */
export const studioSchoolsAnswer: SchemaOf<StudioSchools> = shape<StudioSchools>({
  name: anyText(),
  learning: oneOf(LEARNING_SCHOOLS),
  raising: oneOf(TEMPO_SCHOOLS),
  hearing: oneOf(HEARING_SCHOOLS),
  picking: oneOf(PICKING_SCHOOLS),
  position: oneOf(POSITION_SCHOOLS),
  first: oneOf(WHY_SCHOOLS),
  naming: oneOf(NAMING_SCHOOLS),
  fidelity: oneOf(FIDELITY_SCHOOLS),
  clean: oneOf(CLEAN_SCHOOLS),
  version: anyNumber(),
  workMinutes: anyNumber(),
  zone: anyText(),
  holidays: list(holidayAnswer),
});

/** Checks `OwnSchools` as it is answered. */
export const ownSchoolsAnswer: SchemaOf<OwnSchools> = shape<OwnSchools>({
  version: anyNumber(),
  schools: studentSchoolsAnswer,
});
