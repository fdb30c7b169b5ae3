import { describe, expect, test } from '@jest/globals';
import {
  EVENT_MARKS,
  LINK_RECORDS,
  MARK_RECORDS,
  NOTE_MARK_RECORDS,
  readShorthand,
  scoreOf,
  type Link,
  type NoteMark,
} from '@jam-ledger/core/notation';
import { legendOf } from '../src/tab/legend.ts';
import { MARK_DRAWINGS } from '../src/tab/engraving/markDrawings.ts';

const legend = (text: string) => legendOf(scoreOf(readShorthand(text).phrase));
const LINKS = Object.keys(LINK_RECORDS) as readonly Link[];
const NOTE_MARKS = Object.keys(NOTE_MARK_RECORDS) as readonly NoteMark[];

describe('the legend of a page', () => {
  test('is empty where nothing needs one', () => expect(legend('/4 5G 7G')).toEqual([]));

  test.each(EVENT_MARKS)('has %s where it is drawn', (mark) => {
    const { example, sign, legend: says } = MARK_RECORDS[mark];
    expect(legend(`/4 ${example}`)).toContainEqual([sign, says]);
  });

  test.each(LINKS)('has the %s where it is drawn', (link) => {
    const { example, sign, legend: says } = LINK_RECORDS[link];
    expect(legend(`/4 ${example}`)).toContainEqual([sign, says]);
  });

  test('has nothing for what is only said of a note', () => expect(legend('/4 7G=D')).toEqual([]));

  test.each(NOTE_MARKS.filter((mark) => mark !== 'claim'))('has %s where it is drawn', (mark) => {
    const { example, sign, legend: says } = NOTE_MARK_RECORDS[mark];
    expect(legend(`/4 ${example}`)).toContainEqual([sign, says]);
  });

  test('tells a pull-off from the thumb, though both are a p', () => {
    expect(legend('/4 9G p7 5Aqp').filter(([sign]) => sign === 'p')).toEqual([
      ['p', LINK_RECORDS.pull.legend],
      ['p', MARK_RECORDS['plucked-thumb'].legend],
    ]);
  });

  test('has what no mark makes: dead notes, graces, barres, long notes, doubt, slides from nowhere', () => {
    const signs = legend('/2 xG 5G/g 7G {bar5: 5e5B} {guess: 7G} <9G').map(([sign]) => sign);
    expect(signs).toEqual(['⁄ alone', '×', 'bar 5', 'small fret', 'short stem', 'slanted grey']);
  });

  test('says each thing once, however often it stands there', () => {
    const lines = legend('/4 7Gm 7Gm <7G 9G S12 h14 p12 h14');
    expect(new Set(lines.map(String)).size).toBe(lines.length);
  });

  test('a mark over a span counts as one of each event', () =>
    expect(legend('/4 {m: 5E 5E}')).toContainEqual(['p.m.', 'palm mute']));
});

test.each(EVENT_MARKS)('the drawing of %s shows what its legend shows', (mark) => {
  const drawing = MARK_DRAWINGS[mark];
  if ('word' in drawing) expect(drawing.word).toBe(MARK_RECORDS[mark].sign);
  else expect(['fret', 'hands']).toContain(drawing.at);
});
