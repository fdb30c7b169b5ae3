import { strFromU8 } from 'fflate';

/** Text of a file by its byte order mark, UTF-8 where there is none; what is no character is read as U+FFFD. Source: Unicode 15, section 23.8. */
export function decode(bytes: Uint8Array): string {
  const [a, b, c] = bytes;
  if (a === 0xff && b === 0xfe) return utf16(bytes.subarray(2), true);
  if (a === 0xfe && b === 0xff) return utf16(bytes.subarray(2), false);
  return strFromU8(a === 0xef && b === 0xbb && c === 0xbf ? bytes.subarray(3) : bytes);
}

/** Characters that are put together at once; a call takes no more arguments than the stack holds. */
const CHUNK = 8192;

function utf16(bytes: Uint8Array, isLittle: boolean): string {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let text = '';
  for (let from = 0; from + 1 < bytes.length; from += 2 * CHUNK) {
    const units: number[] = [];
    for (let at = from; at + 1 < Math.min(bytes.length, from + 2 * CHUNK); at += 2)
      units.push(view.getUint16(at, isLittle));
    text += String.fromCharCode(...units);
  }
  return text;
}
