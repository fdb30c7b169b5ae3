import { songAt, type Phrase, type Section, type Transcription } from '@jam-ledger/contract';
import { keyTextAt, tempoAt, type FormSection } from '@jam-ledger/core/form';
import type { SectionToWrite, ShorthandSong, SongToWrite } from '@jam-ledger/core/formats';
import { readKey } from '@jam-ledger/core/pitch';
import type { Takeable } from '../files/index.ts';
import { feelOf } from '../sound/index.ts';
import { tuningOf } from '../tab/index.ts';
import type { SongForm } from './form/useSongForm.ts';

/** What of a song is taken along: sections as they are laid out, of each the phrases that are played. */
interface Part {
  readonly sections: readonly {
    readonly section: Section;
    readonly laid: FormSection;
    readonly phrases: readonly Phrase[];
  }[];
}

/** A song, or a part of it, on its way into a file. */
export function songToWrite(song: Transcription, form: SongForm, { sections }: Part): SongToWrite {
  const [first] = sections;
  const key = readKey(keyTextAt(first?.section.startSeconds ?? 0, song));
  return {
    ...{ title: song.title, credit: song.whose, key, feel: feelOf(song.feel), offsetCents: song.offsetCents },
    guitar: guitarOf(song, first?.section),
    tempoChanges: form.tempoChanges.value,
    sections: sections.map(({ section, laid, phrases }): SectionToWrite => ({
      ...laid,
      role: section.role,
      guitar: guitarOf(song, section),
      phrases: phrases.map((phrase) => ({
        name: phrase.name,
        layer: phrase.layer,
        phrase: form.readingOf(phrase).phrase,
      })),
    })),
  };
}

function guitarOf(song: Transcription, section: Section | undefined) {
  const there = songAt(song, section);
  return { tuning: tuningOf(there), capo: there.capo };
}

/** The same as our own notation, as it was typed. */
function shorthandOf(song: Transcription, form: SongForm, { sections }: Part): ShorthandSong {
  const { meter, bpm } = tempoAt(sections[0]?.section.startSeconds ?? 0, form.tempoChanges.value);
  const { title, whose: credit, tuning, capo, key } = song;
  return {
    ...{ title, credit, tuning, capo, key, meter, bpm: song.tempoKnown ? bpm : undefined },
    sections: sections.map(({ section, phrases }) => ({
      ...{ label: section.label, role: section.role, times: section.times },
      bars: section.barsKnown ? section.bars : undefined,
      phrases: phrases.map(({ name, text }) => ({ name, text })),
    })),
  };
}

/** What can be taken of a song: all of it, a section, a phrase; of a part alone, one round. */
export function takeablesOf(
  song: Transcription,
  form: SongForm,
  { section, phrase }: { readonly section?: Section | undefined; readonly phrase?: Phrase | undefined },
): readonly Takeable[] {
  const take = (label: string, name: string, part: Part): Takeable => ({
    ...{ label, name },
    song: () => songToWrite(song, form, part),
    shorthand: () => shorthandOf(song, form, part),
  });
  const laid = new Map(form.sections.value.map((one) => [one.id, one]));
  const partOf = (sections: readonly Section[]): Part => ({
    sections: sections.flatMap((one) => {
      const there = laid.get(one.id);
      return there ? [{ section: one, laid: there, phrases: one.phrases.filter(({ chosen }) => chosen) }] : [];
    }),
  });
  const takes = [take('the whole song', song.title, partOf(song.sections))];
  const there = section && laid.get(section.id);
  if (section && there) {
    const { jump: _, ...alone } = there;
    const phrases = section.phrases.filter(({ chosen }) => chosen);
    takes.push(
      take(`section ${section.label}`, `${song.title}, ${section.label}`, {
        sections: [{ section, laid: alone, phrases }],
      }),
    );
    if (phrase) {
      const one = { ...alone, times: 1, passes: [], barsKnown: false };
      takes.push(
        take(`“${phrase.name}”`, `${song.title}, ${phrase.name}`, {
          sections: [{ section, laid: one, phrases: [phrase] }],
        }),
      );
    }
  }
  return takes;
}
