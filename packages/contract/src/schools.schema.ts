import { CLEAN_SCHOOLS, LEARNING_SCHOOLS, TEMPO_SCHOOLS } from '@jam-ledger/core/pieces';
import type { Holiday } from '@jam-ledger/core/series';
import { SONG_LIMITS } from './songLimits.ts';
import {
  FIDELITY_SCHOOLS,
  GUITAR_LIMITS,
  HEARING_SCHOOLS,
  MAX_WORK_MINUTES,
  NAMING_SCHOOLS,
  PICKING_SCHOOLS,
  POSITION_SCHOOLS,
  STUDIO_LIMITS,
  WHY_SCHOOLS,
  type GuitarAndHand,
  type OwnSchools,
  type Schools,
  type StudentChange,
  type StudentSchools,
  type StudioSchools,
} from './schools.ts';
import { between, day, flag, line, list, oneOf, orNull, shape, version, whole, type FieldsOf } from './typed.ts';

const schools: FieldsOf<Schools> = {
  learning: oneOf(LEARNING_SCHOOLS),
  raising: oneOf(TEMPO_SCHOOLS),
  hearing: oneOf(HEARING_SCHOOLS),
  picking: oneOf(PICKING_SCHOOLS),
  position: oneOf(POSITION_SCHOOLS),
  first: oneOf(WHY_SCHOOLS),
  naming: oneOf(NAMING_SCHOOLS),
  fidelity: oneOf(FIDELITY_SCHOOLS),
  clean: oneOf(CLEAN_SCHOOLS),
};
const ownSchools = shape<StudentSchools>({
  learning: orNull(schools.learning),
  raising: orNull(schools.raising),
  hearing: orNull(schools.hearing),
  picking: orNull(schools.picking),
  position: orNull(schools.position),
  first: orNull(schools.first),
  naming: orNull(schools.naming),
  fidelity: orNull(schools.fidelity),
  clean: orNull(schools.clean),
});

/** Checks `StudentChange`. */
export const studentChangeSchema = shape<StudentChange>({
  version: version(),
  guitar: shape<GuitarAndHand>({
    frets: whole(SONG_LIMITS.frets),
    strings: whole(GUITAR_LIMITS.strings),
    scaleLengthMm: between(SONG_LIMITS.scaleLengthMm),
    tremoloArm: flag(),
    leftHanded: flag(),
    spanFrets: orNull(whole(GUITAR_LIMITS.spanFrets)),
  }),
  schools: ownSchools,
});

/** Checks `OwnSchools`. */
export const ownSchoolsSchema = shape<OwnSchools>({ version: version(), schools: ownSchools });

/** Checks `StudioSchools`. */
export const studioSchoolsSchema = shape<StudioSchools>({
  version: version(),
  name: line(STUDIO_LIMITS.name),
  workMinutes: whole({ min: 0, max: MAX_WORK_MINUTES }),
  zone: line(STUDIO_LIMITS.zone),
  holidays: list(shape<Holiday>({ from: day(), to: day(), name: line(STUDIO_LIMITS.holidayName) }), {
    max: STUDIO_LIMITS.holidays,
  }),
  ...schools,
});
