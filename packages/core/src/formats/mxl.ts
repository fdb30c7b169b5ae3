import { strToU8, zipSync } from 'fflate';
import { element, writeXml } from './xml.ts';

/**
 * A score as a compressed archive: the container that names it first, then the score. Source: MusicXML 4.0, “Compressed .MXL files”.
 * The times of its entries are fixed, so that the same score gives the same bytes.
 */
export function writeMxl(score: string): Uint8Array<ArrayBuffer> {
  const rootfile = element('rootfile', {
    'full-path': 'score.musicxml',
    'media-type': 'application/vnd.recordare.musicxml+xml',
  });
  const container = writeXml(element('container', {}, element('rootfiles', {}, rootfile)));
  const files = {
    mimetype: [strToU8('application/vnd.recordare.musicxml'), { level: 0 }],
    'META-INF/container.xml': strToU8(container),
    'score.musicxml': strToU8(score),
  } as const;
  return Uint8Array.from(
    zipSync({ ...files, mimetype: [files.mimetype[0], { level: 0 }] }, { mtime: new Date(1980, 0, 1) }),
  );
}
