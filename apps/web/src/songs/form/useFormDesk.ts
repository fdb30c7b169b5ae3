import { SONG_LIMITS, type Phrase, type Section, type SectionBody, type Transcription } from '@jam-ledger/contract';
import {
  barsFrom,
  nextLabel,
  proposeLabels,
  readLabel,
  writeLabel,
  type FormFix,
  type WrittenSection,
} from '@jam-ledger/core/form';
import { OPEN_KEY, readKey } from '@jam-ledger/core/pitch';
import { refDebounced } from '@vueuse/core';
import { computed, type ComputedRef } from 'vue';
import { useNotices } from '../../session/index.ts';
import { sectionBody, useSong } from '../song.ts';
import { clockText } from '../../ui/index.ts';
import type { SongForm } from './useSongForm.ts';

const EMPTY_SECTION = {
  bars: 4,
  startKnown: true,
  barsKnown: true,
  tuning: null,
  capo: null,
  times: 1,
  open: false,
  passes: [],
  jump: null,
} as const;
/** Comparing every pair of more sections would hold the desk up. Our choice. */
const MAX_COMPARED = 24;
/** Labels are proposed after a pause, milliseconds. Our choice. */
const PAUSE_MS = 800;

/** A label that stands, and the one that what is written speaks for. */
export interface ProposedLabel {
  readonly id: string;
  readonly from: string;
  readonly to: string;
}

/** What the song desk does to the form; every change can be taken back. */
export function useFormDesk(form: SongForm, chosen: (sectionId: string | undefined) => void) {
  const store = useSong();
  const notices = useNotices();
  const song = computed(() => store.song);
  const sections = computed(() => store.song?.sections ?? []);

  /** A section after the last one: the label that follows, where the last one ends. */
  const nextSection = computed((): SectionBody => {
    const last = sections.value.at(-1);
    const ends = form.rounds.value.at(-1)?.toSeconds ?? last?.startSeconds ?? 0;
    const startSeconds = Math.round(ends * 10) / 10;
    return { ...EMPTY_SECTION, label: labelAfter(sections.value), role: last?.role ?? 'riff', startSeconds };
  });

  /** Changes some fields of one section, and says so. */
  function amend(id: string, change: Partial<SectionBody>, says: (label: string) => string): Promise<void> {
    const label = sections.value.find((one) => one.id === id)?.label ?? '';
    return notices.tell(() => store.amendSections([{ id, change }], says(label)));
  }

  const fix = ({ sectionId, change }: FormFix) =>
    amend(sectionId, { ...change, ...(change.bars !== undefined && { barsKnown: true }) }, (label) =>
      change.bars === undefined ? `${label} is changed.` : `${label} now has ${change.bars} bars.`,
    );
  const move = (id: string, startSeconds: number) =>
    amend(id, { startSeconds, startKnown: true }, (label) => `${label} starts at ${clockText(startSeconds)}.`);

  /** Begins a section where the clock stands; the one before it, while empty, gets the bars that lie between. */
  function drop(startSeconds: number): Promise<void> {
    return notices.tell(async () => {
      const before = sections.value.findLast((one) => one.startSeconds < startSeconds);
      const added = await store.addSection({ ...nextSection.value, startSeconds });
      const bars =
        before && Math.round(barsFrom(before.startSeconds, startSeconds, form.tempoChanges.value) / before.times);
      const isFree = before?.phrases.length === 0 && before.bars !== bars;
      if (before && bars && isFree && bars <= SONG_LIMITS.bars.max)
        await store.changeSection(before, { ...sectionBody(before), bars });
      chosen(added?.id);
    });
  }

  /** Lets a section come again after the last one; gives its first phrase. */
  async function repeat(section: Section): Promise<Phrase | undefined> {
    const { startSeconds } = nextSection.value;
    // Where it really starts is stamped later; until then it follows the one before it.
    const added = await store.repeatSection(section, { startSeconds, startKnown: false });
    chosen(added.id);
    return added.phrases[0];
  }

  const proposed = useProposedLabels(song, form);
  const label = () => {
    const changes = proposed.value.map(({ id, to }) => ({ id, change: { label: to } }));
    return notices.tell(() => store.amendSections(changes, 'The sections are labelled by what is written in them.'));
  };

  return { nextSection, fix, move, drop, repeat, proposed, label };
}

function labelAfter(sections: readonly Section[]): string {
  const known = sections.flatMap(({ label }) => readLabel(label) ?? []);
  const newest = known.toSorted((a, b) => a.number - b.number || a.letter.localeCompare(b.letter)).at(-1);
  return writeLabel(nextLabel(newest && { ...newest, strokes: 0 }));
}

/** Labels told from the phrases, where they differ from those that stand; none while a section is empty or named freely. */
function useProposedLabels(
  song: ComputedRef<Transcription | null>,
  form: SongForm,
): ComputedRef<readonly ProposedLabel[]> {
  const settled = refDebounced(song, PAUSE_MS);
  return computed(() => {
    const sections = settled.value?.sections ?? [];
    const numbers = sections.map(({ label }) => readLabel(label)?.number ?? 0);
    const written = sections.map(({ phrases }, index): WrittenSection => {
      const newPart = (numbers[index] ?? 0) > Math.max(1, ...numbers.slice(0, index));
      return { phrases: phrases.filter(({ chosen }) => chosen).map((one) => form.readingOf(one).phrase), newPart };
    });
    const isReady = numbers.every((number) => number > 0) && written.every(({ phrases }) => phrases.length > 0);
    if (!isReady || sections.length > MAX_COMPARED) return [];
    const key = readKey(settled.value?.key ?? '') ?? OPEN_KEY;
    const labels = proposeLabels(written, { tuning: form.tuning.value, capo: settled.value?.capo ?? 0, key });
    return sections.flatMap(({ id, label: from }, index) => {
      const to = labels[index] ?? from;
      return to === from ? [] : [{ id, from, to }];
    });
  });
}
