import { takenFirst } from './doubts.ts';
import { struckAgain } from './drafts.ts';
import type { ActReader } from './acts.ts';
import { SpokenState } from './state.ts';
import { OFTEN } from './vocabulary.ts';
import { onStringsAt } from './places.ts';
import { numberAt, skip, type Word } from './words.ts';

/** An event is not written more often. Our choice. */
const MOST_TIMES = 99;

/** How often is said: “twice”, “three times”, “two more times”, “once more”. */
function oftenAt(
  words: readonly Word[],
  at: number,
): { readonly times: number; readonly isMore: boolean; readonly next: number } | undefined {
  const once = OFTEN[words[at]?.text ?? ''];
  if (once !== undefined) {
    const isMore = words[at + 1]?.text === 'more';
    return { times: once, isMore, next: isMore ? at + 2 : at + 1 };
  }
  const said = numberAt(words, at);
  if (!said || said.isOrdinal) return undefined;
  const isMore = words[said.next]?.text === 'more';
  const place = isMore ? said.next + 1 : said.next;
  return words[place]?.text === 'times' || words[place]?.text === 'time'
    ? { times: said.value, isMore, next: place + 1 }
    : undefined;
}

/** Which way “up a string” goes; asked, and the likelier taken. */
function sideOf(
  state: SpokenState,
  words: readonly Word[],
  from: number,
  said: { readonly value: number; readonly next: number },
): 'thinner' | 'thicker' {
  const side = words[said.next + 1]?.text ?? '';
  if (side !== 'up' && side !== 'down') return ['thinner', 'higher'].includes(side) ? 'thinner' : 'thicker';
  const usual = side === 'up' ? (['thicker', 'thinner'] as const) : (['thinner', 'thicker'] as const);
  const habit = state.habits['which way'];
  if (habit !== undefined) return (habit === 'up is thicker') === (side === 'up') ? 'thicker' : 'thinner';
  const taken = usual[state.pick([0, 1])] ?? usual[0];
  state.doubt(
    'which way',
    SpokenState.span(words, from, said.next + 2),
    `“${side === 'up' ? 'Up' : 'Down'} a string” can be thicker or thinner; ${taken} is taken.`,
    takenFirst(taken, usual).map((one) => ({
      label: (one === 'thicker') === (side === 'up') ? 'up is thicker' : 'up is thinner',
      say: `${said.value} strings ${one}`,
    })),
  );
  return taken;
}

export function readOften(state: SpokenState, words: readonly Word[], at: number): number | undefined {
  const often = oftenAt(words, at);
  if (!often) return undefined;
  const { last } = state;
  const times = often.isMore ? (last?.times ?? 0) + often.times : often.times;
  if (times > MOST_TIMES || times < 1)
    state.doubt('not understood', SpokenState.span(words, at, often.next), `It is not written ${times} times.`);
  else if (last) {
    const after = skip(words, often.next, ['in']);
    const isRow = ['row', 'over'].includes(words[skip(words, after, ['a'])]?.text ?? '');
    if (isRow && state.drafts.length - state.sentence > 1) {
      state.repeat(times - 1, { strings: 0, frets: 0 }, { span: SpokenState.span(words, at, often.next) });
      return skip(words, after, ['a', 'row', 'over']);
    }
    last.times = times;
  }
  return often.next;
}

/** “do that twice”, “the same again one string thinner”, “all of that once more”. */
export function readSame(state: SpokenState, words: readonly Word[], at: number, next: number): number | undefined {
  // “repeat this three times: …”: what follows is repeated.
  const ahead =
    words[at]?.text === 'repeat' ? oftenAt(words, skip(words, next, ['this', 'these', 'the', 'following'])) : undefined;
  if (ahead && words[ahead.next]?.text === ':' && ahead.times <= MOST_TIMES) {
    state.repeatAhead = ahead.times;
    return ahead.next + 1;
  }
  let [from, more] = [skip(words, next, [',', 'again', 'but', 'and']), 1];
  const group = groupAt(words, at);
  if (group) from = skip(words, group.next, ['notes', ',']);
  const often = oftenAt(words, from);
  if (often) {
    more = often.isMore ? often.times : Math.max(0, often.times - 1);
    from = often.next;
  } else if (words[at]?.text === 'and') return undefined;
  from = skip(words, from, ['over', 'again', ',', 'just', 'but', 'a', 'moved']);
  const move = { strings: 0, frets: 0 };
  const said = numberAt(words, from);
  const unit = said ? words[said.next]?.text : undefined;
  if (said && unit?.startsWith('string')) {
    const side = words[said.next + 1]?.text ?? '';
    move.strings = sideOf(state, words, from, said) === 'thinner' ? -said.value : said.value;
    from =
      side === 'up' || side === 'down'
        ? said.next + 2
        : skip(words, said.next + 1, ['thinner', 'thicker', 'higher', 'lower']);
  } else if (said && unit?.startsWith('fret')) {
    const side = words[said.next + 1]?.text ?? '';
    move.frets = ['down', 'lower', 'back'].includes(side) ? -said.value : said.value;
    from = said.next + 2;
  }
  const made = state.repeat(more, move, {
    span: SpokenState.span(words, at, from),
    ...(group && { last: group.count }),
  });
  const on = onStringsAt(words, from, state.strings);
  if (!on) return from;
  // “the same on the high E”.
  for (const draft of made)
    if (draft.notes.length === on.strings.length)
      draft.notes = draft.notes.map((note, index) => ({ ...note, string: on.strings[index] ?? note.string }));
  return on.next;
}

/** “those two notes”, “the last three”: how many events are spoken of. */
function groupAt(words: readonly Word[], at: number): { readonly count: number; readonly next: number } | undefined {
  const isThose = ['those', 'these', 'last'].includes(words[at]?.text ?? '');
  const said = isThose ? numberAt(words, at + 1) : undefined;
  return said && !said.isOrdinal && said.value > 1 ? { count: said.value, next: said.next } : undefined;
}

/** “the same note once more”: the last event is struck again. */
export const readSameNote: ActReader = (state, words, at, next) => {
  const { last } = state;
  if (last) {
    const more = { ...struckAgain(last), span: SpokenState.span(words, at, next), times: 1 };
    state.drafts.push(more);
    if (state.pending.includes(last)) state.pending.push(more);
  }
  return skip(words, next, ['once', 'again', 'one', 'more', 'time']);
};

/** “those two notes three times”: what is repeated, where it is counted and nothing else says that it is. */
export function readGroup(state: SpokenState, words: readonly Word[], at: number): number | undefined {
  const group = groupAt(words, at);
  const isSaid = group && state.drafts.length - state.sentence >= group.count;
  const from = group ? skip(words, group.next, ['notes', ',', 'again']) : at;
  return isSaid && (oftenAt(words, from) ?? words[from - 1]?.text === 'again')
    ? readSame(state, words, at, group.next)
    : undefined;
}
