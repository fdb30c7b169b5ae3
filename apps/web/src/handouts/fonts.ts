import italicUrl from '@fontsource/dejavu-sans/files/dejavu-sans-latin-400-italic.woff?url';
import plainUrl from '@fontsource/dejavu-sans/files/dejavu-sans-latin-400-normal.woff?url';
import boldUrl from '@fontsource/dejavu-sans/files/dejavu-sans-latin-700-normal.woff?url';
import { parse, type Font } from 'opentype.js';
import { musicUrl } from '../tab/index.ts';
import { woffToTtf } from './woff.ts';

/** Fonts of a document: three of words, to be embedded, and that of music, whose signs are drawn as outlines. */
export interface DocumentFonts {
  readonly words: readonly { readonly style: 'normal' | 'bold' | 'italic'; readonly bytes: Uint8Array }[];
  readonly music: Font;
  /** Whether the font of words has a sign for a character. */
  readonly has: (character: string) => boolean;
}

/** Lets the page do what waits, between two parts of long work. */
export function breath(): Promise<void> {
  return new Promise((resolve) => setTimeout(resolve));
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
  const words: DocumentFonts['words'][number][] = [];
  for (const [style, file] of [
    ['normal', plain],
    ['bold', bold],
    ['italic', italic],
  ] as const) {
    words.push({ style, bytes: woffToTtf(file) });
    await breath();
  }
  const known = parse(bufferOf(plain));
  await breath();
  return {
    words,
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
