import { namesOf, sayNote } from '../../fretboard/index.ts';
import type { EventItem } from '../../notation/index.ts';
import { fixOf, type Checked, type HandProblem } from '../problem.ts';
import type { SlipKind } from './readings.ts';
import { slipsOf, type LikelyReading } from './slips.ts';

/** The slips as problems, each with the likeliest readings as fixes. */
export function slipProblems({ phrase, options }: Checked): readonly HandProblem[] {
  return slipsOf(phrase, options, options.key).flatMap(({ item, readings }): readonly HandProblem[] => {
    // What somebody says of a note is told where it is wrong, and not doubted besides.
    if (item.notes.some(({ claim }) => claim !== undefined)) return [];
    const [fix, ...otherFixes] = readings.map((reading) =>
      fixOf(titleOf(reading, item, options), options, reading.events),
    );
    const [likeliest] = readings;
    if (!fix || !likeliest) return [];
    const said = sayEventNotes(item, options);
    const why = HOW[likeliest.kind];
    const message = `${said} stands apart from what is around it; ${sayEventNotes(likeliest.events.get(item) ?? item, options)} would not (${why}).`;
    return [
      { code: 'slip', severity: 'hint', span: item.span, message, fix, ...(otherFixes.length > 0 && { otherFixes }) },
    ];
  });
}

function titleOf({ events }: LikelyReading, item: EventItem, options: Checked['options']): string {
  return `Make it ${sayEventNotes(events.get(item) ?? item, options)}`;
}

function sayEventNotes({ notes }: EventItem, options: Checked['options']): string {
  const names = namesOf(options);
  return notes
    .map((note) => {
      const top = Math.max(note.preBend ?? 0, ...(note.moves ?? []).map(({ steps }) => steps));
      const place = sayNote(note, names);
      return top > 0 ? `${place} bent ${top === 1 ? 'a whole step' : `${top} steps`}` : place;
    })
    .join(', ');
}

const HOW: Readonly<Record<SlipKind, string>> = {
  'one fret off': 'one fret beside it',
  'tens lost or gained': 'a ten lost or gained',
  'teen for ty': 'thirteen heard as thirty, or the other way round',
  'neighbour string': 'the string beside it',
  'string that sounds alike': 'a string whose letter sounds alike',
  'big E for little e': 'the other E string',
  'fret and string swapped': 'fret and string said the wrong way round',
  'an octave off': 'an octave away',
  'size of the bend': 'another size of the bend',
  'finger said for fret': 'the finger said for the fret',
};
