import type { Phrase } from '@jam-ledger/contract';
import { onScopeDispose, ref, watch, type Ref } from 'vue';
import { api, Refused, Unreachable } from '../../api/index.ts';
import { phraseBody } from '../songPhrases.ts';

/** Where the text stands: on the server, on its way, kept here until the server answers, or changed elsewhere. */
export type SaveState = 'saved' | 'waiting' | 'saving' | 'kept-here' | 'refused' | 'stale';

/** Pause in typing after which the text is saved, milliseconds. Our choice. */
const PAUSE_MS = 500;
/** Pause before trying again when the server cannot be reached, milliseconds. Our choice. */
const RETRY_MS = 3000;

const draftKey = (id: string) => `jam-draft-${id}`;

/**
 * The text of one phrase as it is typed: kept in this browser with every keystroke, saved to the server at
 * every pause, tried again through a lost connection, and never overwritten by somebody else's newer text.
 */
export function usePhraseText(phrase: Ref<Phrase | undefined>, saved: (phrase: Phrase) => void) {
  const text = ref('');
  const state = ref<SaveState>('saved');
  const trouble = ref('');
  const theirs = ref<Phrase>();
  let version = 0;
  /** The text as the server last had it, as far as is known here. */
  let base = '';
  let id = '';
  let timer: ReturnType<typeof setTimeout> | undefined;

  watch(
    () => phrase.value?.id,
    () => {
      if (timer !== undefined) void save();
      open();
    },
    { immediate: true },
  );

  // Saved by a desk of the same phrase that was left a moment ago: the version is ours.
  watch(
    () => phrase.value?.version,
    () => {
      const current = phrase.value;
      if (!current) return;
      // Followed another phrase, or changed by a button beside the text, while nothing was typed here.
      if (state.value === 'saved') text.value = current.text;
      if (current.text !== text.value) return;
      version = Math.max(version, current.version);
      base = current.text;
    },
  );

  function open(): void {
    const current = phrase.value;
    state.value = 'saved';
    trouble.value = '';
    theirs.value = undefined;
    id = current?.id ?? '';
    version = current?.version ?? 0;
    text.value = current?.text ?? '';
    base = text.value;
    const draft = current && readDraft(current.id);
    if (draft && draft.text !== current.text) takeUp(draft, current);
    else if (draft) localStorage.removeItem(draftKey(id));
  }

  /** Goes on with a text that was kept in this browser; where somebody else typed since it was begun, that is shown first. */
  function takeUp(draft: Draft, current: Phrase): void {
    text.value = draft.text;
    if (draft.version === current.version || draft.base === current.text) return schedule(PAUSE_MS);
    version = draft.version;
    base = draft.base;
    state.value = 'stale';
    theirs.value = current;
  }

  function type(next: string): void {
    if (next === text.value) return;
    text.value = next;
    keepDraft(id, { text: next, version, base });
    if (state.value !== 'stale') schedule(PAUSE_MS);
  }

  function schedule(pause: number): void {
    clearTimeout(timer);
    state.value = pause === RETRY_MS ? 'kept-here' : 'waiting';
    timer = setTimeout(() => void save(), pause);
  }

  async function save(): Promise<void> {
    clearTimeout(timer);
    timer = undefined;
    const sent = text.value;
    const current = phrase.value;
    if (!current) return;
    const savedId = id;
    state.value = 'saving';
    try {
      const body = { ...phraseBody(current), text: sent };
      const kept = await api.changePhrase({ id: savedId, body: { ...body, version, struck: false } });
      saved(kept);
      if (id !== savedId) return;
      version = kept.version;
      base = kept.text;
      trouble.value = '';
      if (text.value === sent) {
        localStorage.removeItem(draftKey(savedId));
        state.value = 'saved';
      } else {
        keepDraft(savedId, { text: text.value, version, base });
        schedule(PAUSE_MS);
      }
    } catch (error) {
      if (id === savedId) fail(error);
    }
  }

  function fail(error: unknown): void {
    if (error instanceof Unreachable) return schedule(RETRY_MS);
    if (error instanceof Refused && error.status === 409) {
      const other = newer(error.current);
      if (other?.text === text.value) return agree(other);
      // Renamed or marked in the meantime, and nobody else typed: what is typed here goes on from there.
      if (other && other.text === base) {
        version = other.version;
        keepDraft(id, { text: text.value, version, base });
        saved(other);
        return schedule(PAUSE_MS);
      }
      state.value = 'stale';
      theirs.value = other;
      return;
    }
    state.value = 'refused';
    const problem = error instanceof Refused ? error.problems[0]?.message : undefined;
    trouble.value = problem ?? (error instanceof Error ? error.message : 'It could not be saved.');
  }

  /** The newer text is this one, letter for letter. */
  function agree(other: Phrase): void {
    version = other.version;
    base = other.text;
    localStorage.removeItem(draftKey(id));
    state.value = 'saved';
    saved(other);
  }

  /** Settles a text changed elsewhere: save mine over theirs, or show theirs. */
  async function settle(choice: 'mine' | 'theirs'): Promise<void> {
    const other = theirs.value;
    if (!other) return;
    version = other.version;
    theirs.value = undefined;
    base = other.text;
    if (choice === 'mine') {
      keepDraft(id, { text: text.value, version, base });
      return save();
    }
    text.value = other.text;
    agree(other);
  }

  onScopeDispose(() => {
    if (timer !== undefined) void save();
  });
  return { text, state, trouble, theirs, type, settle, save };
}

/** A text that is typed and not saved yet, and what it grew from. */
interface Draft {
  readonly text: string;
  /** The version of the row, and its text, when it was begun. */
  readonly version: number;
  readonly base: string;
}

/** Keeps the text in this browser; a browser that is full still has it in the editor. */
function keepDraft(id: string, draft: Draft): void {
  try {
    localStorage.setItem(draftKey(id), JSON.stringify(draft));
  } catch {
    localStorage.removeItem(draftKey(id));
  }
}

/** What is kept of a phrase; of what an earlier version of this page kept it is not known what it grew from. */
function readDraft(id: string): Draft | undefined {
  const kept = localStorage.getItem(draftKey(id));
  if (kept === null) return undefined;
  try {
    const draft: unknown = JSON.parse(kept);
    if (isDraft(draft)) return draft;
  } catch {
    // A bare text.
  }
  return { text: kept, version: 0, base: '' };
}

function isDraft(value: unknown): value is Draft {
  if (typeof value !== 'object' || value === null || !('text' in value) || !('version' in value)) return false;
  return (
    typeof value.text === 'string' &&
    typeof value.version === 'number' &&
    'base' in value &&
    typeof value.base === 'string'
  );
}

/** The phrase inside a refusal, if it is one. */
function newer(current: unknown): Phrase | undefined {
  return isPhrase(current) ? current : undefined;
}

function isPhrase(value: unknown): value is Phrase {
  if (typeof value !== 'object' || value === null) return false;
  return 'text' in value && typeof value.text === 'string' && 'version' in value && typeof value.version === 'number';
}
