import { describe, expect, test } from '@jest/globals';
import { bestPath, gripsFor, usualGuitar } from '../src/fretboard/index.ts';
import { eventsOf, readShorthand } from '../src/notation/index.ts';
import { TUNINGS } from '../src/pitch/index.ts';

const guitar = usualGuitar(TUNINGS.standard);

/** The fingers of a grip from the thickest string on, `0` for an open string; of a line note by note. */
const fingersOf = (text: string) =>
  bestPath(readShorthand(text).phrase, guitar, { asWritten: true })
    .steps.map(({ grip }) =>
      [...grip.notes]
        .toSorted((a, b) => b.string - a.string)
        .map(({ finger }) => finger ?? 0)
        .join(''),
    )
    .join(' ');

// Fingers as chord books and teachers give them: common practice. Where several are usual, each is named.
describe('usual grips', () => {
  test.each([
    ['C', '3A2D0G1B0e', ['32010']],
    ['A', '0A2D2G2B0e', ['01230', '02130', '01110']],
    ['G', '3E2A0D0G0B3e', ['210003', '320004', '210004']],
    ['E', '0E2A2D1G0B0e', ['023100']],
    ['D', '0D2G3B2e', ['0132']],
    ['A minor', '0A2D2G1B0e', ['02310']],
    ['E minor', '0E2A2D0G0B0e', ['023000', '012000']],
    ['D minor', '0D2G3B1e', ['0231', '0241']],
    ['F, small', '3D2G1B1e', ['3211']],
    ['F with a barre', '{bar1: 1E3A3D2G1B1e }', ['134211']],
    ['F minor with a barre', '{bar1: 1E3A3D1G1B1e }', ['134111']],
    ['B minor with a barre', '{bar2: 2A4D4G3B2e }', ['13421']],
    ['B with a barre', '{bar2: 2A4D4G4B2e }', ['12341', '13331']],
    ['E7', '0E2A0D1G0B0e', ['020100']],
    ['A7', '0A2D0G2B0e', ['02030', '01020']],
    ['D7', '0D2G1B2e', ['0213']],
    ['G7', '3E2A0D0G0B1e', ['320001']],
    ['C7', '3A2D3G1B0e', ['32410']],
    ['B7', '2A1D2G0B2e', ['21304']],
    ['F major seventh', '3D2G1B0e', ['3210']],
    ['C major seventh', '3A2D0G0B0e', ['32000', '21000']],
    ['A minor seventh', '0A2D0G1B0e', ['02010']],
    ['E minor seventh', '0E2A0D0G0B0e', ['020000', '010000']],
    ['D major seventh', '0D2G2B2e', ['0111', '0123']],
    ['C add nine', '3A2D0G3B0e', ['21030', '32040']],
    ['D suspended second', '0D2G3B0e', ['0130', '0120']],
    ['D suspended fourth', '0D2G3B3e', ['0134', '0123']],
    ['A suspended fourth', '0A2D2G3B0e', ['01240', '02340', '01230']],
    ['A suspended second', '0A2D2G0B0e', ['01200', '02300']],
    ['power chord on the low E', '5E7A', ['13', '14']],
    ['power chord with its octave', '5E7A7D', ['134', '133']],
    ['power chord on the A string', '3A5D5G', ['134', '133']],
    ['octave over a string', '5A7G', ['13', '14']],
    ['octave on D and B', '5D8B', ['14']],
    ['thirds on G and B, major', '9G8B', ['21', '32']],
    ['thirds on G and B, minor', '7G6B', ['21', '32']],
    ['sixths on D and B', '5D3B', ['31', '32', '21', '42']],
    ['fourths with one finger', '5B5e', ['11', '12', '22', '33', '23', '34']],
    ['ninth on the A string', '3A2D3G3B', ['2134', '2133']],
    ['diminished seventh', '4D5G4B5e', ['1324', '1213']],
    ['minor seventh, flat five', '5A6D5G6B', ['1324', '1213']],
    ['augmented', '3D2G2B1e', ['4231', '4321', '3221']],
  ])('%s', (_, text, usual) => expect(usual).toContain(fingersOf(text)));
});

// Hands would do these, and few are taught to: usual are 0211, and 023400 or 012300.
test.each([
  ['D minor seventh', '0D2G1B1e', '0312'],
  ['E suspended fourth', '0E2A2D2G0B0e', '011100'],
])('%s comes out otherwise than it is taught', (_, text, ours) => expect(fingersOf(text)).toBe(ours));

// One finger a fret, the hand where the box begins: common practice.
describe('scale boxes', () => {
  test.each([
    ['minor pentatonic from the root', '/8 5E 8E 5A 7A 5D 7D 5G 7G 5B 8B 5e 8e', ['1 4 1 3 1 3 1 3 1 4 1 4']],
    ['the same, backward', '/8 8e 5e 8B 5B 7G 5G 7D 5D 7A 5A 8E 5E', ['4 1 4 1 3 1 3 1 3 1 4 1']],
    ['major pentatonic from the second finger', '/8 5E 7E 4A 7A 4D 7D 4G 6G 5B 7B 5e 7e', ['2 4 1 4 1 4 1 3 2 4 2 4']],
    ['major from the second finger', '/8 5E 7E 4A 5A 7A 4D 6D 7D', ['2 4 1 2 4 1 3 4']],
    ['major over one octave, in C', '/8 8E 10E 7A 8A 10A 7D 9D 10D', ['2 4 1 2 4 1 3 4']],
    ['natural minor from the first finger', '/8 5E 7E 8E 5A 7A 8A 5D 7D', ['1 3 4 1 3 4 1 3']],
    ['blues, with its flat five', '/8 5A 6A 7A 5D 7D', ['1 2 3 1 3']],
    ['chromatic, a finger a fret', '/8 5A 6A 7A 8A 5D 6D 7D 8D', ['1 2 3 4 1 2 3 4']],
    ['a bend with the third finger behind', '/8 5B 8Bb1 5B 7Gb1', ['1 4 1 3', '1 3 1 3', '1 4 1 4']],
    ['a hammer-on up the box', '/8 5G h7 5B h8', ['1 3 1 4']],
  ])('%s', (_, text, usual) => expect(usual).toContain(fingersOf(text)));
});

// A higher fret is never held by a finger nearer to the thumb: common practice.
test.each(['5A7D', '5E7A7D', '3A2D0G1B0e', '7G9B', '5D8B'])('no grip of %s crosses fingers', (text) => {
  const item = eventsOf(readShorthand(text).phrase)[0]?.item;
  if (!item) throw new Error('there is an event');
  const grips = gripsFor(
    item,
    item.notes.map(({ string, fret }) => ({ string, fret })),
    { barre: null },
  );
  expect(grips.length).toBeGreaterThan(0);
  for (const { notes } of grips) {
    const fingers = notes
      .toSorted((a, b) => (a.fret ?? 0) - (b.fret ?? 0))
      .map(({ finger }) => finger)
      .filter((finger) => typeof finger === 'number');
    expect(fingers).toEqual([...fingers].sort((a, b) => a - b));
  }
});
