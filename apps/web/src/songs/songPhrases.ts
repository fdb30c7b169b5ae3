import type {
  MadeAlternate,
  Phrase,
  PhraseBody,
  PhraseMark,
  PhraseRevision,
  Piece,
  PieceBody,
  Section,
} from '@jam-ledger/contract';
import { UNMOVED, type Move } from '@jam-ledger/core/notation';
import { defineStore } from 'pinia';
import { api } from '../api/index.ts';
import { useNotices } from '../session/index.ts';
import { useSong } from './song.ts';

/** What of a phrase a person can change. */
export function phraseBody({ name, text, layer, certainty, reason }: PhraseBody): PhraseBody {
  return { name, text, layer, certainty, reason };
}

/** What is done to single phrases of the song on the desk. */
export const useSongPhrases = defineStore('songPhrases', () => {
  const song = useSong();
  const notices = useNotices();

  async function addPhrase(section: Section, name: string): Promise<Phrase> {
    const layer = song.song?.studentLayer ?? 'lead';
    const phrase = await api.addPhrase({
      id: section.id,
      body: { name, text: '', layer, certainty: 'heard', reason: '' },
    });
    await song.reload();
    return phrase;
  }

  /** Adds what prepares a technique at the end of a section, as arranged. */
  async function addDrill(sectionId: string, drill: MadeAlternate): Promise<Phrase> {
    const layer = song.song?.studentLayer ?? 'lead';
    const phrase = await api.addPhrase({ id: sectionId, body: { ...drill, layer, certainty: 'arranged' } });
    await song.reload();
    return phrase;
  }

  async function changePhrase(phrase: Phrase, change: Partial<PhraseBody>): Promise<void> {
    const { id, version } = phrase;
    song.keepPhrase(await api.changePhrase({ id, body: { ...phraseBody(phrase), ...change, version, struck: false } }));
  }

  async function strikePhrase(phrase: Phrase, struck: boolean): Promise<void> {
    const { id, version, name } = phrase;
    const changed = await api.changePhrase({ id, body: { ...phraseBody(phrase), version, struck } });
    await song.reload();
    if (struck) notices.say(`“${name}” is struck out.`, () => strikePhrase(changed, false));
  }

  async function markPhrase({ id, version }: Phrase, mark: Omit<PhraseMark, 'version'>): Promise<void> {
    song.keepPhrase(await api.markPhrase({ id, body: { ...mark, version } }));
  }

  /** Keeps a copy beside a phrase, or what was made of it. */
  async function addAlternate({ id }: Phrase, made?: MadeAlternate): Promise<Phrase> {
    const added = await api.addAlternate({ id, body: made ?? {} });
    await song.reload();
    return added;
  }

  async function choosePhrase({ id, version }: Phrase): Promise<void> {
    await api.choosePhrase({ id, body: { version } });
    await song.reload();
  }

  /** Lets a phrase refer to another, moved over the neck; to null, it stands for itself again. */
  async function referPhrase(phrase: Phrase, to: string | null, move: Move): Promise<void> {
    const { id, version, name } = phrase;
    song.keepPhrase(await api.referPhrase({ id, body: { version, to, move } }));
    if (to !== null) notices.say(`“${name}” follows the other phrase now.`, () => standAlone(phrase));
  }

  /** Takes a reference back: the phrase says what it said before, byte for byte. */
  async function standAlone(before: Phrase): Promise<void> {
    const now = song.phrases.find(({ id }) => id === before.id);
    if (!now) return;
    const { id, version } = await api.referPhrase({
      id: now.id,
      body: { version: now.version, to: null, move: UNMOVED },
    });
    song.keepPhrase(await api.changePhrase({ id, body: { ...phraseBody(before), version, struck: false } }));
  }

  function revisionsOf(phraseId: string): Promise<readonly PhraseRevision[]> {
    return api.revisions({ id: phraseId });
  }

  /** Assigns a phrase as a practice piece. */
  function assign(body: PieceBody): Promise<Piece> {
    return api.assignPiece({ body });
  }

  /** Takes a piece back that was just assigned. */
  async function takeBack({ id, version, startBpm, targetBpm }: Piece): Promise<void> {
    await api.changePiece({ id, body: { startBpm, targetBpm, version, given: false, struck: false } });
  }

  return {
    revisionsOf,
    assign,
    takeBack,
    addPhrase,
    addDrill,
    changePhrase,
    strikePhrase,
    markPhrase,
    addAlternate,
    choosePhrase,
    referPhrase,
  };
});
