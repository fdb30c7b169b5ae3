import { unzlibSync } from 'fflate';

/** Bytes of the header and of an entry of its directory, in both formats. */
const WOFF = { header: 44, entry: 20 } as const;
const SFNT = { header: 12, entry: 16 } as const;

/**
 * The font inside a WOFF file, its tables unpacked. Source: WOFF File Format 1.0, sections 3 to 5; OpenType, “Organization of an OpenType
 * font”.
 */
export function woffToTtf(woff: Uint8Array): Uint8Array {
  const from = new DataView(woff.buffer, woff.byteOffset, woff.byteLength);
  const count = from.getUint16(12);
  const tables = Array.from({ length: count }, (_, index) => {
    const at = WOFF.header + index * WOFF.entry;
    const [offset, packed, length] = [from.getUint32(at + 4), from.getUint32(at + 8), from.getUint32(at + 12)];
    const bytes = woff.subarray(offset, offset + packed);
    return {
      tag: from.getUint32(at),
      checksum: from.getUint32(at + 16),
      data: packed < length ? unzlibSync(bytes) : bytes,
    };
  });
  const padded = (length: number) => (length + 3) & ~3;
  const size = SFNT.header + count * SFNT.entry + tables.reduce((sum, { data }) => sum + padded(data.length), 0);
  const font = new Uint8Array(size);
  const to = new DataView(font.buffer);
  const power = Math.floor(Math.log2(count));
  to.setUint32(0, from.getUint32(4));
  to.setUint16(4, count);
  to.setUint16(6, 16 * 2 ** power);
  to.setUint16(8, power);
  to.setUint16(10, 16 * (count - 2 ** power));
  let offset = SFNT.header + count * SFNT.entry;
  tables.forEach(({ tag, checksum, data }, index) => {
    const at = SFNT.header + index * SFNT.entry;
    to.setUint32(at, tag);
    to.setUint32(at + 4, checksum);
    to.setUint32(at + 8, offset);
    to.setUint32(at + 12, data.length);
    font.set(data, offset);
    offset += padded(data.length);
  });
  return font;
}
