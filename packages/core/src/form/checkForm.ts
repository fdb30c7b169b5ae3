import { barsFrom, tempoAt, secondsAfter, type TempoChanges } from './tempoChanges.ts';
import { playForm, type FormSection, type PlayedForm } from './playForm.ts';
import { STAMP_SECONDS, tempoFromStamps } from './tempo.ts';

/** What can be wrong with a form. */
export type FormProblemCode =
  | 'out-of-order'
  | 'same-start'
  | 'gap'
  | 'overlap'
  | 'beyond-song'
  | 'no-phrases'
  | 'phrases-short'
  | 'phrases-long'
  | 'no-such-pass'
  | 'no-way-out'
  | 'jump-nowhere'
  | 'circle';

/** A certain fix of a section: the field, what it becomes, and what the button says. */
export interface FormFix {
  readonly title: string;
  readonly sectionId: string;
  readonly change: { readonly bars?: number; readonly times?: number; readonly open?: false; readonly jump?: null };
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
  readonly tempoChanges: TempoChanges;
  /** Bars that the phrases written for a section fill, by its id; missing where none is written, null where only their order is known. */
  readonly phraseBars: ReadonlyMap<string, number | null>;
  /** False where the tempo is only supposed; left out where it is known. */
  readonly tempoKnown?: boolean;
  /** How long the recording is, seconds; left out where nobody said. */
  readonly songSeconds?: number | undefined;
}

/** A fraction of a bar that is let pass when phrases are counted against bars. Our choice. */
const BAR_SLACK = 0.01;

/** Finds what does not agree: stamps, bars, tempo, phrases, passes and jumps; each with its numbers. */
export function checkForm(form: CheckedForm): readonly FormProblem[] {
  const { sections } = form;
  const played = playForm(sections);
  const firsts = new Map<string, number>();
  for (const [index, { id }] of played.rounds.entries()) if (!firsts.has(id)) firsts.set(id, index);
  const problems = sections.flatMap((section, index) => [
    ...checkClock({ section, next: sections[index + 1], played, firsts }, form),
    ...checkEnd(section, form),
    ...checkPhrases(section, form),
    ...checkPasses(section),
    ...checkWayOut(section, sections[index + 1]),
    ...checkJump(section, sections, index),
  ]);
  const last = sections.at(-1);
  if (last && played.truncated)
    problems.push(problem('circle', last, 'Written out, this form never ends; its jumps and repeats go in a circle.'));
  return problems;
}

interface Neighbours {
  readonly section: FormSection;
  readonly next: FormSection | undefined;
  readonly played: PlayedForm;
  /** The first round of every section, by its id. */
  readonly firsts: ReadonlyMap<string, number>;
}

function checkClock({ section, next, played, firsts }: Neighbours, form: CheckedForm): readonly FormProblem[] {
  if (!next || section.startKnown === false || next.startKnown === false) return [];
  const { startSeconds: from } = section;
  const { startSeconds: to } = next;
  if (to < from)
    return [problem('out-of-order', next, `${next.label} starts before ${section.label}, which stands before it.`)];
  if (to === from) return [problem('same-start', next, `${next.label} and ${section.label} start at the same time.`)];
  const between = played.rounds.slice(firsts.get(section.id) ?? 0, firsts.get(next.id) ?? 0);
  const open = new Set(form.sections.filter((one) => one.open || one.barsKnown === false).map(({ id }) => id));
  if (form.tempoKnown === false || between.some(({ id }) => open.has(id))) return [];
  const bars = between.reduce((sum, round) => sum + round.bars, 0);
  const takes = secondsAfter(from, bars, form.tempoChanges) - from;
  if (bars === 0 || Math.abs(takes - (to - from)) <= 2 * STAMP_SECONDS) return [];
  const alone = between.every(({ id, changes }) => id === section.id && changes.length === 0);
  return [clockProblem({ section, next, bars, takes, alone }, form)];
}

interface Disagreement {
  readonly section: FormSection;
  readonly next: FormSection;
  readonly bars: number;
  readonly takes: number;
  /** Whether nothing but plain rounds of the section lies between. */
  readonly alone: boolean;
}

function clockProblem({ section, next, bars, takes, alone }: Disagreement, { tempoChanges }: CheckedForm): FormProblem {
  const stamps = { fromSeconds: section.startSeconds, toSeconds: next.startSeconds };
  const seconds = stamps.toSeconds - stamps.fromSeconds;
  const tempoChange = tempoAt(stamps.fromSeconds, tempoChanges);
  const steady = tempoChanges.every(({ fromSeconds: at }) => at <= stamps.fromSeconds || at >= stamps.toSeconds);
  const fits = steady ? tempoFromStamps(stamps, { bars, meter: tempoChange.meter }) : undefined;
  const range = fits ? `; ${bars} bars in this time would be ${round(fits.min)} to ${round(fits.max)} bpm` : '';
  const message =
    `From ${section.label} to ${next.label} are ${round(seconds)} s (± ${2 * STAMP_SECONDS} s), ` +
    `but ${bars} bars at ${round(tempoChange.bpm)} bpm take ${round(takes)} s${range}.`;
  const code = takes < seconds ? 'gap' : 'overlap';
  const near = Math.round(barsFrom(stamps.fromSeconds, stamps.toSeconds, tempoChanges) / section.times);
  const off = Math.abs(secondsAfter(stamps.fromSeconds, near * section.times, tempoChanges) - stamps.toSeconds);
  if (!alone || near < 1 || off > 2 * STAMP_SECONDS) return problem(code, section, message);
  return problem(code, section, message, {
    title: `Make it ${near} bars`,
    sectionId: section.id,
    change: { bars: near },
  });
}

function checkEnd(section: FormSection, { songSeconds, tempoChanges }: CheckedForm): readonly FormProblem[] {
  if (songSeconds === undefined || section.startKnown === false) return [];
  const { label, startSeconds, bars } = section;
  const recording = `the recording ends at ${round(songSeconds)} s`;
  if (startSeconds >= songSeconds)
    return [problem('beyond-song', section, `${label} starts at ${round(startSeconds)} s, but ${recording}.`)];
  const ends = secondsAfter(startSeconds, bars, tempoChanges);
  if (ends <= songSeconds + 2 * STAMP_SECONDS) return [];
  return [problem('beyond-song', section, `${label} would end at ${round(ends)} s, but ${recording}.`)];
}

/** About so many times, and then something comes: how often must be known. A fade is the end. */
function checkWayOut(section: FormSection, next: FormSection | undefined): readonly FormProblem[] {
  if (!section.open || !next) return [];
  const { id, label, times } = section;
  const message =
    `${label} goes round about ${times} times to the fade, yet ${next.label} comes after it; ` +
    'its last pass has no way out.';
  const fix: FormFix = { title: `Play it ${times} times`, sectionId: id, change: { open: false } };
  return [problem('no-way-out', section, message, fix)];
}

function checkPhrases(section: FormSection, { phraseBars }: CheckedForm): readonly FormProblem[] {
  const written = phraseBars.get(section.id);
  if (written === undefined) return [problem('no-phrases', section, `${section.label} has no phrase yet.`)];
  if (written === null || section.barsKnown === false) return [];
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
  const says = `After ${section.label} the form jumps to a section that does not stand before it.`;
  const fix: FormFix = { title: 'Take the jump out', sectionId: section.id, change: { jump: null } };
  return [problem('jump-nowhere', section, says, fix)];
}

function problem(code: FormProblemCode, { id }: FormSection, message: string, fix?: FormFix): FormProblem {
  return { code, sectionId: id, message, ...(fix && { fix }) };
}

/** A number as it is read: at most one digit behind the point. */
function round(value: number): string {
  return String(Math.round(value * 10) / 10);
}
