import type {
  BroughtBody,
  Phrase,
  Section,
  SectionAgain,
  SectionBody,
  SetUp,
  SetUpChange,
  Transcription,
} from '@jam-ledger/contract';
import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import { api, Refused } from '../api/index.ts';
import { useNotices } from '../session/index.ts';

/** The set-up of a song, all that a person can change of it. */
export function setUpOf(song: SetUp): SetUp {
  const { title, whose, tuning, capo, key, secondKey, tempo, tempoKnown, meter, feel, rhythm, changes, rig } = song;
  const { frets, scaleLengthMm, songSeconds, offsetCents, pitchWay, studentLayer } = song;
  const guitar = { tuning, capo, frets, scaleLengthMm, offsetCents, pitchWay };
  return {
    title,
    whose,
    ...guitar,
    key,
    secondKey,
    tempo,
    tempoKnown,
    meter,
    feel,
    rhythm,
    changes,
    rig,
    songSeconds,
    studentLayer,
  };
}

/** A change of the set-up with all that stays, over the version that is seen. */
export function withChange(song: SetUp & { readonly version: number }, change: Partial<SetUpChange>): SetUpChange {
  return { ...setUpOf(song), version: song.version, ...change };
}

/** What of a section a person can change. */
export function sectionBody(section: SectionBody): SectionBody {
  const { label, role, startSeconds, startKnown, bars, barsKnown, tuning, capo, times, open, passes, jump } = section;
  return { label, role, startSeconds, startKnown, bars, barsKnown, tuning, capo, times, open, passes, jump };
}

/** What is said when somebody else saved the same thing first. */
const CHANGED_ELSEWHERE =
  'Somebody changed this in the meantime, and nothing was overwritten. Theirs is on the desk now; keep yours again to put it in its place.';

/** The transcription on the desk: its set-up, its sections, and the phrases in them. */
export const useSong = defineStore('song', () => {
  // Only ever replaced as a whole; a song of many phrases would be slow to watch in depth.
  const song = shallowRef<Transcription | null>(null);
  const notices = useNotices();
  const phrases = computed(() => song.value?.sections.flatMap((section) => section.phrases) ?? []);

  async function load(id: string): Promise<void> {
    if (song.value?.id !== id) song.value = null;
    song.value = await api.song({ id });
  }

  /** Opens a song as it is handed out, which those may read whom it was made for. */
  async function loadSheet(id: string): Promise<void> {
    song.value = null;
    song.value = await api.sheet({ id });
  }

  async function reload(): Promise<void> {
    if (song.value) await load(song.value.id);
  }

  /** Saves something; where somebody else was first, fetches theirs, so that saving again is a choice. */
  async function saveOver<T>(save: () => Promise<T>): Promise<T> {
    try {
      return await save();
    } catch (error) {
      if (!(error instanceof Refused) || error.status !== 409) throw error;
      await reload();
      throw new Error(CHANGED_ELSEWHERE, { cause: error });
    }
  }

  async function changeSetUp(change: SetUpChange): Promise<void> {
    const id = song.value?.id;
    if (id !== undefined) song.value = await saveOver(() => api.changeSetUp({ id, body: change }));
  }

  async function addSection(body: SectionBody): Promise<Section | undefined> {
    if (!song.value) return undefined;
    const section = await api.addSection({ id: song.value.id, body });
    await reload();
    return section;
  }

  /** Lets a section come again at the end; its phrases follow those of the first. Can be taken back. */
  async function repeatSection(section: Section, again: SectionAgain): Promise<Section> {
    const added = await api.sectionAgain({ id: section.id, body: again });
    await reload();
    notices.say(`Section ${section.label} comes again; its phrases follow the first.`, () =>
      strikeSection(added, true),
    );
    return added;
  }

  /** Adds what a file brings in, as drafts; all of it can be taken back at once. */
  /** @returns the first phrase that came in */
  async function bringIn(body: BroughtBody): Promise<string | undefined> {
    if (!song.value) return undefined;
    const added = await api.bringIn({ id: song.value.id, body });
    await reload();
    const count = added.reduce((sum, { phrases: own }) => sum + own.length, 0);
    notices.say(`${count === 1 ? 'One phrase is' : `${count} phrases are`} brought in ${body.from}.`, () =>
      takeOut(added.map(({ id }) => id)),
    );
    return added.find(({ phrases: own }) => own.length > 0)?.phrases[0]?.id;
  }

  /** Strikes several sections out together. */
  async function takeOut(ids: readonly string[]): Promise<void> {
    if (!song.value) return;
    const rows = song.value.sections.filter(({ id }) => ids.includes(id)).map(({ id, version }) => ({ id, version }));
    if (rows.length > 0)
      song.value = await saveOver(() =>
        api.strikeSections({ id: song.value?.id ?? '', body: { sections: rows, struck: true } }),
      );
  }

  async function strikeSection(section: Section, struck: boolean): Promise<void> {
    const { id, label } = section;
    const { version } = song.value?.sections.find((one) => one.id === id) ?? section;
    const changed = await api.changeSection({ id, body: { ...sectionBody(section), version, struck } });
    await reload();
    if (struck) notices.say(`Section ${label} is struck out.`, () => strikeSection(changed, false));
  }

  async function changeSection({ id, version }: Section, body: SectionBody): Promise<void> {
    keepSection(await saveOver(() => api.changeSection({ id, body: { ...body, version, struck: false } })));
  }

  /** Puts a section in its place by the clock. */
  function keepSection(section: Section): void {
    if (!song.value) return;
    const others = song.value.sections.filter(({ id }) => id !== section.id);
    const sections = [...others, section].sort(
      (a, b) => a.startSeconds - b.startSeconds || (a.label < b.label ? -1 : a.label > b.label ? 1 : 0),
    );
    song.value = { ...song.value, sections };
  }

  async function saveSection(section: Section): Promise<void> {
    const { id, version } = section;
    const body = { ...sectionBody(section), version, struck: false };
    try {
      keepSection(await saveOver(() => api.changeSection({ id, body })));
    } catch (error) {
      await reload();
      throw error;
    }
  }

  /** A change of tempo, meter or key at the start of a section goes where that goes. */
  async function moveChanges(moves: readonly (readonly [from: number, to: number])[]): Promise<void> {
    const current = song.value;
    const to = new Map(moves.filter(([from, there]) => from !== there));
    if (to.size === 0 || !current?.changes.some(({ atSeconds }) => to.has(atSeconds))) return;
    const changes = current.changes.map((one) => ({ ...one, atSeconds: to.get(one.atSeconds) ?? one.atSeconds }));
    await changeSetUp(withChange(current, { changes }));
  }

  /** Changes some fields of sections, and offers to take all of that back. */
  async function amendSections(
    changes: readonly { readonly id: string; readonly change: Partial<SectionBody> }[],
    says: string,
  ): Promise<void> {
    const before = changes.flatMap(({ id }) => song.value?.sections.find((one) => one.id === id) ?? []);
    const amended = before.map((section) => ({ ...section, ...changes.find(({ id }) => id === section.id)?.change }));
    // Shown at once; what the server says comes after it.
    amended.forEach(keepSection);
    for (const section of amended) await saveSection(section);
    await moveChanges(
      before.map(({ startSeconds }, index) => [startSeconds, amended[index]?.startSeconds ?? startSeconds]),
    );
    // What is only supposed to start there goes along.
    if (song.value?.sections.some(({ startKnown }) => !startKnown)) await reload();
    const back = before.map((section) => ({ id: section.id, change: sectionBody(section) }));
    notices.say(says, () => amendSections(back, 'Taken back.'));
  }

  /** Puts a phrase that was saved in its place; phrases that refer to it are fetched anew. */
  function keepPhrase(phrase: Phrase): void {
    if (!song.value) return;
    const followed = phrases.value.some((one) => one.refersTo === phrase.id);
    const sections = song.value.sections.map((section) => ({
      ...section,
      phrases: section.phrases.map((one) => (one.id === phrase.id ? phrase : one)),
    }));
    song.value = { ...song.value, sections };
    if (followed) void notices.tell(reload);
  }

  return {
    song,
    phrases,
    load,
    loadSheet,
    reload,
    changeSetUp,
    addSection,
    repeatSection,
    bringIn,
    changeSection,
    amendSections,
    strikeSection,
    keepPhrase,
  };
});
