/** @jest-environment ./apps/web/test/pageEnvironment.mjs */
import { afterEach, describe, expect, jest, test } from '@jest/globals';
import { EVENT_MARKS, MARK_RECORDS, SURENESS_RECORDS } from '@jam-ledger/core/notation';
import { OPEN_KEY, readKey, TUNINGS, type Key } from '@jam-ledger/core/pitch';
import { MARK_DRAWINGS } from '../src/tab/engraving/markDrawings.ts';
import { sizeText } from '../src/tab/engraving/marks.ts';
import { SIZES } from '../src/tab/engraving/sizes.ts';
import { draw, type Sheet, type Sign } from './drawing.ts';

afterEach(() => document.body.replaceChildren());

/** Signs of the music font by their code points. Source: SMuFL, “Individual notes”, “Rests” and “Standard accidentals”. */
const FLAG = { eighth: '\uE241', sixteenth: '\uE243' };
const FLAT = '\uE260';
const NATURAL = '\uE261';
const REST = { whole: '\uE4E3', half: '\uE4E4', quarter: '\uE4E5', eighth: '\uE4E6', sixteenth: '\uE4E7' };

const inFont = (sheet: Sheet) => sheet.signs().filter(({ look }) => look.includes('Jam Ledger Music'));
const one = (sheet: Sheet, text: string): Sign => {
  const found = sheet.signs().filter((sign) => sign.text === text);
  if (found.length !== 1 || !found[0]) throw new Error(`${text} is drawn ${found.length} times`);
  return found[0];
};
const STEM = /stroke-width="1\.4"/;
const BEAM = /stroke-width="4\.5"/;
const CURVE = /stroke-width="1\.2" fill="none"/;
const curves = (sheet: Sheet) => sheet.outlines(CURVE).filter((d) => d.includes('Q'));
const heads = (sheet: Sheet) => sheet.outlines(/fill="var\(--ink\)" stroke="none"/);

describe('frets', () => {
  test('stand on the line of their string, from the thin one down', () => {
    const sheet = draw('/4 1e 2B 3G 4D 5A 6E');
    const heights = ['1', '2', '3', '5', '6'].map((fret) => one(sheet, fret).y);
    const steps = heights.slice(1).map((y, index) => Math.round((y - (heights[index] ?? 0)) / SIZES.lineGap));
    expect(steps).toEqual([1, 1, 2, 1]);
  });

  test('of one stack stand over one another, of two events side by side', () => {
    const sheet = draw('/8 5A7D 9G');
    expect(one(sheet, '5').x).toBeCloseTo(one(sheet, '7').x, 1);
    expect(one(sheet, '9').x).toBeGreaterThan(one(sheet, '7').x + 15);
  });

  test.each([
    ['xD', '×'],
    ['(7G)', '(7)'],
    ['12G*', '‹12›'],
    ['(12G*)', '(‹12›)'],
  ])('%s is written %s', (text, shown) => expect(draw(`/8 ${text}`).written()).toContain(shown));

  test('lie on paper, so that no line runs through them', () =>
    expect(draw('/8 7G 12B').outlines(/fill="var\(--page\)"/)).toHaveLength(2));

  test('that are held over a bar line stand in brackets there, with an arc', () => {
    const sheet = draw('/2 5G 7G | _ 9G');
    expect(sheet.written()).toContain('(7)');
    expect(curves(sheet)).toHaveLength(1);
  });

  test('of a grace note are smaller and stand before', () => {
    const sheet = draw('/4 5G/g 7G');
    const [grace, main] = [one(sheet, '5'), one(sheet, '7')];
    expect(grace.look).toContain(`font-size="${SIZES.fretFont * 0.78}"`);
    expect(grace.x).toBeLessThan(main.x);
  });

  test('that are only guessed are faint', () => {
    const sheet = draw('/4 {guess: 7G} 9G');
    expect([one(sheet, '7').look, one(sheet, '9').look].map((look) => look.includes('font-style="italic"'))).toEqual([
      true,
      false,
    ]);
  });
});

describe('rhythm', () => {
  test.each([
    ['/1 7G', 0],
    ['/2 7G 9G', 2],
    ['/4 7G 9G 7G 9G', 4],
    ['/4 7G - 9G -', 2],
    ['/? 7G 9G', 0],
  ])('%s has %i stems', (text, stems) => expect(draw(text).outlines(STEM)).toHaveLength(stems));

  test('the stem of a half is the shorter', () => {
    const lengths = draw('/2 7G /4 9G 9G')
      .outlines(STEM)
      .map((d) => {
        const [, from, to] = /M\S+ (\S+)L\S+ (\S+)/.exec(d) ?? [];
        return Number(to) - Number(from);
      });
    expect(lengths).toEqual([16, 35, 35]);
  });

  test.each([
    ['/8 7G /4 9G', [FLAG.eighth]],
    ['/16 7G /4 9G', [FLAG.sixteenth]],
    ['/8 7G 9G', []],
    ['/4 7G', []],
  ])('%s has its flags', (text, flags) => expect(inFont(draw(text)).map((sign) => sign.text)).toEqual(flags));

  test.each([
    ['one for eighths', '/8 7G 9G', 1],
    ['two for sixteenths, joined note by note', '/16 7G 9G 7G 9G', 6],
    ['none from beat to beat', '/8 7G 9G 7G 9G', 2],
    ['a stub for a lone sixteenth', '/8. 7G /16 9G', 2],
  ])('beams: %s', (_, text, beams) => expect(draw(text).outlines(BEAM)).toHaveLength(beams));

  test('a stub points at the note it belongs to', () => {
    const [long, stub] = draw('/8. 7G /16 9G').outlines(BEAM);
    const [, end] = /L(\S+)/.exec(long ?? '') ?? [];
    const [, from, to] = /M(\S+) \S+L(\S+)/.exec(stub ?? '') ?? [];
    expect(from).toBe(end);
    expect(Number(to)).toBeCloseTo(Number(from) - 7, 1);
  });

  test.each([
    ['/1 -', REST.whole],
    ['/2 7G -', REST.half],
    ['/4 7G -', REST.quarter],
    ['/8 7G -', REST.eighth],
    ['/16 7G -', REST.sixteenth],
  ])('%s has its rest', (text, rest) => expect(inFont(draw(text)).map((sign) => sign.text)).toContain(rest));

  test('a dot for each half more', () => {
    const dots = (text: string) => draw(text).root.querySelectorAll('circle').length;
    expect([dots('/4. 7G'), dots('/4.. 7G'), dots('/4 7G'), dots('/4. - /8 7G')]).toEqual([1, 2, 0, 1]);
  });

  test('a number under every group of a tuplet, in brackets where no beam holds it together', () => {
    const written = (text: string) =>
      draw(text)
        .signs()
        .filter(({ look }) => look.includes('font-weight="650"'));
    const numbers = (text: string) =>
      written(text)
        .filter(({ look }) => look.includes('italic'))
        .map((sign) => sign.text);
    expect(numbers('/8t 7G 9G 7G 9G 7G 9G')).toEqual(['3', '3']);
    expect(numbers('/16t5 7G 9G 7G 9G 7G')).toEqual(['5']);
    const thin = (text: string) => draw(text).outlines(/stroke-width="1" fill="none"/).length;
    expect([thin('/8t 7G 9G 7G'), thin('/4t 7G 9G 7G')]).toEqual([0, 4]);
  });
});

describe('marks', () => {
  const spelt = EVENT_MARKS.filter((mark) => 'word' in MARK_DRAWINGS[mark]);
  test.each(spelt)('%s is drawn by the sign of its legend', (mark) =>
    expect(draw(`/8 ${MARK_RECORDS[mark].example}`).written().join(' ')).toContain(MARK_RECORDS[mark].sign),
  );

  const outlined = EVENT_MARKS.filter((mark) => 'shape' in MARK_DRAWINGS[mark]);
  test.each(outlined)('%s has a shape of its own', (mark) => {
    const { example } = MARK_RECORDS[mark];
    const all = (text: string) => draw(text).outlines(/./).length;
    expect(all(`/8 ${example}`)).toBeGreaterThan(all('/8 7G'));
  });

  test('a stroke under a fretting finger leaves it room', () => {
    const apart = (text: string) => {
      const sheet = draw(text);
      return Math.round(one(sheet, '2').x - one(sheet, '7').x);
    };
    expect(apart('/8 7Gf2d') - apart('/8 7Gf2')).toBe(9);
  });

  test('a span is said once, with a dashed line as far as it goes', () => {
    const sheet = draw('/8 {m: 5G 7G 9G 7G} 5G 5G 5G 5G');
    expect(sheet.written().filter((text) => text === 'p.m.')).toHaveLength(1);
    expect(sheet.outlines(/stroke-dasharray/)).toHaveLength(1);
  });

  test('two spans that something parts are two', () => {
    const spans = (text: string) =>
      draw(text)
        .written()
        .filter((sign) => sign === 'p.m.').length;
    expect([spans('/8 5Gm 7Gm 9G 7Gm'), spans('/8 5Gm 7Gm 9Gm 7Gm'), spans('/8 5Gm - 9Gm')]).toEqual([2, 1, 2]);
  });

  test.each(Object.entries(SURENESS_RECORDS))('%s is said in words', (_, { example, sign }) =>
    expect(draw(`/8 ${example}`).written()).toContain(sign),
  );

  test('a barre stands beside the chord symbol, not on it', () => {
    const sheet = draw('/4 :Am {bar5: 5e5B 7e}');
    const [chord, barre] = [one(sheet, 'Am'), one(sheet, 'bar 5')];
    expect([barre.y, barre.x > chord.x + 10]).toEqual([chord.y, true]);
  });
});

describe('links', () => {
  test.each([
    ['7G h9', 'h'],
    ['9G p7', 'p'],
    ['7G t12', 'T'],
  ])('%s has its letter', (text, letter) => expect(draw(`/8 ${text}`).written()).toContain(letter));

  test('a slide leans the way it goes; picked again it has no arc', () => {
    const slope = (text: string) => {
      const [line] = draw(text).outlines(/stroke-width="1\.3"/);
      const [, from, to] = /M\S+ (\S+)L\S+ (\S+)/.exec(line ?? '') ?? [];
      return Math.sign(Number(to) - Number(from));
    };
    expect([slope('/8 7G s9'), slope('/8 9G s7')]).toEqual([-1, 1]);
    expect([curves(draw('/8 7G s9')).length, curves(draw('/8 7G S9')).length]).toEqual([1, 0]);
  });

  test('a slide of a stack has a line on every string', () =>
    expect(draw('/8 5A7D s7A9D').outlines(/stroke-width="1\.3"/)).toHaveLength(2));

  test('slides from and to nowhere have a line each', () =>
    expect(
      ['<14D', '14D>', '<14D>', '14D'].map((text) => draw(`/8 ${text}`).outlines(/stroke-width="1\.3"/).length),
    ).toEqual([1, 1, 2, 0]));
});

describe('bends', () => {
  test.each([
    [0.25, '¼'],
    [0.5, '½'],
    [1, '1'],
    [1.5, '1½'],
    [1.75, '1¾'],
    [2, '2'],
    [0, '0'],
    [0.1, '0.1'],
  ])('%d whole steps are read %s', (steps, text) => expect(sizeText(steps)).toBe(text));

  test.each([
    ['7Gb1', ['1'], 1, 1],
    ['7Gb1r', ['1'], 2, 2],
    ['7Gb1r.5', ['1', '½'], 2, 2],
    ['7Gb?', ['?'], 1, 1],
    ['7Gb1-2', ['1–2'], 1, 1],
    ['15B12e', [], 0, 0],
    ['15Bb1+12e', ['1'], 1, 1],
  ])('%s has its sizes, curves and arrows', (text, sizes, lines, arrows) => {
    const sheet = draw(`/4 ${text}`);
    const small = sheet.signs().filter(({ look }) => look.includes(`font-size="${SIZES.smallFont}"`));
    expect(small.map((sign) => sign.text)).toEqual(sizes);
    expect([curves(sheet).length, heads(sheet).join('').split('M').length - 1]).toEqual([lines, arrows]);
  });

  test('a pre-bend stands upright, and what follows it begins up there', () => {
    const sheet = draw('/4 7Gpb1r');
    const upright = sheet.outlines(CURVE).find((d) => d.includes('L'));
    const [, fromX, toX, toY] = /M(\S+) \S+L(\S+) (\S+)/.exec(upright ?? '') ?? [];
    expect(fromX).toBe(toX);
    expect(curves(sheet)[0]).toContain(`M${toX} ${toY}Q`);
  });

  test('the higher bend reaches higher, up to two steps', () => {
    const top = (text: string) => {
      const ys = [...(curves(draw(text))[0] ?? '').matchAll(/ (\d+(?:\.\d)?)/g)].map(([, y]) => Number(y));
      return Math.min(...ys);
    };
    const [half, whole, two, three] = ['b.5', 'b1', 'b2', 'b3'].map((bend) => top(`/4 7G${bend}`));
    expect([(half ?? 0) > (whole ?? 0), (whole ?? 0) > (two ?? 0), two === three]).toEqual([true, true, true]);
  });

  test('vibrato waves, wide vibrato higher; a trill names its fret; a dip its depth', () => {
    const wave = (text: string) =>
      draw(text)
        .outlines(/stroke-width="1\.3"/)
        .join('');
    expect(wave('/4 7G~')).toMatch(/q2\.3 -3 4\.5 0/);
    expect(wave('/4 7G~~')).toMatch(/q2\.3 -5 4\.5 0/);
    expect(draw('/4 7Gtr9').written()).toContain('tr(9)');
    expect(draw('/4 7Gw-1.5').written()).toContain('-1½');
    expect([draw('/4 12G*').written(), draw('/4 7G*p').written()].map((all) => all.at(-1))).toEqual(['Harm.', 'P.H.']);
  });
});

describe('what stands over and between bars', () => {
  test('a meter where it is, and where it changes', () => {
    const sheet = draw('/4 7G 7G 7G 7G | meter=3/4 9G 9G 9G');
    const large = sheet.signs().filter(({ look }) => look.includes('font-size="22"'));
    expect(large.map((sign) => sign.text)).toEqual(['4', '4', '3', '4']);
  });

  test('tempo and feel where they begin', () =>
    expect(draw('tempo=96 feel=swing /4 7G 7G 7G 7G | feel=straight 7G').written()).toEqual(
      expect.arrayContaining(['♩ = 96  swing eighths', 'straight eighths']),
    ));

  test('repeats have their dots on both sides and say how often', () => {
    const sheet = draw('[ /4 7G 9G 7G 9G ]4');
    expect(sheet.written()).toContain('4×');
    expect(sheet.root.querySelectorAll('circle')).toHaveLength(4);
    expect(sheet.outlines(/stroke-width="3\.5"/)).toHaveLength(2);
    expect(draw('[ /4 7G 9G 7G 9G ]4+').written()).toContain('about 4×, to taste');
  });

  test('what is heard on some passes only is under a bracket with their number', () => {
    const sheet = draw('[ /4 7G 9G 7G 9G | {1: 5G 5G 5G 5G} {2: 3G 3G 3G 3G} ]2');
    const small = sheet.signs().filter(({ look }) => look.includes(`font-size="${SIZES.smallFont}"`));
    expect(small.map(({ text }) => text)).toEqual(['1', '2']);
    expect(draw('[ /4 7G 9G 7G 9G | {last: 5G 5G 5G 5G} ]3').written()).toContain('last time');
  });

  test('chord symbols, none, and words; long words end where the line does', () => {
    const sheet = draw('/4 :Am7 7G :- 9G "watch the jump" 7G');
    expect(sheet.written()).toEqual(expect.arrayContaining(['Am7', 'N.C.', 'watch the jump']));
    const long = 'this is a long word of advice that runs on and on and on and on';
    const narrow = draw(`/4 7G 9G 7G "${long}" 9G`, { width: 320 });
    const words = one(narrow, long);
    expect([words.look.includes('text-anchor="end"'), words.x]).toEqual([true, 320 - SIZES.sidePadding]);
  });

  test('typed words are words, whatever is in them', () => {
    const sheet = draw('/4 "<img src=x onerror=alert(1)> & more" 7G');
    expect(sheet.root.querySelector('img')).toBeNull();
    expect(sheet.written()).toContain('<img src=x onerror=alert(1)> & more');
  });
});

describe('standard notation', () => {
  const staff = (key: Key = OPEN_KEY, capo = 0) => ({ staff: { tuning: TUNINGS.standard, capo, key } });
  const inside = (sheet: Sheet, name: string) => [...sheet.root.querySelectorAll(`.vf-${name}`)];
  const heightsOf = (text: string, capo = 0) =>
    inside(draw(text, staff(OPEN_KEY, capo)), 'notehead').map((head) =>
      Number(head.querySelector('text')?.getAttribute('y')),
    );

  test('has a head for every note of a stack, and stands right above the fret', () => {
    const sheet = draw('/4 5A7D 9G', staff());
    expect(inside(sheet, 'notehead')).toHaveLength(3);
    const head = Number(inside(sheet, 'notehead').at(-1)?.querySelector('text')?.getAttribute('x'));
    expect(Math.abs(head - one(sheet, '9').x)).toBeLessThan(8);
  });

  test('an octave is seven steps of five pixels, a capo moves what is written', () => {
    const [low = 0, high = 0] = heightsOf('/4 0G 12G');
    expect(low - high).toBe(7 * 5);
    const [open = 0, moved = 0] = [0, 5].flatMap((capo) => heightsOf('/4 0G', capo));
    expect(open - moved).toBe(3 * 5);
  });

  test('notes of the key have no accidental, others have', () => {
    // The head itself is one sign, and what stands before it the second.
    const signs = (text: string, key: Key) =>
      draw(text, staff(key)).root.querySelector('.vf-notehead')?.textContent.slice(1);
    const [A, Ab] = ['A', 'Ab'].map((name) => readKey(name));
    if (!A || !Ab) throw new Error('keys do not read');
    expect([signs('/4 2B', A), signs('/4 8B', A), signs('/4 2B', Ab)]).toEqual(['', NATURAL, '']);
    expect(signs('/4 2B', OPEN_KEY)).toBe(FLAT);
  });

  test('beams, tuplets and ties are those of the tab', () => {
    const sheet = draw('/8t 7G 9G 7G /4 9G _ 7G', staff());
    expect([inside(sheet, 'beam').length, inside(sheet, 'tuplet').length]).toEqual([1, 1]);
    expect(curves(draw('/4 9G /16 7G _ _ _ _ /8. 5G', staff())).length).toBeGreaterThan(0);
  });

  test('a note high above the stave makes room for itself', () => {
    const height = (text: string) => draw(text, staff()).root.querySelector('svg')?.getAttribute('height');
    expect(Number(height('/4 22e'))).toBeGreaterThan(Number(height('/4 5G')));
  });
});

describe('a page of lines', () => {
  const LONG = Array.from({ length: 24 }, (_, bar) => `/8 ${bar % 20}G 7G 5B 8B 5e 8e 5e 8B`).join(' | ');
  const lines = (sheet: Sheet) => [...sheet.root.querySelectorAll<HTMLElement>('.tab-system')];
  afterEach(() => void jest.useRealTimers());

  test('as a strip is one line, as wide as it needs', () => {
    const sheet = draw(LONG, { strip: true });
    expect(lines(sheet)).toHaveLength(1);
    expect(Number.parseInt(lines(sheet)[0]?.style.width ?? '')).toBeGreaterThan(2000);
  });

  test('keeps the lines whose music is as before, and draws only the others anew', () => {
    const sheet = draw(LONG, { width: 500 });
    const drawings = () => lines(sheet).map((line) => line.querySelector('svg'));
    const [places, before] = [lines(sheet), drawings()];
    sheet.show(LONG.replace(/^\/8 0G/, '/8 1G'));
    const after = drawings();
    expect(after[0]).not.toBe(before[0]);
    expect(after.length).toBe(before.length);
    expect(before[1]).toBeTruthy();
    expect(after.slice(1).every((drawing, index) => drawing === before[index + 1])).toBe(true);
    // The line that is drawn anew stays in its place, so that nothing around it is laid out again.
    expect(lines(sheet).every((line, index) => line === places[index])).toBe(true);
  });

  test('is broken anew after a while, as if it were opened', () => {
    jest.useFakeTimers();
    const sheet = draw(LONG, { width: 500 });
    sheet.show(`${LONG} | /1 7G`);
    jest.advanceTimersByTime(2000);
    const fresh = draw(`${LONG} | /1 7G`, { width: 500 });
    expect(lines(sheet).map((line) => line.style.height)).toEqual(lines(fresh).map((line) => line.style.height));
    sheet.view.close();
  });

  test('all is drawn before it is printed, seen or not', () => {
    const sheet = draw(LONG, { width: 300 });
    const empty = () => lines(sheet).filter((line) => !line.querySelector('svg')).length;
    jest.spyOn(HTMLElement.prototype, 'getBoundingClientRect').mockReturnValue(new DOMRect(0, 5000, 300, 100));
    sheet.show(LONG, { width: 320 });
    expect(empty()).toBeGreaterThan(0);
    window.dispatchEvent(new Event('beforeprint'));
    expect(empty()).toBe(0);
    jest.restoreAllMocks();
  });

  test('marks what a caret touches, and only that', () => {
    const sheet = draw('/8 5G 7G 9G');
    const marked = (look: string) => sheet.root.querySelectorAll(`.tab-mark-${look}`).length;
    sheet.view.mark({ from: 3, to: 3 }, 'caret');
    expect([marked('caret'), marked('playing')]).toEqual([1, 0]);
    sheet.view.mark({ from: 3, to: 8 }, 'caret');
    expect(marked('caret')).toBe(2);
    sheet.view.mark({ from: 6, to: 8 }, 'playing');
    expect([marked('caret'), marked('playing')]).toEqual([0, 1]);
    sheet.view.mark(undefined, 'caret');
    expect(marked('playing')).toBe(0);
  });

  test('flags stay when another text is shown, until others are given', () => {
    const sheet = draw('/8 5G 7G 9G');
    const flagged = () => sheet.root.querySelectorAll('.tab-mark-loop').length;
    sheet.view.flag([{ span: { from: 3, to: 8 }, look: 'loop' }]);
    expect(flagged()).toBe(2);
    sheet.show('/8 5G 7G 9G 12G');
    expect(flagged()).toBe(2);
    sheet.view.flag([]);
    expect(flagged()).toBe(0);
  });

  test('a place of the page is an event, or none', () => {
    const sheet = draw('/8 5G 7G 9G');
    const [first] = lines(sheet);
    if (!first) throw new Error('nothing is drawn');
    first.getBoundingClientRect = () => new DOMRect(100, 50, 800, 200);
    const at = one(sheet, '7').x + 100;
    expect(sheet.view.spanAt(at, 100)).toEqual({ from: 6, to: 8 });
    expect([sheet.view.spanAt(at, 20), sheet.view.spanAt(101, 100), sheet.view.spanAt(880, 100)]).toEqual([
      undefined,
      undefined,
      undefined,
    ]);
  });
});
