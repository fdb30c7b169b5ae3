import type { ReportPiece, SeriesReport } from '@jam-ledger/contract';
import { dayText } from '../ui/index.ts';

/** A chance in plain words and a number, 0 to 1. Our choice of words. */
export function sayChance(chance: number): string {
  const percent = chance > 0 && chance < 0.01 ? 'under 1 %' : `${Math.round(chance * 100)} %`;
  const words =
    chance >= 0.9
      ? 'very likely'
      : chance >= 0.66
        ? 'likely'
        : chance >= 0.4
          ? 'about even'
          : chance >= 0.1
            ? 'unlikely'
            : 'very unlikely';
  return `${words}, ${percent}`;
}

/** How a series stands, in sentences anybody understands. */
export function sayStanding({ series, pieces, readiness, today }: SeriesReport): readonly string[] {
  const name = series.student.name;
  const had = series.lessons.filter(({ day }) => day < today).length;
  const given = pieces.filter(({ assignedOn }) => assignedOn !== null);
  const count = (states: readonly ReportPiece['state'][]) => given.filter(({ state }) => states.includes(state)).length;
  const [held, target, slipping] = [
    count(['held']),
    count(['at target in ink', 'at target in pencil']),
    count(['slipping']),
  ];
  return [
    `${had} of ${series.lessons.length} lessons are done.`,
    given.length === 0
      ? 'Nothing has been given to practise yet.'
      : `${name} practises ${given.length} ${given.length === 1 ? 'piece' : 'pieces'} of ${pieces.length}: ${held} held at full speed, ${target} at full speed for the first time${slipping > 0 ? `, ${slipping} slipping` : ''}.`,
    ...(readiness === null || readiness.chance === null
      ? []
      : [
          `Everything ready by ${dayText(readiness.by)}${series.goal ? ` for ${series.goal}` : ''} is ${sayChance(readiness.chance)}${
            readiness.holdingBack[0] && readiness.chance < 0.66
              ? `; “${readiness.holdingBack[0].name}” holds it back most`
              : ''
          }.`,
        ]),
  ];
}
