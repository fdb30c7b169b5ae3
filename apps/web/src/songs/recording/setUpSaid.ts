import type { SetUpChange, Transcription } from '@jam-ledger/contract';
import type { Heard } from '../../recordings/index.ts';
import { clockText } from '../../ui/index.ts';

/** A set-up that the recording contradicts: what it says, and what could be taken over. */
export interface TakenOver {
  readonly says: string;
  readonly choices: readonly Choice[];
}

/** A change of the set-up, or where the form begins. */
type Choice = { readonly label: string } & (
  { readonly change: Partial<SetUpChange> } | { readonly beginSeconds: number }
);

/** Nobody minds a recording this far from what the set-up says: cents, and a share of the tempo. Our choice. */
const NEAR = { cents: 4, tempo: 0.012, sure: 0.08, beginSeconds: 0.15 } as const;

/** What a recording says that the set-up or the form says otherwise; beats that were tapped along count more than those that were heard. */
export function saidOfSetUp(song: Transcription, heard: Heard | undefined, tapped?: number): readonly TakenOver[] {
  return [
    ...tuningSaid(song, heard?.off),
    ...tempoSaid(song, heard?.beat, tapped),
    ...beginningSaid(song, heard?.beat),
  ];
}

function tuningSaid({ offsetCents }: Transcription, off: Heard['off'] | undefined): readonly TakenOver[] {
  if (!off || off.sure < NEAR.sure) return [];
  const cents = Math.round(off.cents);
  const set = offsetCents - 100 * Math.round(offsetCents / 100);
  if (Math.abs(cents - set) <= NEAR.cents) return [];
  const sure = off.sure > 0.35 ? 'surely' : 'probably';
  return [
    {
      says: `The recording stands ${sure} ${Math.abs(cents)} cents ${cents < 0 ? 'below' : 'above'} A4 = 440 Hz; the set-up says ${offsetCents}.`,
      choices: [{ label: `Set ${cents} cents`, change: { offsetCents: cents } }],
    },
  ];
}

function tempoSaid(
  song: Transcription,
  beat: Heard['beat'] | undefined,
  tapped: number | undefined,
): readonly TakenOver[] {
  const heard = tapped ?? beat?.bpm;
  if (heard === undefined) return [];
  const set = (bpm: number) => Math.round(bpm * 10) / 10;
  const agrees = song.tempoKnown && Math.abs(heard / song.tempo - 1) <= NEAR.tempo;
  if (agrees) return [];
  const others = tapped === undefined ? (beat?.others ?? []).slice(0, 2) : [];
  // Half or twice the tempo is the same beat counted otherwise.
  const isSameBeat = song.tempoKnown && others.some((bpm) => Math.abs(bpm / song.tempo - 1) <= 2 * NEAR.tempo);
  if (isSameBeat) return [];
  const how = tapped === undefined ? (beat && beat.sure > 0.3 ? 'is surely' : 'is probably') : 'is by your taps';
  const says = `The recording ${how} at ${set(heard)} bpm; the set-up says ${song.tempoKnown ? `${song.tempo}` : 'nothing of it'}.`;
  return [
    {
      says,
      choices: [heard, ...others].map((bpm) => ({
        label: `Set ${set(bpm)} bpm`,
        change: { tempo: set(bpm), tempoKnown: true },
      })),
    },
  ];
}

/** Where the first bar begins, where the form says otherwise: not within a beat that begins a bar. */
function beginningSaid({ sections: [first] }: Transcription, beat: Heard['beat'] | undefined): readonly TakenOver[] {
  if (!beat) return [];
  const places = beat.firsts.flatMap((index) => Math.round((beat.beats[index] ?? NaN) * 100) / 100);
  const [likely] = places;
  if (likely === undefined) return [];
  const bar = (beat.firsts.length * 60) / beat.bpm;
  const bars = first ? (first.startSeconds - likely) / bar : NaN;
  // A song may begin some bars after its recording does, never between two of them.
  if (Math.abs(bars - Math.round(bars)) * bar <= NEAR.beginSeconds) return [];
  const begins = first ? `the form begins at ${clockText(first.startSeconds)}` : 'no section is laid out yet';
  return [
    {
      says: `The first bar of the recording is probably at ${clockText(likely)}; ${begins}.`,
      choices: places
        .slice(0, 3)
        .map((beginSeconds) => ({ label: `Begin at ${clockText(beginSeconds)}`, beginSeconds })),
    },
  ];
}
