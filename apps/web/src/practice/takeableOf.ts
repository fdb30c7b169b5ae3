import type { Piece } from '@jam-ledger/contract';
import { readTempoChanges } from '@jam-ledger/core/form';
import type { Phrase } from '@jam-ledger/core/notation';
import { COMMON_TIME, readMeter } from '@jam-ledger/core/notation';
import { readKey } from '@jam-ledger/core/pitch';
import type { Takeable } from '../files/index.ts';
import { feelOf } from '../sound/index.ts';
import { tuningOf } from '../tab/index.ts';

/** A piece as it is practised, to be taken along: at its target. */
export function takeableOf(piece: Piece, phrase: Phrase): Takeable {
  const { song, section, targetBpm } = piece;
  const { title, whose: credit, tuning, capo, key } = song;
  const guitar = { tuning: tuningOf(song), capo };
  const { name, text } = piece.phrase;
  const laid = { id: section.id, label: section.label, startSeconds: 0, passes: [], times: 1 };
  return {
    label: `“${name}”`,
    name: `${title}, ${name}`,
    song: () => ({
      ...{
        title: `${title}, ${name}`,
        credit,
        guitar,
        key: readKey(key),
        feel: feelOf(song.feel),
        offsetCents: song.offsetCents,
      },
      tempoChanges: readTempoChanges({ tempo: targetBpm, meter: song.meter, changes: [] }),
      sections: [
        { ...laid, role: section.role, guitar, bars: 1, barsKnown: false, phrases: [{ name, layer: 'lead', phrase }] },
      ],
    }),
    shorthand: () => ({
      ...{ title, credit, tuning, capo, key, bpm: targetBpm, meter: readMeter(song.meter) ?? COMMON_TIME },
      sections: [{ label: section.label, role: section.role, bars: undefined, times: 1, phrases: [{ name, text }] }],
    }),
  };
}
