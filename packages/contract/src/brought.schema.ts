import { BROUGHT_LIMITS, type BroughtBody, type BroughtSectionBody, type SectionsStruck } from './brought.ts';
import { LAYERS } from './phrases.ts';
import { SONG_LIMITS } from './songLimits.ts';
import { flag, id, line, list, oneOf, shape, text, version, whole } from './typed.ts';

/** Checks `BroughtBody`. */
export const broughtSchema = shape<BroughtBody>({
  from: line(SONG_LIMITS.reason),
  layer: oneOf(LAYERS),
  sections: list(
    shape<BroughtSectionBody>({
      label: line(SONG_LIMITS.label),
      role: line(SONG_LIMITS.label),
      bars: whole(SONG_LIMITS.bars),
      times: whole({ min: 1, max: SONG_LIMITS.times }),
      phrases: list(
        shape<BroughtSectionBody['phrases'][number]>({
          name: line(SONG_LIMITS.phraseName),
          text: text(SONG_LIMITS.phraseText),
        }),
        { max: BROUGHT_LIMITS.phrases },
      ),
    }),
    { min: 1, max: BROUGHT_LIMITS.sections },
  ),
});

/** Checks `SectionsStruck`. */
export const sectionsStruckSchema = shape<SectionsStruck>({
  sections: list(shape<SectionsStruck['sections'][number]>({ id: id(), version: version() }), {
    min: 1,
    max: BROUGHT_LIMITS.sections,
    unique: 'id',
  }),
  struck: flag(),
});
