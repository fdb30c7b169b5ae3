/** Words broken into lines of so many characters at most, a longer word for itself. */
export function wrapped(text: string, max: number): readonly string[] {
  const lines: string[] = [];
  let line = '';
  for (const word of text.split(/\s+/).filter(Boolean)) {
    if (line !== '' && line.length + 1 + word.length > max) {
      lines.push(line);
      line = '';
    }
    line += `${line === '' ? '' : ' '}${word}`;
  }
  return line === '' ? lines : [...lines, line];
}
