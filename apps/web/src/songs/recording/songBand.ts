import { songAt, type Phrase, type Section, type Transcription } from '@jam-ledger/contract';
import { barSeconds, tempoAt, type TempoChange } from '@jam-ledger/core/form';
import type { BandPart } from '@jam-ledger/core/listen';
import { accompany, barTicks, perform, unroll, type Click, type PlayedNote } from '@jam-ledger/core/notation';
import { backingOf } from '@jam-ledger/core/sound';
import { feelOf } from '../../sound/index.ts';
import { tuningOf } from '../../tab/index.ts';
import type { SongForm } from '../form/useSongForm.ts';

/** Where a phrase is heard first, seconds of the recording. */
export interface PhraseTime {
  readonly from: number;
  readonly to: number;
}

/** Where each phrase of a song is heard: from its own stamp, else from the start of its section and the phrases before it in its layer. */
export function phraseTimesOf(song: Transcription, form: SongForm): ReadonlyMap<string, PhraseTime> {
  const times = new Map<string, PhraseTime>();
  for (const section of song.sections) {
    const start = form.rounds.value.find(({ id }) => id === section.id)?.fromSeconds ?? section.startSeconds;
    const nexts = new Map<string, number>();
    for (const phrase of section.phrases) {
      const perSecond = ticksPerSecond(form.tempoOf(section.id));
      const { stamps, length } = unroll(form.readingOf(phrase).phrase);
      const [stamp] = stamps;
      const next = nexts.get(phrase.layer) ?? start;
      const from = stamp ? Math.max(0, stamp.seconds - stamp.at / perSecond) : next;
      const to = from + length / perSecond;
      times.set(phrase.id, { from, to });
      if (phrase.chosen) nexts.set(phrase.layer, to);
    }
  }
  return times;
}

function ticksPerSecond({ meter, bpm }: TempoChange): number {
  return barTicks(meter) / barSeconds(meter, bpm);
}

/** The song as a band would play it: the student’s layer in front, the others and the harmony behind, over its form. */
export function bandPartOf(song: Transcription, form: SongForm): BandPart {
  const byId = new Map(song.sections.map((section) => [section.id, section]));
  const notes: PlayedNote[] = [];
  const backing: PlayedNote[] = [];
  const seconds = (form.rounds.value.at(-1)?.toSeconds ?? 8) + TAIL_SECONDS;
  for (const { id, fromSeconds } of form.rounds.value) {
    const section = byId.get(id);
    if (!section) continue;
    for (const [layer, phrases] of layersOf(section)) {
      let at = fromSeconds;
      for (const phrase of phrases) {
        const { played, behind, lasts } = performed(phrase, { song, section, form });
        (layer === song.studentLayer ? notes : backing).push(...later(played, at));
        backing.push(...later(behind, at));
        at += lasts;
      }
    }
  }
  return { notes, backing, clicks: clicksOf(form, seconds), seconds };
}

const TAIL_SECONDS = 2;

function layersOf({ phrases }: Section): ReadonlyMap<string, readonly Phrase[]> {
  const layers = new Map<string, Phrase[]>();
  for (const phrase of phrases.filter(({ chosen }) => chosen))
    layers.set(phrase.layer, [...(layers.get(phrase.layer) ?? []), phrase]);
  return layers;
}

interface Where {
  readonly song: Transcription;
  readonly section: Section;
  readonly form: SongForm;
}

function performed(phrase: Phrase, { song, section, form }: Where) {
  const there = songAt(song, section);
  const { bpm } = form.tempoOf(section.id);
  const options = { bpm, feel: feelOf(song.feel) };
  const read = form.readingOf(phrase).phrase;
  const along = accompany(read, options);
  const played = perform(read, { ...options, tuning: tuningOf(there), capo: there.capo });
  return { played, behind: backingOf(along), lasts: along.seconds };
}

function later(notes: readonly PlayedNote[], by: number): readonly PlayedNote[] {
  return notes.map((note) => ({ ...note, startSeconds: note.startSeconds + by }));
}

/** The beats of the song, from its first bar line on and before it. */
function clicksOf(form: SongForm, seconds: number): readonly Click[] {
  const changes = form.tempoChanges.value;
  const first = form.rounds.value[0]?.fromSeconds ?? 0;
  const { meter, bpm } = tempoAt(first, changes);
  const bar = barSeconds(meter, bpm);
  const clicks: Click[] = [];
  let at = first - Math.floor(first / bar) * bar;
  while (at < seconds) {
    const here = tempoAt(at + 1e-6, changes);
    const lasts = barSeconds(here.meter, here.bpm);
    for (let beat = 0; beat < here.meter.beats; beat += 1)
      clicks.push({ seconds: at + (beat * lasts) / here.meter.beats, accent: beat === 0 });
    at += lasts;
  }
  return clicks;
}
