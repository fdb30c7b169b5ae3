import { MAX_CALLING, type Desk, type Found } from '@jam-ledger/contract';
import type { RouteLocationRaw } from 'vue-router';
import { dayText, momentText } from '../ui/index.ts';

/** One line of the desk: what, why, and where it leads. */
export interface DeskLine {
  readonly id: string;
  readonly what: string;
  readonly of: string;
  readonly when: string;
  readonly why: string;
  readonly isUrgent: boolean;
  readonly to: RouteLocationRaw;
  /** The key that leads there; nothing where the keys have run out. */
  readonly key: string | undefined;
}

/** Lines of one kind. */
export interface DeskGroup {
  readonly name: string;
  /** What is said where there are none. */
  readonly empty: string;
  readonly lines: readonly DeskLine[];
  /** What is said of those that are not shown; empty where all are. */
  readonly more: string;
}

/** Keys in the order of the lines; those that other keys of the page use are left out. */
export const LINE_KEYS = '1234567890abcdefghijklmnopqrstuvwxyz'.split('');

/** The desk as lines in the order of urgency, each with a key. */
export function deskLines(desk: Desk, zone: string): readonly DeskGroup[] {
  const keys = LINE_KEYS.values();
  const line = (one: Omit<DeskLine, 'key'>): DeskLine => {
    const next = keys.next();
    return { ...one, key: next.done === true ? undefined : next.value };
  };
  return [
    {
      name: 'Lessons',
      empty: 'No lesson in the coming days.',
      more: '',
      lines: desk.lessons.map(({ id, student, day, time, number, of, minutes, opensWith }) =>
        line({
          id,
          what: student.name,
          of: `${number} of ${of}, ${minutes} min`,
          when: `${day === desk.today ? 'today' : dayText(day, 'short')}, ${time}`,
          why: opensWith
            ? `Opens with “${opensWith.name}” (${opensWith.kind}): ${opensWith.why}`
            : 'Nothing is given yet, or due.',
          isUrgent: day === desk.today,
          to: { name: 'lesson', params: { studentId: student.id } },
        }),
      ),
    },
    {
      name: 'Requests',
      empty: 'Every request is answered and delivered.',
      more: '',
      lines: desk.requests.map(({ id, title, student, state, due, isAtRisk, why }) =>
        line({
          id,
          what: title,
          of: `for ${student.name}, ${state}`,
          when: due === null ? 'no day named' : `due ${dayText(due, 'short')}`,
          why: isAtRisk ? `At risk. ${why}` : why,
          isUrgent: isAtRisk,
          to: { name: 'requests' },
        }),
      ),
    },
    {
      name: 'Pieces that call',
      empty: 'Nothing is stuck or slipping, and nothing waits to be heard.',
      more: sayMore(desk),
      lines: desk.calls.map(({ piece, section, song, student, kind, why }) =>
        line({
          id: piece.id,
          what: piece.name,
          of: `${section}, ${song} · ${student.name}`,
          when: kind,
          why,
          isUrgent: kind === 'stuck' || kind === 'slipping',
          to: { name: 'lesson', params: { studentId: student.id }, query: { piece: piece.id } },
        }),
      ),
    },
    {
      name: 'Notes from students',
      empty: 'Nobody has written since their last lesson.',
      more: '',
      lines: desk.notes.map(({ id, student, piece, song, text, at }) =>
        line({
          id,
          what: student.name,
          of: `${piece ? `${piece.name}, ` : ''}${song}`,
          when: momentText(at, zone),
          why: `“${text}”`,
          isUrgent: false,
          to: piece
            ? { name: 'piece', params: { id: piece.id } }
            : { name: 'lesson', params: { studentId: student.id } },
        }),
      ),
    },
  ];
}

function sayMore({ calling, calls }: Desk): string {
  const left = calling - calls.length;
  if (left <= 0) return '';
  return `and ${calling >= MAX_CALLING ? 'many' : left} more, less urgent; they come up in the lessons.`;
}

/** Where something found leads. */
export function placeOfFound({ kind, id, studentId, songId }: Found): RouteLocationRaw {
  const song = (query: Record<string, string> = {}): RouteLocationRaw => ({
    name: 'song',
    params: { id: songId ?? '' },
    query,
  });
  switch (kind) {
    case 'student':
      return studentId === null ? { name: 'studio' } : { name: 'ledger', params: { studentId } };
    case 'request':
      return { name: 'requests' };
    case 'song':
    case 'section':
    case 'note':
      return song();
    case 'phrase':
      return song({ phrase: id });
    case 'series':
      return { name: 'series', query: { id } };
    case 'remark':
      return { name: 'ledger', params: { studentId: studentId ?? '' } };
    case 'lesson':
      return { name: 'lesson', params: { studentId: studentId ?? '' } };
  }
}
