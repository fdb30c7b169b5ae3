import type { Phrase, Section, SectionBody, SetUpChange, Transcription } from '@jam-ledger/contract';
import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import { api } from '../api/index.ts';
import { useNotices } from './notices.ts';

/** The transcription on the desk. */
export const useSong = defineStore('song', () => {
  const song = ref<Transcription | null>(null);
  const notices = useNotices();

  async function load(id: string): Promise<void> {
    if (song.value?.id !== id) song.value = null;
    song.value = await api.song(id);
  }

  async function changeSetUp(change: SetUpChange): Promise<void> {
    if (song.value) song.value = await api.changeSetUp(song.value.id, change);
  }

  async function addSection(body: SectionBody): Promise<Section | undefined> {
    if (!song.value) return undefined;
    const section = await api.addSection(song.value.id, body);
    await load(song.value.id);
    return section;
  }

  async function strikeSection(section: Section, struck: boolean): Promise<void> {
    const { id, version, label, role, startSeconds, bars } = section;
    const changed = await api.changeSection(id, { label, role, startSeconds, bars, version, struck });
    if (song.value) await load(song.value.id);
    if (struck) notices.say(`Section ${label} is struck out.`, () => strikeSection(changed, false));
  }

  async function changeSection(section: Section, body: SectionBody): Promise<void> {
    await api.changeSection(section.id, { ...body, version: section.version, struck: false });
    if (song.value) await load(song.value.id);
  }

  async function addPhrase(section: Section, name: string): Promise<Phrase> {
    const phrase = await api.addPhrase(section.id, { name, text: '' });
    if (song.value) await load(song.value.id);
    return phrase;
  }

  /** Puts a phrase that was saved in its place. */
  function keepPhrase(phrase: Phrase): void {
    if (!song.value) return;
    const sections = song.value.sections.map((section) => ({
      ...section,
      phrases: section.phrases.map((one) => (one.id === phrase.id ? phrase : one)),
    }));
    song.value = { ...song.value, sections };
  }

  async function strikePhrase(phrase: Phrase, struck: boolean): Promise<void> {
    const { id, version, name, text } = phrase;
    const changed = await api.changePhrase(id, { name, text, version, struck });
    if (song.value) await load(song.value.id);
    if (struck) notices.say(`“${name}” is struck out.`, () => strikePhrase(changed, false));
  }

  const phrases = computed(() => song.value?.sections.flatMap((section) => section.phrases) ?? []);
  return {
    song,
    phrases,
    load,
    changeSetUp,
    addSection,
    changeSection,
    strikeSection,
    addPhrase,
    keepPhrase,
    strikePhrase,
  };
});
