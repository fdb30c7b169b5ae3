/** A colour of the look that holds, as charts need it, `--cool`. */
export function token(name: string): string {
  return getComputedStyle(document.documentElement).getPropertyValue(name).trim();
}
