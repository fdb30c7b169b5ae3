/** @jest-environment ./apps/web/test/pageEnvironment.mjs */
import { beforeEach, describe, expect, test } from '@jest/globals';
import type { Me } from '@jam-ledger/contract';
import { readPlaced } from '@jam-ledger/core/placing';
import { useGuide } from '../src/help/guide.ts';
import { bookSignsOf, purposeOf } from '../src/help/pages.ts';
import { ruleOf, SHORTHAND_RULES } from '../src/help/shorthandRules.ts';
import { isSameLine, SHORTHAND_STEPS } from '../src/help/shorthandSteps.ts';
import { useSession } from '../src/session/index.ts';
import { shownLegends, shownSigns } from '../src/ui/index.ts';
import { meAs, openStudio } from './studio.ts';

describe('the rules of the shorthand', () => {
  test.each(Object.entries(SHORTHAND_RULES))(
    '%s: the line that breaks it is told so, the other is read',
    (code, rule) => {
      expect(readPlaced(rule.wrong).problems.map((problem) => problem.code)).toContain(code);
      expect(readPlaced(rule.right).problems).toEqual([]);
    },
  );
  test('are found by the name of the remark, and by nothing else', () => {
    expect(ruleOf('pull-not-down')?.right).toBe('/8 7G p5');
    expect([ruleOf('toString'), ruleOf(undefined), ruleOf(['pull-not-down'])]).toEqual([
      undefined,
      undefined,
      undefined,
    ]);
  });
});

describe('the lesson', () => {
  test.each(SHORTHAND_STEPS.map((step) => [step.title, step] as const))(
    '“%s” has a line that does it',
    (_title, step) => {
      expect(readPlaced(step.answer).problems).toEqual([]);
      expect(isSameLine(step.answer, step.answer)).toBe(true);
      expect(isSameLine(step.begun ?? '', step.answer)).toBe(false);
    },
  );
  test('a line counts however it is written, and no other does', () => {
    expect(isSameLine('/8  5G 7 /4 5B', '/8 5G 7G /4 5B')).toBe(true);
    expect(isSameLine('/8 5@3 7@3 /4 5@2', '/8 5G 7G /4 5B')).toBe(true);
    expect(isSameLine('/8 5G 7G 5B', '/8 5G 7G /4 5B')).toBe(false);
    expect(isSameLine('/8 5G p7', '/8 5G p7')).toBe(true);
    expect(isSameLine('zz', '7G 5B')).toBe(false);
  });
});

describe('the first steps', () => {
  const enter = async (role: Me['role'], id: string) => {
    openStudio({ me: () => meAs(role, id) });
    await useSession().load();
    return useGuide();
  };
  beforeEach(() => localStorage.clear());

  test('are offered once, go on as each thing is done, and are over at the end', async () => {
    const guide = await enter('student', 'ines');
    expect([guide.isOffered, guide.step]).toEqual([true, undefined]);
    guide.begin();
    expect([guide.isOffered, guide.step?.opens]).toEqual([false, 'piece']);
    guide.saw({ opened: 'ledger' });
    expect(guide.place).toBe(0);
    guide.saw({ opened: 'piece' });
    for (const pressed of ['Sign out', 'Hear it at 60', 'One step on', 'Not yet']) guide.saw({ pressed });
    expect(guide.step?.opens).toBe('ledger');
    guide.saw({ opened: 'ledger' });
    expect([guide.step, guide.isOffered]).toEqual([undefined, false]);
  });
  test('of a teacher see that something is typed; can be ended and taken again', async () => {
    const guide = await enter('teacher', 'mara');
    guide.begin();
    for (const opened of ['songs', 'song']) guide.saw({ opened });
    guide.saw({ pressed: 'Hear it at 60' });
    expect(guide.place).toBe(2);
    guide.saw({ typed: true });
    expect(guide.place).toBe(3);
    guide.end();
    expect([guide.step, guide.isOffered]).toEqual([undefined, false]);
    guide.begin();
    expect(guide.place).toBe(0);
  });
  test('are each person’s own, and not for those who only read', async () => {
    (await enter('teacher', 'mara')).end();
    expect((await enter('student', 'ines')).isOffered).toBe(true);
    expect((await enter('teacher', 'mara')).isOffered).toBe(false);
    expect((await enter('guardian', 'signe')).isOffered).toBe(false);
  });
});

describe('help', () => {
  test('says what a page is for, and has the signs of the book where results stand', () => {
    expect(purposeOf('ledger')).toMatch(/^Where a student stands/);
    expect(purposeOf(undefined)).toBeUndefined();
    expect([bookSignsOf('ledger').length, bookSignsOf('series')]).toEqual([3, []]);
  });
  test('has the signs of every tab that is shown, each once', () => {
    shownLegends.set('one', [
      ['h', 'hammer-on'],
      ['p', 'pull-off'],
    ]);
    shownLegends.set('two', [['h', 'hammer-on']]);
    expect(shownSigns.value.map(([sign]) => sign)).toEqual(['h', 'p']);
    shownLegends.delete('one');
    expect(shownSigns.value.map(([sign]) => sign)).toEqual(['h']);
  });
});
