import type { SpokenState } from './state.ts';
import { TO_THE_BEAT, VALUES } from './vocabulary.ts';
import { numberAt, sayingAt, sayingsOf, skip, type Word } from './words.ts';

const SAID_VALUES = sayingsOf(VALUES);

/** How long notes are, where that is said; and numbers that count beats, which are no frets. */
export function readTime(state: SpokenState, words: readonly Word[], at: number): number | undefined {
  const found = sayingAt(words, at, SAID_VALUES);
  if (found) {
    state.values.push({ value: found.meaning, before: state.drafts.length });
    return found.next;
  }
  const said = numberAt(words, at);
  if (!said || said.isOrdinal) return undefined;
  const after = words[said.next]?.text ?? '';
  const value = after === 'to' ? TO_THE_BEAT[said.value] : undefined;
  const beat = skip(words, said.next, ['to', 'the', 'a', 'every']);
  if (value !== undefined && words[beat]?.text === 'beat') {
    state.values.push({ value, before: state.drafts.length });
    return beat + 1;
  }
  if (['beat', 'beats', 'bar', 'bars', 'count', 'counts'].includes(after)) return said.next + 1;
  return countedAt(words, at) ?? meterAt(words, at);
}

/** “one and two and three and”: beats are counted aloud. */
function countedAt(words: readonly Word[], at: number): number | undefined {
  if (numberAt(words, at)?.value !== 1) return undefined;
  let [next, beats] = [at, 0];
  for (let said = numberAt(words, next); said?.value === beats + 1; said = numberAt(words, next)) {
    beats += 1;
    next = skip(words, said.next, ['and', 'e', 'a', '&', ',']);
  }
  // “one, two, three on the A” are frets.
  const isCounted = words[at + 1]?.text === 'and' || words[at - 1]?.text === 'count';
  return beats > 2 && isCounted && words[next]?.text !== 'on' ? next : undefined;
}

/** “in four four”, “it is three four time”. */
function meterAt(words: readonly Word[], at: number): number | undefined {
  const beats = numberAt(words, at);
  const unit = beats && numberAt(words, beats.next);
  if (!beats || !unit || ![2, 4, 8].includes(unit.value)) return undefined;
  const isTime = words[unit.next]?.text === 'time';
  const isMeter = words[at - 1]?.text === 'in' && (words[unit.next] === undefined || words[unit.next]?.isStop);
  return isTime ? unit.next + 1 : isMeter ? unit.next : undefined;
}
