/** Hands a file to the browser, which keeps it where the person wants it. */
export function saveFile(name: string, content: BlobPart, type: string): void {
  const url = URL.createObjectURL(new Blob([content], { type }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  // The browser has taken it by then.
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** A title as the name of a file: what no system takes is left out. */
export function fileName(title: string, ending: string): string {
  const plain = title
    .normalize('NFC')
    .replaceAll(/[\\/:*?"<>|]|\p{Cc}/gu, ' ')
    .replaceAll(/\s+/g, ' ')
    .replace(/^[. ]+|[. ]+$/g, '')
    .slice(0, 80);
  return `${plain || 'song'}.${ending}`;
}
