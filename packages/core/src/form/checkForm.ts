import type { Meter } from '../notation/index.ts';
import { playForm, type FormSection } from './playForm.ts';
import { barsBetween, barSeconds, STAMP_SECONDS, tempoFromStamps } from './tempo.ts';

/** What can be wrong with a form. */
export type FormProblemCode =
  | 'out-of-order'
  | 'same-start'
  | 'clock-against-bars'
  | 'no-phrases'
  | 'phrases-short'
  | 'phrases-long'
  | 'no-such-pass'
  | 'jump-nowhere'
  | 'circle';

/** A certain mend of a section: the field, what it becomes, and what the button says. */
export interface FormFix {
  readonly title: string;
  readonly sectionId: string;
  readonly change: { readonly bars?: number; readonly times?: number };
}

/** One thing wrong with the form, at its section, in words with its numbers. */
export interface FormProblem {
  readonly code: FormProblemCode;
  readonly sectionId: string;
  readonly message: string;
  readonly fix?: FormFix;
}

/** A form with what it is checked against. */
export interface CheckedForm {
  readonly sections: readonly FormSection[];
  readonly meter: Meter;
  readonly bpm: number;
  /** Bars that the phrases written for a section fill, by its id; missing where none is written. */
  readonly phraseBars: ReadonlyMap<string, number>;
}

/** A fraction of a bar that is let pass when phrases are counted against bars. Our choice. */
const BAR_SLACK = 0.01;

/** Finds what does not agree: stamps, bars, tempo, phrases, passes and jumps; each with its numbers. */
export function checkForm(form: CheckedForm): readonly FormProblem[] {
  const { sections } = form;
  const problems = sections.flatMap((section, index) => [
    ...checkClock(section, sections[index + 1], form),
    ...checkPhrases(section, form),
    ...checkPasses(section),
    ...checkJump(section, sections, index),
  ]);
  const last = sections.at(-1);
  if (last && playForm(sections).truncated)
    problems.push(problem('circle', last, 'Written out, this form never ends; its jumps and repeats go in a circle.'));
  return problems;
}

function checkClock(section: FormSection, next: FormSection | undefined, form: CheckedForm): readonly FormProblem[] {
  if (!next) return [];
  const { startSeconds: from } = section;
  const { startSeconds: to } = next;
  if (to < from)
    return [problem('out-of-order', next, `${next.label} starts before ${section.label}, which stands before it.`)];
  if (to === from) return [problem('same-start', next, `${next.label} and ${section.label} start at the same time.`)];
  if (section.open || section.jump) return [];
  const bars = section.bars * section.times;
  const room = barsBetween({ fromSeconds: from, toSeconds: to }, form);
  if (bars <= room.most && bars >= room.least) return [];
  return [clockProblem(section, next, form)];
}

function clockProblem(section: FormSection, next: FormSection, { meter, bpm }: CheckedForm): FormProblem {
  const seconds = next.startSeconds - section.startSeconds;
  const bars = section.bars * section.times;
  const takes = bars * barSeconds(meter, bpm);
  const fits = tempoFromStamps({ fromSeconds: section.startSeconds, toSeconds: next.startSeconds }, { bars, meter });
  const range = fits ? `; ${bars} bars in this time would be ${round(fits.least)} to ${round(fits.most)} bpm` : '';
  const message =
    `From ${section.label} to ${next.label} are ${round(seconds)} s (± ${2 * STAMP_SECONDS} s), ` +
    `but ${bars} bars at ${round(bpm)} bpm take ${round(takes)} s${range}.`;
  const whole = seconds / barSeconds(meter, bpm) / section.times;
  const near = Math.round(whole);
  const isNear = near >= 1 && Math.abs(whole - near) * section.times * barSeconds(meter, bpm) <= 2 * STAMP_SECONDS;
  if (!isNear) return problem('clock-against-bars', section, message);
  const fix = { title: `Make it ${near} bars`, sectionId: section.id, change: { bars: near } };
  return problem('clock-against-bars', section, message, fix);
}

function checkPhrases(section: FormSection, { phraseBars }: CheckedForm): readonly FormProblem[] {
  const written = phraseBars.get(section.id);
  if (written === undefined) return [problem('no-phrases', section, `${section.label} has no phrase yet.`)];
  const fix = {
    title: `Make it ${Math.ceil(written)} bars`,
    sectionId: section.id,
    change: { bars: Math.ceil(written) },
  };
  const says = `The phrases of ${section.label} fill ${round(written)} of its ${section.bars} bars.`;
  if (written < section.bars - BAR_SLACK) return [problem('phrases-short', section, says)];
  if (written > section.bars + BAR_SLACK) return [problem('phrases-long', section, says, fix)];
  return [];
}

function checkPasses(section: FormSection): readonly FormProblem[] {
  return section.passes.flatMap(({ pass }) => {
    if (pass === 'last' || (pass >= 1 && pass <= section.times)) return [];
    const message = `There is no pass ${pass} of ${section.label}; it is played ${section.times} times.`;
    return [
      problem('no-such-pass', section, message, {
        title: `Play it ${pass} times`,
        sectionId: section.id,
        change: { times: pass },
      }),
    ];
  });
}

function checkJump(section: FormSection, sections: readonly FormSection[], index: number): readonly FormProblem[] {
  if (!section.jump) return [];
  const to = sections.findIndex(({ id }) => id === section.jump?.to);
  if (to >= 0 && to <= index) return [];
  return [
    problem(
      'jump-nowhere',
      section,
      `After ${section.label} the form jumps to a section that does not stand before it.`,
    ),
  ];
}

function problem(code: FormProblemCode, { id }: FormSection, message: string, fix?: FormFix): FormProblem {
  return { code, sectionId: id, message, ...(fix && { fix }) };
}

/** A number as it is read: at most one digit behind the point. */
function round(value: number): string {
  return String(Math.round(value * 10) / 10);
}
