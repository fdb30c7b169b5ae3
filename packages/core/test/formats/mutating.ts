/** A file with a few bytes changed, left out, doubled, or cut off at the end. */
export function mutated(file: Uint8Array, random: () => number): Uint8Array {
  let bytes = [...file];
  const times = 1 + Math.floor(random() * 6);
  for (let time = 0; time < times; time += 1) {
    const at = Math.floor(random() * bytes.length);
    const length = 1 + Math.floor(random() * 40);
    const kind = Math.floor(random() * 5);
    if (kind === 0) bytes[at] = Math.floor(random() * 256);
    else if (kind === 1) bytes.splice(at, length);
    else if (kind === 2) bytes.splice(at, 0, ...bytes.slice(at, at + length));
    else if (kind === 3) bytes = bytes.slice(0, at);
    else bytes.splice(at, 0, ...Array.from({ length: 4 }, () => Math.floor(random() * 256)));
  }
  return Uint8Array.from(bytes);
}
