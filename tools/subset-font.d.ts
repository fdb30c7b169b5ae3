declare module 'subset-font' {
  /** The signs of a text, cut out of a font. */
  export default function subsetFont(
    font: Buffer,
    text: string,
    options: { readonly targetFormat: 'woff' | 'woff2' },
  ): Promise<Buffer>;
}
