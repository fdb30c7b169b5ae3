/** Takes a key that is pressed with Alt alone, by its place on the keyboard (`KeyN`); whether one of them was. */
export function pressAlt(event: KeyboardEvent, acts: Readonly<Record<string, () => void>>): boolean {
  const act = event.altKey && !event.ctrlKey && !event.metaKey ? acts[event.code] : undefined;
  if (!act) return false;
  event.preventDefault();
  act();
  return true;
}
