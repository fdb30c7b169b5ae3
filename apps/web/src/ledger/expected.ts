import type { Expected } from '@jam-ledger/contract';
import { dayText } from '../ui/index.ts';

/** When a target will be reached, in a few words: its middle, and the chance by the day it is wanted. */
export function sayExpectedShortly(expected: Expected): string {
  if ('tooLittle' in expected) return 'too little to say';
  const { middle, wanted } = expected;
  const about = `about ${dayText(middle, 'short')}`;
  return wanted ? `${about} · ${Math.round(wanted.chance * 100)} % by ${dayText(wanted.day, 'short')}` : about;
}

/** When a target will be reached, in words: a range, its middle, and the chance by the day it is wanted. */
export function sayExpected(expected: Expected): string {
  if ('tooLittle' in expected) return expected.tooLittle;
  const { early, middle, late, wanted } = expected;
  const range = `Expected ${dayText(early)} to ${dayText(late)}, most likely about ${dayText(middle)}.`;
  if (!wanted) return range;
  return `${range} ${Math.round(wanted.chance * 100)} % by ${dayText(wanted.day)}, when it is wanted.`;
}
