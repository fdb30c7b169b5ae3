import { skip } from './hands.ts';
import { SpokenState } from './state.ts';
import { OFTEN } from './vocabulary.ts';
import { numberAt, type Word } from './words.ts';

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

export function readOften(state: SpokenState, words: readonly Word[], at: number): number | undefined {
  const often = oftenAt(words, at);
  if (!often) return undefined;
  const { last } = state;
  if (last) last.times = often.isMore ? last.times + often.times : often.times;
  return often.next;
}

/** “do that twice”, “the same again one string thinner”, “all of that once more”. */
export function readSame(state: SpokenState, words: readonly Word[], at: number, next: number): number | undefined {
  let [from, more] = [skip(words, next, [',', 'again', 'but', 'and']), 1];
  const often = oftenAt(words, from);
  if (often) {
    more = often.isMore ? often.times : Math.max(0, often.times - 1);
    from = often.next;
  } else if (words[at]?.text === 'and') return undefined;
  from = skip(words, from, [',', 'just', 'but', 'a', 'moved']);
  const move = { strings: 0, frets: 0 };
  const said = numberAt(words, from);
  const unit = said ? words[said.next]?.text : undefined;
  if (said && unit?.startsWith('string')) {
    const side = words[said.next + 1]?.text ?? '';
    move.strings = ['thinner', 'down', 'higher'].includes(side) ? -said.value : said.value;
    if (side === 'up' || side === 'down')
      state.doubt(
        'string',
        SpokenState.span(words, from, said.next + 2),
        '“Up a string” can be thicker or thinner.',
        (side === 'up' ? ['thicker', 'thinner'] : ['thinner', 'thicker']).map((one) => ({
          label: one,
          say: `${said.value} strings ${one}`,
        })),
      );
    from = said.next + 2;
  } else if (said && unit?.startsWith('fret')) {
    const side = words[said.next + 1]?.text ?? '';
    move.frets = ['down', 'lower', 'back'].includes(side) ? -said.value : said.value;
    from = said.next + 2;
  }
  state.repeat(more, move);
  return from;
}
