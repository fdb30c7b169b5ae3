import musicUrl from '@fontsource/bravura/files/bravura-latin-400-normal.woff?url';
import italicUrl from '@fontsource/dejavu-sans/files/dejavu-sans-latin-400-italic.woff?url';
import plainUrl from '@fontsource/dejavu-sans/files/dejavu-sans-latin-400-normal.woff?url';
import boldUrl from '@fontsource/dejavu-sans/files/dejavu-sans-latin-700-normal.woff?url';
import { unzlibSync } from 'fflate';
import { parse, type Font } from 'opentype.js';

/** Fonts of a document: three of words, to be embedded, and that of music, whose signs are drawn as outlines. */
export interface DocumentFonts {
  readonly words: readonly { readonly style: 'normal' | 'bold' | 'italic'; readonly bytes: Uint8Array }[];
  readonly music: Font;
  /** Whether the font of words has a sign for a character. */
  readonly has: (character: string) => boolean;
}

let loading: Promise<DocumentFonts> | undefined;

/** Fetches the fonts once. @throws Error in a sentence where they cannot be fetched */
export function loadDocumentFonts(): Promise<DocumentFonts> {
  loading ??= load().catch((error: unknown) => {
    loading = undefined;
    throw error;
  });
  return loading;
}

async function load(): Promise<DocumentFonts> {
  const [music, plain, bold, italic] = await Promise.all([musicUrl, plainUrl, boldUrl, italicUrl].map(fetchBytes));
  if (!music || !plain || !bold || !italic) throw new Error('The fonts are not there.');
  const known = parse(bufferOf(plain));
  return {
    words: [
      { style: 'normal', bytes: woffToTtf(plain) },
      { style: 'bold', bytes: woffToTtf(bold) },
      { style: 'italic', bytes: woffToTtf(italic) },
    ],
    music: parse(bufferOf(music)),
    has: (character) => known.charToGlyphIndex(character) > 0,
  };
}

async function fetchBytes(url: string): Promise<Uint8Array> {
  const response = await fetch(url).catch(() => undefined);
  if (!response?.ok)
    throw new Error('The fonts of the document could not be fetched; try again when the line is back.');
  return new Uint8Array(await response.arrayBuffer());
}

function bufferOf({ buffer, byteOffset, byteLength }: Uint8Array): ArrayBuffer {
  return buffer.slice(byteOffset, byteOffset + byteLength) as ArrayBuffer;
}

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
