import { pressAlt } from '../ui/index.ts';

/** What is typed one after the other: the text, which a plain field holds until the editor is there, the tempos it is given at, its name. */
const FIELDS = ['.editor :is(.cm-content, textarea)', 'form.assign input', '.phrase-desk input.name'] as const;

/** What keys of the desk do. */
export interface DeskActs {
  readonly addPhrase: () => void;
  readonly repeatSection: () => void;
}

/** Takes the keys of the song desk, wherever the keyboard is on the page: Alt with n, g, a or j. A dialog keeps its own. */
export function pressOnDesk(event: KeyboardEvent, root: HTMLElement | null, acts: DeskActs): void {
  if (event.target instanceof HTMLElement && event.target.closest('[role=dialog]')) return;
  pressAlt(event, {
    KeyN: acts.addPhrase,
    KeyG: acts.repeatSection,
    KeyA: () => root?.querySelector<HTMLFormElement>('form.assign')?.requestSubmit(),
    KeyJ: () => nextField(root),
  });
}

function nextField(root: HTMLElement | null): void {
  const fields = FIELDS.flatMap((one) => root?.querySelector<HTMLElement>(one) ?? []);
  const here = fields.findIndex((one) => one === document.activeElement);
  fields[(here + 1) % Math.max(1, fields.length)]?.focus();
}
